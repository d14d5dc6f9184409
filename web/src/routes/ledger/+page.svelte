<script lang="ts">
  import { KeyCap, useKeys } from '$lib/keys';
  import { BeforeInvoice, BillingState, Ways } from '$lib/ledger';
  import { usePulse } from '$lib/pulse';
  import { day, fixed, plain, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const bills = new BillingState();
  const view = $derived(bills.view);
  let dialog = $state<Words>();
  let before = $state<BeforeInvoice>();
  const look = () => void (bills.current?.order && before?.open(bills.current.order));
  const many = $derived(bills.chosen.length && bills.chosen.length + bills.more.length);
  const month = (until: string) => new Date(until).toLocaleDateString('en-GB', { month: 'long' });
  const nowhere = $derived(bills.rows.filter((r) => !r.goesTo).length);

  // Meets the server.
  $effect(() => void bills.load());
  usePulse(
    () => true,
    () => void bills.load(),
    5_000,
  );
  useKeys(() => [
    { key: 'j', words: 'next', run: () => bills.go(1) },
    { key: 'k', words: 'before', run: () => bills.go(-1) },
    { key: 'ArrowDown', words: 'next', run: () => bills.go(1) },
    { key: 'ArrowUp', words: 'before', run: () => bills.go(-1) },
    ...(view?.mayBill
      ? [
          { key: ' ', words: 'choose it, or not', run: () => bills.choose(bills.current) },
          { key: 'Enter', words: 'look at it before it is issued', run: look },
          { key: 'f', words: 'invoice the chosen ones', run: () => void (many && dialog?.open()) },
        ]
      : []),
  ]);
</script>

<svelte:head><title>To invoice · Solvenda</title></svelte:head>
<Problem words={bills.problem || bills.latest.problem} onclose={() => (bills.problem = '')} />
{#if view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 class="font-serif text-[25px] leading-tight">
        {view.all === 0 ? 'Nothing is to be invoiced' : `${plain(view.all)} ${view.all === 1 ? 'order' : 'orders'} to invoice`}
        <em class="text-second">{view.issued ? `${plain(view.issued)} issued today` : 'none issued today'}</em>
      </h1>
      {#if nowhere}<span class="needs">{plain(nowhere)} without an address</span>{/if}
      <span class="ml-auto"><Ways /></span>
    </div>
    <div class="mt-3 min-h-0 flex-1 overflow-auto pb-4">
      {#if bills.rows.length}
        <table class="w-full border-collapse">
          <thead class="border-b border-strong text-left text-[11.5px] text-second">
            <tr>
              <th class="font-normal"><span class="sr-only">chosen</span></th>
              <th class="font-normal">order</th>
              <th class="font-normal">buyer</th>
              <th class="font-normal max-md:hidden">their PO</th>
              <th class="font-normal max-sm:hidden">shipments</th>
              <th class="font-normal">went</th>
              <th class="pr-2 text-right font-normal">with tax</th>
              <th class="font-normal max-lg:hidden">goes to</th>
            </tr>
          </thead>
          <tbody>
            {#each bills.rows as row, i (bills.keyOf(row))}
              {@const here = bills.current === row}
              <tr
                class="border-b border-hairline {here ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
                aria-current={here ? 'true' : undefined}
                onclick={() => (bills.at = i)}
              >
                <td class="w-8 py-1.5 pl-2"
                  >{#if view.mayBill}<input
                      type="checkbox"
                      class="checkbox checkbox-xs"
                      aria-label="invoice {row.order || row.buyer}"
                      checked={bills.isChosen(row)}
                      onchange={() => bills.choose(row)}
                    />{/if}</td
                >
                <td class="w-28 pr-2 whitespace-nowrap"
                  >{#if row.collected}{month(row.collected.until)}, {plain(row.collected.orders)}
                    {row.collected.orders === 1 ? 'order' : 'orders'}{:else}<a class="font-mono text-[12px] hover:underline" href="/orders/{row.order}"
                      >{row.order}</a
                    >{/if}</td
                >
                <td class="max-w-0 truncate pr-2" title={row.buyer}>{row.buyer}</td>
                <td class="w-36 truncate pr-2 font-mono text-[12px] max-md:hidden">{row.poNumber}</td>
                <td class="w-28 pr-2 text-second max-sm:hidden"
                  >{#if row.collected}{row.isReady ? 'the month is over' : `until ${day(row.collected.until)}`}{:else}{row.shipments}{row.inPart
                      ? ', a part'
                      : ''}{/if}</td
                >
                <td class="w-20 pr-2 whitespace-nowrap text-second">{row.went ? day(row.went) : ''}</td>
                <td class="w-36 pr-2 text-right whitespace-nowrap"
                  >{#if row.inPart}<span class="text-second">of</span>{/if}
                  <span class="text-second">{row.currency}</span>
                  {fixed(row.value, 2)}</td
                >
                <td class="w-56 truncate pr-2 text-second max-lg:hidden" title={row.goesTo}
                  >{#if row.goesTo}{row.by === 'edi' ? 'by EDI' : row.goesTo}{:else}<span class="needs">no address: nobody gets it</span>{/if}</td
                >
              </tr>
            {/each}
          </tbody>
        </table>
      {:else}
        <p class="mt-6 text-second">All that went has its invoice. What goes next shows here by itself.</p>
      {/if}
    </div>
    <footer class="flex flex-wrap items-center gap-4 border-t border-strong py-3">
      {#if view.mayBill && bills.rows.length}
        <span
          ><b>{plain(many)} chosen</b>
          <span class="text-second"
            >{bills.sums.map((s) => `${s.currency} ${fixed(s.value, 2)}`).join(' · ')}{bills.more.length
              ? ` and ${plain(bills.more.length)} that are not shown`
              : ''}</span
          ></span
        >
        <button class="btn btn-outline btn-sm" disabled={!bills.current?.order} onclick={look}>Look at it first <KeyCap>Enter</KeyCap></button>
        <button class="btn btn-primary btn-sm" disabled={!many || !!bills.busy} onclick={() => dialog?.open()}>Invoice them <KeyCap>F</KeyCap></button>
      {/if}
      <span class="text-second" role="status">{bills.busy || bills.done}</span>
    </footer>
  </div>
{/if}
<BeforeInvoice bind:this={before} onissued={(number) => ((bills.done = `${number} was issued`), void bills.load())} />
<Words
  bind:this={dialog}
  title={many === 1 ? 'Issue one invoice?' : `Issue ${plain(many)} invoices?`}
  says="Each gets its number, is booked, and goes to its buyer. An invoice is never changed; what is wrong on one is credited."
  label=""
  button={many === 1 ? 'Issue it' : 'Issue them'}
  take={async () => void bills.issue()}
/>
