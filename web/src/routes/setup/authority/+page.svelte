<script lang="ts">
  import { onMount } from 'svelte';
  import { useKeys } from '$lib/keys';
  import { useSession } from '$lib/session';
  import { AuthorityState, Lately, LimitTable, Line } from '$lib/setup';
  import { day, DayField, Problem } from '$lib/shared';

  const all = new AuthorityState();
  const session = useSession();
  let [who, from, to, standIn] = $state<[number, string, string, number | null]>([0, '', '', null]);
  let problem = $state('');
  onMount(() => void all.load());
  useKeys(() => (all.moving ? [{ key: 'Escape', words: 'leave it', run: () => (all.moving = null) }] : []));

  // Whoever opens it says first when they are away themselves.
  $effect(() => {
    if (session.person && who === 0) who = session.person.id;
  });

  async function away(event: SubmitEvent) {
    event.preventDefault();
    problem = '';
    try {
      await all.away({ person: who, from, to, standIn });
      [from, to, standIn] = ['', '', null];
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not kept.';
    }
  }
</script>

<svelte:head><title>Authority · Solvenda</title></svelte:head>
<Problem words={all.latest.problem || (all.at ? '' : all.problem)} />
{#if all.view}
  <div class="grid gap-x-8 gap-y-6 pb-8 lg:grid-cols-[minmax(280px,380px)_1fr]">
    <div class="min-w-0">
      <Line state={all} />
      <section class="mt-6" aria-label="who is away">
        <h2 class="border-b border-strong pb-1 text-[11.5px] text-second">who is away, and who decides for them</h2>
        {#each all.view.away as one (one.id)}
          <p class="py-1">
            <b>{one.person}</b>
            {day(one.from)} to {day(one.to)}: {#if one.standIn}<b>{one.standIn}</b>{:else}nobody{/if}
            {#if one.mine}<button class="ml-2 text-second underline" onclick={() => void all.back(one.id)}>not away</button>{/if}
            {#if one.gap}<span class="block text-notice">● {one.gap}</span>{/if}
          </p>
        {:else}<p class="py-1 text-second">Nobody.</p>{/each}
        <form class="mt-2 flex flex-wrap items-center gap-2" onsubmit={away}>
          {#if all.view.mayMove}
            <select class="border-b border-ink bg-transparent" bind:value={who} aria-label="who is away">
              {#each all.people as p (p.person)}<option value={p.person}>{p.name}</option>{/each}
            </select>
          {:else}<span>You are away</span>{/if}
          <DayField bind:value={from} label="away from" required />
          to <DayField bind:value={to} label="away to" required />
          <select class="border-b border-ink bg-transparent" bind:value={standIn} aria-label="stand-in">
            <option value={null}>nobody stands in</option>
            {#each all.people.filter((p) => p.person !== who) as p (p.person)}<option value={p.person}>{p.name} stands in</option>{/each}
          </select>
          <button class="btn btn-outline btn-sm">Keep it</button>
        </form>
        {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
      </section>
    </div>
    <div class="min-w-0">
      <h1 class="font-serif text-[24px]">What each may decide alone <em class="text-second">from today</em></h1>
      <LimitTable state={all} />
      <Lately changes={all.view.lately} />
    </div>
  </div>
{/if}
