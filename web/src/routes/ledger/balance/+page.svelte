<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { useKeys } from '$lib/keys';
  import { Ways } from '$lib/ledger';
  import { usePulse } from '$lib/pulse';
  import { day, DayField, fixed, Latest, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const latest = new Latest<Schemas['BalanceView']>();
  const view = $derived(latest.value);
  let from = $state('');
  let to = $state('');
  let dialog = $state<Words>();
  const query = $derived({ ...(from && { from }), ...(to && { to }) });
  const union = new Latest<Schemas['UnionSalesView']>();
  const load = () => {
    void union.ask(() => ask(api.GET('/api/ledger/union-sales', { params: { query } })), 'What was sold within the Union could not be loaded.');
    return latest.ask(() => ask(api.GET('/api/ledger/balance', { params: { query } })), 'The accounts could not be loaded.');
  };
  const agrees = $derived(!!view && view.debit === view.credit && view.owed === view.receivable);

  // Meets the server, for each time anew.
  $effect(() => void load());
  usePulse(
    (subject) => subject === 'bank' || subject === 'ledger',
    () => void load(),
    5_000,
  );
  useKeys(() => (view?.mayClose ? [{ key: 'c', words: 'close the books up to a day', run: () => dialog?.open() }] : []));
  const money = (value: number) => (value === 0 ? '' : fixed(value, 2));

  async function close(_: string, __: boolean, until: string) {
    await ask(api.POST('/api/ledger/close', { body: { until } }));
    await load();
  }
</script>

<svelte:head><title>Accounts · Solvenda</title></svelte:head>
<Problem words={latest.problem || union.problem} />
{#if view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 class="font-serif text-[25px] leading-tight">
        Accounts <em class="text-second">{day(view.from)} to {day(view.to)}, in {view.currency}</em>
      </h1>
      {#if !agrees}<span class="needs">they do not agree with the documents</span>{/if}
      <span class="ml-auto"><Ways /></span>
    </div>
    <form class="mt-2 flex flex-wrap items-baseline gap-3 text-second" aria-label="which time" onsubmit={(event) => event.preventDefault()}>
      <span>from <DayField bind:value={from} label="from" /></span>
      <span>to <DayField bind:value={to} label="to" /></span>
      <a class="underline" href="/api/ledger/journal?from={view.from}&to={view.to}" target="_blank" rel="noopener">the journal, to print</a>
      <a class="underline" href="/records/accounts">what each account is used for</a>
    </form>
    <div class="mt-3 min-h-0 flex-1 overflow-auto pb-4">
      <table class="w-full max-w-5xl border-collapse">
        <thead class="border-b border-strong text-left text-[11.5px] text-second">
          <tr>
            <th class="font-normal">account</th>
            <th class="font-normal">called</th>
            <th class="pr-2 text-right font-normal max-md:hidden">before</th>
            <th class="pr-2 text-right font-normal">debit</th>
            <th class="pr-2 text-right font-normal">credit</th>
            <th class="pr-2 text-right font-normal">stands at</th>
          </tr>
        </thead>
        <tbody>
          {#each view.accounts as a (a.code)}
            <tr class="border-b border-hairline">
              <td class="w-20 py-1.5 font-mono text-[12px]"
                ><a class="hover:underline" href="/ledger/entries?filter={encodeURIComponent(`account:${a.code}`)}">{a.code}</a></td
              >
              <td class="max-w-0 truncate pr-2">{a.words}</td>
              <td class="w-32 pr-2 text-right whitespace-nowrap text-second max-md:hidden">{money(a.before)}</td>
              <td class="w-32 pr-2 text-right whitespace-nowrap">{money(a.debit)}</td>
              <td class="w-32 pr-2 text-right whitespace-nowrap">{money(a.credit)}</td>
              <td class="w-32 pr-2 text-right whitespace-nowrap {a.balance ? 'font-semibold' : ''}">{money(a.balance)}</td>
            </tr>
          {/each}
        </tbody>
        <tfoot>
          <tr class="border-t border-strong">
            <td class="py-1.5"></td>
            <td class="text-second">in all</td>
            <td class="max-md:hidden"></td>
            <td class="pr-2 text-right whitespace-nowrap">{fixed(view.debit, 2)}</td>
            <td class="pr-2 text-right whitespace-nowrap">{fixed(view.credit, 2)}</td>
            <td></td>
          </tr>
        </tfoot>
      </table>
      {#if union.value?.sales.length}
        <section class="mt-5 max-w-5xl" aria-label="sold within the Union">
          <h2 class="font-serif text-[19px]">
            Sold within the Union <a class="ml-2 font-sans text-[13px] font-normal underline" href="/api/ledger/union-sales/file?from={view.from}&to={view.to}"
              >as a file</a
            >
          </h2>
          <table class="mt-1 w-full border-collapse">
            <thead class="border-b border-strong text-left text-[11.5px] text-second">
              <tr>
                <th class="font-normal">tax number</th>
                <th class="font-normal">buyer</th>
                <th class="pr-2 text-right font-normal">goods (K)</th>
                <th class="pr-2 text-right font-normal">services (AE)</th>
              </tr>
            </thead>
            <tbody>
              {#each union.value.sales as s (s.country + s.taxNumber)}
                <tr class="border-b border-hairline">
                  <td class="w-44 py-1.5 font-mono text-[12px]"
                    >{#if s.taxNumber}{s.taxNumber}{:else}<span class="needs">none, {s.country}</span>{/if}</td
                  >
                  <td class="max-w-0 truncate pr-2">{s.name}</td>
                  <td class="w-32 pr-2 text-right whitespace-nowrap">{money(s.goods)}</td>
                  <td class="w-32 pr-2 text-right whitespace-nowrap">{money(s.services)}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        </section>
      {/if}
      <p class="mt-3 text-second">
        Buyers owe {fixed(view.owed, 2)} by their documents today; the receivable stands at {fixed(view.receivable, 2)}. Nothing is edited, only reversed.
      </p>
    </div>
    <footer class="flex flex-wrap items-center gap-4 border-t border-strong py-3">
      {#if view.mayClose}<button class="btn btn-outline btn-sm" onclick={() => dialog?.open()}>Close the books…</button>{/if}
      <span class="text-second">{view.closedUntil ? `closed up to ${day(view.closedUntil)}` : 'no time is closed yet'}</span>
    </footer>
  </div>
{/if}
<Words
  bind:this={dialog}
  title="Close the books?"
  says="Nothing is booked on that day or before it any more; what would fall there is booked on the first open day. It is not opened again."
  label=""
  button="Close them"
  until="up to and with"
  take={close}
/>
