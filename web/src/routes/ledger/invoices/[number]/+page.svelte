<script lang="ts">
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap, useKeys } from '$lib/keys';
  import { earnedWords, Ways } from '$lib/ledger';
  import { usePulse } from '$lib/pulse';
  import { day, fixed, Latest, plain, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const number = $derived(page.params.number ?? '');
  const latest = new Latest<Schemas['InvoiceView']>();
  const left = new Latest<Schemas['CreditableLine'][]>();
  const load = () => {
    void left.ask(() => ask(api.GET('/api/invoices/{number}/creditable', { params: { path: { number } } })));
    return latest.ask(() => ask(api.GET('/api/invoices/{number}', { params: { path: { number } } })), 'The invoice could not be loaded.');
  };
  const view = $derived(latest.value);
  const of = $derived(view?.issued);
  const orders = $derived((of?.lines ?? []).map((l) => l.order).filter((o, i, all) => o && all.indexOf(o) === i));
  const collected = $derived(orders.length > 0);
  const credit = $derived(of?.kind === 'credit');
  const mayCredit = $derived(!!view?.mayBill && !credit);
  type Line = { order?: string; key: number };
  const orderOf = (line: Line) => line.order || (of?.order ?? '');
  const leftOf = (line: Line) => left.value?.find((l) => l.key === line.key && l.order === orderOf(line))?.left ?? 0;
  const isBack = (line: Line) => back.some((b) => b.key === line.key && b.order === orderOf(line));
  /** A note is for one order: ticking a line of another begins anew with that one. */
  const tick = (line: Line) => {
    const mine = { order: orderOf(line), key: line.key };
    const same = back.filter((b) => b.order === mine.order);
    back = isBack(line) ? same.filter((b) => b.key !== mine.key) : [...same, mine];
  };
  let dialog = $state<Words>();
  let dispute = $state<Words>();
  const mayDispute = $derived(mayCredit && !!view && view.open > 0);
  let back = $state<readonly Line[]>([]);

  // Meets the server, for each number anew.
  $effect(() => void load());
  usePulse(
    (subject) => !!of?.order.includes(subject) || subject === 'bank',
    () => void load(),
  );
  const money = (value: number) => fixed(value, 2);

  async function give(reason: string, charges: boolean) {
    const lines = back.length ? back.map((line) => ({ key: line.key, quantity: leftOf(line) })) : null;
    const order = back[0]?.order ?? '';
    await ask(api.POST('/api/invoices/{number}/credit', { params: { path: { number } }, body: { reason, lines, charges, order } }));
    back = [];
    await load();
  }
  async function say(reason: string) {
    await ask(api.POST(`/api/owed/${view?.disputed ? 'settle' : 'dispute'}`, { body: { number, reason } }));
    await load();
  }
  useKeys(() => [
    { key: 'p', words: 'as it was printed', run: () => void window.open(`/api/invoices/${number}/pdf`, '_blank') },
    ...(mayCredit && (!collected || back.length) ? [{ key: 'c', words: 'credit it, or the ticked lines', run: () => dialog?.open() }] : []),
    ...(mayDispute ? [{ key: 'd', words: view?.disputed ? 'the dispute is settled' : 'it is disputed', run: () => dispute?.open() }] : []),
  ]);
</script>

<svelte:head><title>{number} · Solvenda</title></svelte:head>
<Problem words={latest.problem} />
{#if view && of}
  <div class="flex min-h-0 flex-1 flex-col overflow-auto px-5 pt-3">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 class="font-serif text-[25px] leading-tight">
        {credit ? 'Credit note' : of.kind === 'deposit' ? 'Deposit invoice' : 'Invoice'} <em class="text-second">{of.buyer.name}</em>
      </h1>
      <span class="ml-auto"><Ways /></span>
    </div>
    <p class="text-second">
      <span class="font-mono text-[12px] text-ink">{of.number}</span> · {day(of.day)}{credit ? '' : ` · due ${day(of.due)}`} · {#if collected}for {plain(
          orders.length,
        )} orders{:else}order
        <a class="font-mono text-[12px] underline" href="/orders/{of.order}">{of.order}</a>{of.poNumber ? ` · their PO ${of.poNumber}` : ''}{/if}
      {#if of.credits}· for <a class="font-mono text-[12px] underline" href="/ledger/invoices/{of.credits}">{of.credits}</a>{/if}
      {#each view.notes as note (note)}· credited by <a class="font-mono text-[12px] underline" href="/ledger/invoices/{note}">{note}</a>{/each}
    </p>
    <div class="mt-3 grid gap-x-8 gap-y-6 pb-6 lg:grid-cols-[1fr_380px]">
      <section class="min-w-0 border border-hairline bg-sheet px-5 py-4" aria-label="as it was issued">
        <table class="w-full border-collapse">
          <thead class="border-b border-strong text-left text-[11.5px] text-second">
            <tr>
              {#if mayCredit}<th class="font-normal"><span class="sr-only">goes back</span></th>{/if}
              <th class="font-normal">no.</th>
              <th class="font-normal">what</th>
              <th class="pr-2 text-right font-normal">quantity</th>
              <th class="pr-2 text-right font-normal max-sm:hidden">price</th>
              <th class="text-right font-normal">net</th>
            </tr>
          </thead>
          <tbody>
            {#each of.lines as line, i (i)}
              {#if line.order && line.order !== of.lines[i - 1]?.order}
                <tr class="border-b border-hairline">
                  <td colspan={mayCredit ? 6 : 5} class="pt-3 pb-1"
                    ><a class="font-mono text-[12px] underline" href="/orders/{line.order}">{line.order}</a>
                    <span class="text-second">{line.poNumber ? `their PO ${line.poNumber}` : ''}</span></td
                  >
                </tr>
              {/if}
              <tr class="border-b border-hairline">
                {#if mayCredit}<td class="w-7 py-1.5"
                    ><input
                      type="checkbox"
                      class="checkbox checkbox-xs"
                      aria-label="credit {line.words}"
                      checked={isBack(line)}
                      disabled={!leftOf(line)}
                      onchange={() => tick(line)}
                    /></td
                  >{/if}
                <td class="w-8 py-1.5 text-second">{line.number}</td>
                <td class="min-w-0 pr-2">{line.words} <span class="font-mono text-[12px] text-second">{line.code}</span></td>
                <td class="pr-2 text-right whitespace-nowrap">{plain(line.quantity)} <span class="text-second">{view.units[line.unit]}</span></td>
                <td class="pr-2 text-right whitespace-nowrap max-sm:hidden"
                  >{fixed(line.price, 4)}{line.priceBase === 1 ? '' : ` per ${plain(line.priceBase)}`}</td
                >
                <td class="text-right whitespace-nowrap">{money(line.net)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
        <dl class="mt-3 ml-auto grid w-fit grid-cols-[auto_auto] gap-x-8 gap-y-0.5 text-right">
          {#each of.allowances as a, i (i)}<dt class="text-second">{a.words}</dt>
            <dd>−{money(a.amount)}</dd>{/each}
          {#each of.charges as c, i (i)}<dt class="text-second">{c.words}</dt>
            <dd>{money(c.amount)}</dd>{/each}
          <dt class="text-second">without tax</dt>
          <dd>{money(view.totalWithoutTax)}</dd>
          {#each of.taxes as t, i (i)}<dt class="text-second">tax {t.category} {plain(t.percent)} % on {money(t.basis)}</dt>
            <dd>{money(t.tax)}</dd>{/each}
          <dt class="font-semibold">{of.currency} with tax</dt>
          <dd class="font-semibold">{money(view.totalWithTax)}</dd>
          {#if of.prepaid}<dt class="text-second">paid before</dt>
            <dd>−{money(of.prepaid)}</dd>{/if}
        </dl>
      </section>
      <div class="grid content-start gap-5">
        <section aria-label="how it stands">
          <p class="font-serif text-[19px]">
            {#if view.open > 0}{of.currency} {money(view.open)} open{:else if view.open < 0}{of.currency} {money(-view.open)} is theirs{:else}{credit
                ? 'Taken off what was open'
                : 'Nothing is open'}{/if}
          </p>
          {#if view.disputed}<p><span class="needs">disputed: {view.disputed}</span></p>{/if}
          <p class="text-second">
            {view.by} issued it{view.toldTo ? `; it went to ${view.toldTo}` : '; there was no address to send it to'}
          </p>
          {#each view.paid as p, i (i)}
            <p class="flex justify-between border-b border-hairline py-1">
              <span>{day(p.day)} <span class="text-second">{p.isSaid ? '' : p.isCredit ? 'credited by' : 'paid,'} {p.by}</span></span><span
                >{money(p.amount)}</span
              >
            </p>
          {/each}
        </section>
        <p class="flex flex-wrap gap-3">
          <a class="btn btn-outline btn-sm" href="/api/invoices/{of.number}/pdf" target="_blank" rel="noopener">As it was printed <KeyCap>P</KeyCap></a>
          <a class="btn btn-outline btn-sm" href="/api/invoices/{of.number}/ubl" download>As UBL</a>
          {#if mayDispute}<button class="btn btn-outline btn-sm" onclick={() => dispute?.open()}
              >{view.disputed ? 'It is settled' : 'It is disputed'} <KeyCap>D</KeyCap></button
            >{/if}
          {#if mayCredit && collected && !back.length}<span class="text-second">tick lines of one order to credit them</span>
          {:else if mayCredit}<button class="btn btn-outline btn-sm" onclick={() => dialog?.open()}
              >{back.length ? `Credit ${plain(back.length)} ${back.length === 1 ? 'line' : 'lines'}` : 'Credit it'} <KeyCap>C</KeyCap></button
            >{/if}
        </p>
        {#if view.commissions.length}
          <section aria-label="who earns of it">
            <h2 class="border-b border-strong pb-1 text-second">commission</h2>
            {#each view.commissions as c, i (i)}
              <p class="flex gap-3 py-0.5">
                <span>{c.name}<span class="block text-second">{earnedWords(c, of.currency)}</span></span><span class="ml-auto">{money(c.amount)}</span>
              </p>
            {/each}
          </section>
        {/if}
        {#if view.entries.length}
          <section aria-label="what is booked">
            <h2 class="border-b border-strong pb-1 text-second">what is booked</h2>
            <table class="w-full border-collapse">
              <thead class="sr-only"><tr><th>account</th><th>debit</th><th>credit</th></tr></thead>
              <tbody>
                {#each view.entries as e, i (i)}
                  <tr>
                    <td class="py-0.5"
                      >{e.account}
                      {e.called}{#if e.movedFrom}<span class="text-second">, instead of {e.movedFrom}</span>{/if}</td
                    >
                    <td class="w-24 text-right">{e.debit ? money(e.debit) : ''}</td>
                    <td class="w-24 text-right">{e.credit ? money(e.credit) : ''}</td>
                  </tr>
                {/each}
              </tbody>
            </table>
            <p class="mt-1 text-second">in {view.homeCurrency}{of.rate === 1 ? '' : `, at ${plain(of.rate)}`}; nothing is edited, only reversed</p>
          </section>
        {/if}
      </div>
    </div>
  </div>
{/if}
<Words
  bind:this={dialog}
  title={back.length ? `Credit ${plain(back.length)} ${back.length === 1 ? 'line' : 'lines'}?` : 'Credit all that is left of it?'}
  says="{back.length
    ? `What is left of ${back.length === 1 ? 'it' : 'them'} goes back. `
    : ''}A credit note gets a number of its own and goes to the buyer; it is never changed either."
  label="why? It stands on the note too"
  button="Issue it"
  tick={of?.charges.length ? 'freight and other charges go back too' : ''}
  take={give}
/>
<Words
  bind:this={dispute}
  title={view?.disputed ? 'Is it settled?' : 'Is it disputed?'}
  says={view?.disputed
    ? 'It is owed as it stands, and reminded of again.'
    : 'Nobody is reminded of it until that is settled; it counts against their credit as before.'}
  label={view?.disputed ? 'how was it settled?' : 'what do they say?'}
  button={view?.disputed ? 'It is settled' : 'Keep it'}
  take={say}
/>
