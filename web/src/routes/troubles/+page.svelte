<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap, useKeys } from '$lib/keys';
  import { Latest, Problem, since } from '$lib/shared';

  const latest = new Latest<Schemas['TroublesView']>();
  const view = $derived(latest.value);
  let problem = $state('');
  let at = $state(0);

  // Meets the server every few seconds: what goes wrong, and what is over, shows by itself.
  $effect(() => {
    const load = () => void latest.ask(() => ask(api.GET('/api/troubles')));
    load();
    const timer = setInterval(load, 5000);
    return () => clearInterval(timer);
  });

  const rows = $derived(view?.troubles ?? []);
  const chosen = $derived(rows[Math.min(at, rows.length - 1)]);

  async function settle(again: boolean) {
    if (!chosen) return;
    try {
      latest.take(await ask(api.POST('/api/troubles/{id}/settle', { params: { path: { id: chosen.id } }, body: { again } })));
      problem = '';
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It could not be done.';
    }
  }

  useKeys(() => [
    { key: 'j', words: 'next', run: () => (at = Math.min(at + 1, Math.max(0, rows.length - 1))) },
    { key: 'k', words: 'before', run: () => (at = Math.max(at - 1, 0)) },
    { key: 't', words: 'try it once more', run: () => void settle(true) },
    { key: 'l', words: 'leave it as it is', run: () => void settle(false) },
  ]);
</script>

<svelte:head><title>House · Solvenda</title></svelte:head>
<div class="px-5 pt-3">
  <h1 class="font-serif text-[25px] leading-tight">House <em class="text-second">what did not work by itself</em></h1>
  <Problem words={problem || latest.problem} />
  {#if rows.length}
    <ul class="mt-3 border-t border-ink" aria-label="what did not work">
      {#each rows as row, i (row.id)}
        <li
          class="grid grid-cols-[110px_1fr_auto] items-baseline gap-x-4 border-b border-hairline px-2 py-2 max-md:grid-cols-1 {row === chosen
            ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]'
            : ''}"
        >
          <button class="text-left text-second" onclick={() => (at = i)}>{row.worker}</button>
          <div class="min-w-0">
            <button class="block w-full text-left font-serif text-[16px] break-words" onclick={() => (at = i)}>{row.subject || 'its whole round'}</button>
            <p class="break-words">
              <span class={row.apart ? 'needs' : ''}>{row.apart ? 'set apart, not tried any more' : 'is tried again by itself'}</span>
              <span class="text-second">{row.words}</span>
            </p>
            <p class="text-second">{row.times === 1 ? 'once' : `${row.times} times`}, last {since(row.lastAt)}</p>
          </div>
          {#if row === chosen}
            <div class="flex gap-3">
              <button class="rounded-[3px] bg-ink px-2.5 py-1 font-semibold whitespace-nowrap text-sheet" onclick={() => settle(true)}
                >try again <KeyCap>T</KeyCap></button
              >
              <button class="whitespace-nowrap" onclick={() => settle(false)}>leave it <KeyCap>L</KeyCap></button>
            </div>
          {/if}
        </li>
      {/each}
    </ul>
  {:else if view}
    <p class="mt-4 text-second">
      Nothing failed. What a worker could not do (a letter that no server takes, a message that cannot be read) stands here until it is over.
    </p>
  {/if}
  {#if view?.leftOut.length}
    <h2 class="mt-6 font-serif text-[19px]">Left out of prices</h2>
    <ul class="mt-1">
      {#each view.leftOut as words (words)}<li class="border-b border-hairline px-2 py-1.5">{words}</li>{/each}
    </ul>
  {/if}
</div>
