<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { earnedWords, Ways } from '$lib/ledger';
  import { usePulse } from '$lib/pulse';
  import { day, DayField, fixed, Latest, plain, Problem } from '$lib/shared';

  /** Who earned how much on what was invoiced, and of what. */
  const latest = new Latest<Schemas['CommissionsView']>();
  const view = $derived(latest.value);
  let from = $state('');
  let to = $state('');
  const query = $derived({ ...(from && { from }), ...(to && { to }) });
  const load = () => latest.ask(() => ask(api.GET('/api/commissions', { params: { query } })), 'The commissions could not be loaded.');

  // Meets the server, for each time anew.
  $effect(() => void load());
  usePulse(
    (subject) => subject === 'bank' || subject === 'ledger',
    () => void load(),
    5_000,
  );
</script>

<svelte:head><title>Commissions · Solvenda</title></svelte:head>
<Problem words={latest.problem} />
{#if view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 class="font-serif text-[25px] leading-tight">Commissions <em class="text-second">{day(view.from)} to {day(view.to)}</em></h1>
      <span class="ml-auto"><Ways /></span>
    </div>
    <form class="mt-2 flex flex-wrap items-baseline gap-3 text-second" aria-label="which time" onsubmit={(event) => event.preventDefault()}>
      <span>from <DayField bind:value={from} label="from" /></span>
      <span>to <DayField bind:value={to} label="to" /></span>
      <a class="underline" href="/api/commissions/file?from={view.from}&to={view.to}" download>as a file</a>
      {#if view.mayPlan}<a class="underline" href="/records/commission-plans">the plans</a>{/if}
    </form>
    <div class="mt-3 min-h-0 flex-1 overflow-auto pb-4">
      {#each view.sums as sum (`${sum.name} ${sum.currency}`)}
        <section class="mb-6 max-w-5xl" aria-label="{sum.name}, {sum.currency}">
          <h2 class="flex items-baseline gap-4 border-b border-strong pb-1">
            <span class="font-serif text-[17px]">{sum.name}</span>
            <span class="ml-auto text-second">{sum.amount === sum.earned ? '' : `${fixed(sum.amount, 2)} once all is paid`}</span>
            <span class="w-32 text-right whitespace-nowrap"><span class="text-second">{sum.currency}</span> <b>{fixed(sum.earned, 2)}</b></span>
          </h2>
          <table class="w-full border-collapse">
            <thead class="sr-only"><tr><th>document</th><th>day</th><th>buyer</th><th>by</th><th>earned</th></tr></thead>
            <tbody>
              {#each view.lines.filter((l) => l.name === sum.name && l.currency === sum.currency) as line, i (i)}
                <tr class="border-b border-hairline">
                  <td class="w-28 py-1"><a class="font-mono text-[12px] hover:underline" href="/ledger/invoices/{line.document}">{line.document}</a></td>
                  <td class="w-20 text-second max-sm:hidden">{day(line.day)}</td>
                  <td class="max-w-0 truncate pr-2" title={line.buyer}>{line.buyer}</td>
                  <td class="w-80 pr-2 text-second max-lg:hidden" title={line.plan}>{earnedWords(line, line.currency)}</td>
                  <td class="w-28 text-right"
                    >{fixed(line.earned, 2)}{#if line.earned !== line.amount}<span class="block text-[11.5px] text-second">of {fixed(line.amount, 2)}</span
                      >{/if}</td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        </section>
      {:else}
        <p class="mt-4 text-second">Nobody earned anything in that time. What is invoiced from now on counts by the plan of its seller.</p>
      {/each}
      {#if view.more}<p class="text-second">and {plain(view.more)} earlier ones, which the file has too</p>{/if}
    </div>
  </div>
{/if}
