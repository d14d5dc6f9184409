<script lang="ts">
  import { goto } from '$app/navigation';
  import { KeyCap, useKeys } from '$lib/keys';
  import { Anew, PlanningState } from '$lib/planning';
  import { usePulse } from '$lib/pulse';
  import { day, plain, Problem } from '$lib/shared';

  const plan = new PlanningState();
  const view = $derived(plan.view);
  let body = $state<HTMLElement>();
  let anew = $state<Anew>();

  // Meets the server.
  $effect(() => void plan.load());
  usePulse(
    () => true,
    () => void plan.load(),
    5_000,
  );
  const path = (r: { item: number; warehouse: string }) => `/planning/${r.item}?warehouse=${encodeURIComponent(r.warehouse)}`;

  function go(step: number) {
    plan.go(step);
    body?.querySelectorAll('tr')[plan.at]?.querySelector('a')?.focus();
  }

  useKeys(() => [
    { key: 'j', words: 'next', run: () => go(1) },
    { key: 'k', words: 'before', run: () => go(-1) },
    { key: 'ArrowDown', words: 'next', run: () => go(1) },
    { key: 'ArrowUp', words: 'before', run: () => go(-1) },
    { key: 'Enter', words: 'open its outlook', run: () => plan.chosen && void goto(path(plan.chosen)) },
    ...(view?.mayPlan ? [{ key: 'r', words: 'promise all open lines anew', run: () => void anew?.open() }] : []),
  ]);
  const buckets = ['by today', 'in 7 days', 'in 14', 'later'];
</script>

<svelte:head><title>Planning · Solvenda</title></svelte:head>
<Problem words={plan.problem || plan.latest.problem} onclose={() => (plan.problem = '')} />
{#if view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
    <h1 class="font-serif text-[25px] leading-tight">
      Planning. <em class="text-second"
        >{plan.count('short') ? `${plan.count('short')} fall short` : 'Nothing falls short'}, {view.rows.length} of {view.positions} move.</em
      >
    </h1>
    <div class="mt-2 flex flex-wrap items-baseline gap-x-4 gap-y-1" role="group" aria-label="shown">
      {#each [['short', 'falls short'], ['late', 'a promise cannot be kept'], ['slipped', 'slipped'], ['all', 'all that moves']] as const as [key, words] (key)}
        <button
          class={plan.shown === key ? 'border-b-2 border-ink font-semibold' : 'border-b-2 border-transparent text-second'}
          aria-pressed={plan.shown === key}
          onclick={() => plan.show(key)}>{words} {plan.count(key)}</button
        >
      {/each}
      <input class="ml-auto w-44 border-b border-strong bg-transparent py-0.5" placeholder="find an item" aria-label="find an item" bind:value={plan.find} />
    </div>
    <div class="mt-3 min-h-0 flex-1 overflow-auto">
      <table class="w-full min-w-[980px] border-collapse">
        <thead class="text-left text-[11.5px] text-second">
          <tr class="border-b border-strong">
            <th class="py-1 pl-2 font-normal">item</th>
            <th class="px-2 font-normal">warehouse</th>
            <th class="px-2 text-right font-normal">on hand</th>
            {#each buckets as b (b)}<th class="px-2 text-right font-normal">{b}</th>{/each}
            <th class="px-2 text-right font-normal">comes</th>
            <th class="px-2 font-normal">next</th>
            <th class="px-2 text-right font-normal">short</th>
            <th class="px-2 font-normal">from</th>
            <th class="px-2 text-right font-normal">would do</th>
            <th class="pl-2 font-normal">waits</th>
          </tr>
        </thead>
        <tbody bind:this={body}>
          {#each plan.rows as row, i (row.code + row.warehouse)}
            <tr
              class="border-b border-hairline {i === plan.at ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
              aria-current={i === plan.at ? 'true' : undefined}
            >
              <td class="max-w-[330px] truncate py-1.5 pl-2"
                ><a class="hover:underline" href={path(row)}
                  ><span class="font-mono text-[12px]">{row.code}</span> <span class="font-serif text-[15px]">{row.words}</span></a
                ></td
              >
              <td class="px-2 whitespace-nowrap text-second">{row.warehouse}</td>
              <td class="px-2 text-right">{plain(row.onHand)} <span class="text-second">{row.unit}</span></td>
              {#each row.days as d, n (n)}<td class="px-2 text-right {n === 0 ? '' : 'text-second'}">{d ? plain(d) : ''}</td>{/each}
              <td class="px-2 text-right">{row.comes ? plain(row.comes) : ''}</td>
              <td class="px-2 whitespace-nowrap"
                >{row.next ? day(row.next) : ''}{#if row.slipped}&nbsp;<span class="text-stop">+{row.slipped} d</span>{/if}</td
              >
              <td class="px-2 text-right {row.shortBy ? 'text-stop' : ''}">{row.shortBy ? plain(row.shortBy) : ''}</td>
              <td class="px-2 whitespace-nowrap">{row.shortFrom ? day(row.shortFrom) : ''}</td>
              <td class="px-2 text-right">{row.asked ? `${plain(row.asked)} asked` : row.propose ? plain(row.propose) : ''}</td>
              <td class="pl-2 whitespace-nowrap"
                >{#if row.late}<span class="needs">{row.late} {row.late === 1 ? 'promise' : 'promises'}</span>{/if}</td
              >
            </tr>
          {:else}<tr
              ><td class="py-3 text-second" colspan="13">{plan.shown === 'short' ? 'What is promised lies there, or comes in time.' : 'Nothing like that.'}</td
              ></tr
            >{/each}
        </tbody>
      </table>
    </div>
    <footer class="flex flex-wrap items-center gap-4 border-t border-strong py-3">
      {#if view.mayPlan}<button class="btn btn-sm {view.anew.length ? 'btn-primary' : 'btn-outline'}" onclick={() => void anew?.open()}
          >Promise all open lines anew <KeyCap>R</KeyCap></button
        >{/if}
      <span class="text-second" role="status"
        >{plan.done || (view.anew.length ? `${view.anew.length} would move` : 'nothing would move: everything promised can be kept')}</span
      >
      <span class="ml-auto text-[11.5px] text-second">to leave by day, in stock units · “would do”: what is short, with what goes in the lead time</span>
    </footer>
  </div>
  <Anew bind:this={anew} rows={view.anew} onanew={plan.anew} />
{/if}
