<script lang="ts">
  import { goto } from '$app/navigation';
  import { CreditState } from '$lib/credit';
  import { useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { day, fixed, Problem } from '$lib/shared';

  const credit = new CreditState();
  const list = $derived(credit.list);
  let body = $state<HTMLElement>();
  const whole = (value: number) => fixed(value, 0).replace('-', '\u2212');

  // Meets the server.
  $effect(() => void credit.load());
  usePulse(
    () => true,
    () => void credit.load(),
    5_000,
  );

  function go(step: number) {
    credit.go(step);
    // The keys are where the row is, also for Enter.
    body?.querySelectorAll('tr')[credit.at]?.querySelector('a')?.focus();
  }
  const open = () => credit.chosen && void goto(`/records/buyers/${credit.chosen.buyerId}`);

  useKeys(() => [
    { key: 'j', words: 'next', run: () => go(1) },
    { key: 'k', words: 'before', run: () => go(-1) },
    { key: 'ArrowDown', words: 'next', run: () => go(1) },
    { key: 'ArrowUp', words: 'before', run: () => go(-1) },
    { key: 'Enter', words: 'open the buyer', run: open },
  ]);
</script>

<svelte:head><title>Credit · Solvenda</title></svelte:head>
<Problem words={credit.problem} />
{#if list}
  <div class="min-h-0 flex-1 overflow-y-auto px-5 pt-3 pb-6">
    <h1 class="font-serif text-[25px] leading-tight">
      Credit. <em class="text-second"
        >{list.over ? `${list.over} over the limit` : 'Nobody is over'}{list.willBeOver
          ? `, ${list.willBeOver} will be when their quotes come`
          : ''}{list.overdue ? `, ${list.overdue} overdue beyond grace` : ''}.</em
      >
    </h1>
    <div class="mt-2 flex flex-wrap items-baseline gap-x-4 gap-y-1" role="group" aria-label="shown">
      {#each [['over', 'over the limit', list.over], ['willBeOver', 'will be, with their quotes', list.willBeOver], ['overdue', 'overdue beyond grace', list.overdue], ['held', 'orders wait', list.held], ['noLimit', 'no limit', list.noLimit]] as const as [key, words, count] (key)}
        <button
          class={credit.shown === key ? 'border-b-2 border-ink font-semibold' : 'border-b-2 border-transparent text-second'}
          aria-pressed={credit.shown === key}
          onclick={() => credit.show(key)}>{words} {count}</button
        >
      {/each}
      <input class="ml-auto w-44 border-b border-strong bg-transparent py-0.5" placeholder="find a buyer" aria-label="find a buyer" bind:value={credit.find} />
      <a class="text-second underline" href="/api/credit/csv" download>as CSV</a>
      <a class="text-second underline" href="/records/buyers/import">limits from a file</a>
    </div>
    <div class="mt-3 overflow-x-auto">
      <table class="w-full min-w-[860px] border-collapse">
        <thead class="text-left text-[11.5px] text-second">
          <tr class="border-b border-strong">
            <th class="py-1 font-normal">buyer</th>
            <th class="px-2 text-right font-normal">owes and will owe</th>
            <th class="w-44 px-2 font-normal">of the limit</th>
            <th class="px-2 text-right font-normal">limit</th>
            <th class="px-2 font-normal"></th>
            <th class="px-2 font-normal">until</th>
            <th class="px-2 text-right font-normal">with quotes</th>
            <th class="px-2 text-right font-normal">late</th>
            <th class="px-2 text-right font-normal">days</th>
            <th class="px-2 text-right font-normal" title="on average in two years">pays after</th>
            <th class="pl-2 font-normal">waits</th>
          </tr>
        </thead>
        <tbody bind:this={body}>
          {#each credit.rows as row, i (row.buyerId)}
            <tr
              class="border-b border-hairline {i === credit.at ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
              aria-current={i === credit.at ? 'true' : undefined}
            >
              <td class="max-w-[240px] truncate py-1.5 pl-2"
                ><a class="font-serif text-[15px] hover:underline" href="/records/buyers/{row.buyerId}">{row.name}</a>
                {#if row.blocked}<span class="text-stop">■ blocked</span>{/if}{#if row.missingRate}<span class="text-stop">
                    no rate for {row.missingRate}</span
                  >{/if}</td
              >
              <td class="px-2 text-right {row.over > 0 ? 'font-semibold text-stop' : ''}">{whole(row.exposure)}</td>
              <td class="px-2">
                {#if row.limit}
                  <span class="relative block h-2.5" aria-hidden="true">
                    <span class="absolute inset-x-0 top-1 border-t border-strong"></span>
                    <span class="absolute top-0 left-0 h-2.5 border border-dashed border-second" style:width="{CreditState.share(row.withQuotes, row)}%"></span>
                    <span class="absolute top-0 left-0 h-2.5 {row.over > 0 ? 'bg-stop' : 'bg-second/60'}" style:width="{CreditState.share(row.exposure, row)}%"
                    ></span>
                    <span class="absolute -top-0.5 h-3.5 border-l-2 border-ink" style:left="66.66%"></span>
                  </span>
                {/if}
              </td>
              <td class="px-2 text-right">{row.limit === null ? 'none' : whole(row.limit)}</td>
              <td class="px-2 text-second">{row.currency}</td>
              <td class="px-2 whitespace-nowrap">{row.until ? day(row.until) : ''}</td>
              <td class="px-2 text-right {row.willBeOver ? 'text-stop' : 'text-second'}">{row.withQuotes === row.exposure ? '' : whole(row.withQuotes)}</td>
              <td class="px-2 text-right">{row.overdueAmount ? whole(row.overdueAmount) : ''}</td>
              <td class="px-2 text-right {row.beyondGrace ? 'font-semibold text-stop' : ''}">{row.overdueDays || ''}</td>
              <td class="px-2 text-right">{row.daysLate === null ? '' : fixed(row.daysLate, 0).replace('-', '\u2212')}</td>
              <td class="pl-2 whitespace-nowrap"
                >{#each row.held as number (number)}<a class="needs mr-2 font-mono text-[12px]" href="/orders/{number}">{number}</a>{/each}</td
              >
            </tr>
          {:else}<tr><td class="py-3 text-second" colspan="11">Nobody like that.</td></tr>{/each}
        </tbody>
      </table>
    </div>
    <p class="mt-2 text-[11.5px] text-second">full bar: owes and will owe · dashed: with the quotes that are out · line: the limit</p>
  </div>
{/if}
