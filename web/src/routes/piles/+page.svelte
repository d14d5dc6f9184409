<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { usePulse } from '$lib/pulse';
  import { useSession } from '$lib/session';
  import { day, plain, Problem } from '$lib/shared';

  type Pile = Schemas['PileView'];
  const session = useSession();
  let piles = $state.raw<readonly Pile[] | null>(null);
  let problem = $state('');
  let renaming = $state<string | null>(null);
  let name = $state('');
  let shared = $state(false);

  const load = async () => {
    try {
      piles = await ask(api.GET('/api/piles'));
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'The piles could not be loaded.';
    }
  };
  onMount(load);
  usePulse(
    (subject) => subject.startsWith('piles:'),
    () => void load(),
  );

  async function run(act: () => Promise<readonly Pile[]>, otherwise: string) {
    try {
      [piles, problem, renaming] = [await act(), '', null];
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : otherwise;
    }
  }

  function begin(pile: Pile) {
    [renaming, name, shared] = [pile.key, pile.name, pile.shared];
  }

  const keep = (event: SubmitEvent, pile: Pile) => {
    event.preventDefault();
    void run(() => ask(api.PUT('/api/piles/{key}', { params: { path: { key: pile.key } }, body: { name, shared } })), 'It kept its name.');
  };
  const remove = (pile: Pile) => run(() => ask(api.DELETE('/api/piles/{key}', { params: { path: { key: pile.key } } })), 'It is still there.');

  const opens = (pile: Pile, kind: string) => `/${kind}?filter=${encodeURIComponent(`pile:${pile.key}${kind === 'requests' ? '' : ' open:any'}`)}`;
  const mayWrite = $derived(session.person?.mayWrite ?? false);
</script>

<svelte:head><title>Piles · Solvenda</title></svelte:head>

<div class="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 pt-3">
  <h1 class="pb-1 font-serif text-[25px] leading-tight">Piles <em class="text-second">put together by hand</em></h1>
  <Problem words={problem} onclose={() => (problem = '')} />
  {#if piles && piles.length === 0}
    <p class="max-w-xl py-6 text-second">
      Nothing is piled up. In <a class="underline" href="/requests">requests</a>, <a class="underline" href="/quotes">quotes</a> or
      <a class="underline" href="/orders">orders</a>, pick rows with Space and put them on a pile: they are opened again together, and worked through together.
    </p>
  {/if}
  {#each piles ?? [] as pile (pile.key)}
    <section class="grid grid-cols-[300px_1fr_360px] items-baseline gap-x-6 gap-y-1 border-b border-hairline py-2 max-sm:grid-cols-1" aria-label={pile.name}>
      {#if renaming === pile.key}
        <form class="col-span-3 flex flex-wrap items-center gap-3 max-sm:col-span-1" onsubmit={(e) => keep(e, pile)}>
          <label
            >called <input
              class="border-b border-strong bg-transparent px-1"
              bind:value={name}
              required
              maxlength="60"
              {@attach (i: HTMLInputElement) => i.focus()}
            /></label
          >
          <label class="flex items-center gap-1.5"><input type="checkbox" bind:checked={shared} /> for everybody</label>
          <button class="btn btn-outline btn-sm">Keep it</button>
          <button type="button" class="text-second underline" onclick={() => void remove(pile)}>take the pile away; what lies on it stays</button>
          <button type="button" class="text-second underline" onclick={() => (renaming = null)}>leave it</button>
        </form>
      {:else}
        <h2 class="font-serif text-[17px]">{pile.name}</h2>
        <p class="flex flex-wrap gap-4">
          {#each pile.parts as part (part.kind)}<a class="underline" href={opens(pile, part.kind)}>{plain(part.count)} {part.words}</a>
          {:else}<span class="text-second">nothing lies on it</span>{/each}
        </p>
        <p class="text-right text-second max-sm:text-left">
          {pile.mine ? (pile.shared ? 'yours, for everybody' : 'yours alone') : `${pile.owner}’s`} · since {day(pile.createdAt.slice(0, 10))}
          {#if pile.mine && mayWrite}· <button class="underline" onclick={() => begin(pile)}>name, share, take away</button>{/if}
        </p>
      {/if}
    </section>
  {/each}
</div>
