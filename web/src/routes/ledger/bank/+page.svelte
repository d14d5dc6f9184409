<script lang="ts">
  import { KeyCap, useKeys } from '$lib/keys';
  import { BankState, Ways } from '$lib/ledger';
  import { day, fixed, plain, Problem, readNumber } from '$lib/shared';
  import { Reference } from '$lib/records';

  const bank = new BankState();
  const view = $derived(bank.view);
  const seen = $derived(bank.one.value && bank.one.value.line.id === bank.current?.id ? bank.one.value : null);
  let pick = $state<HTMLInputElement>();
  let whose = $state(false);
  let payout = $state(false);
  let fees = $state('');
  let all = $state(false);

  // Meets the server.
  $effect(() => void bank.load());
  const drop = (event: DragEvent) => {
    const file = event.dataTransfer?.files[0];
    if (!file) return;
    event.preventDefault();
    void bank.file(file);
  };
  useKeys(() => [
    { key: 'j', words: 'next', run: () => bank.go(1) },
    { key: 'k', words: 'before', run: () => bank.go(-1) },
    { key: 'ArrowDown', words: 'next', run: () => bank.go(1) },
    { key: 'ArrowUp', words: 'before', run: () => bank.go(-1) },
    ...(view?.mayApply
      ? [
          ...(view.waiting.length ? [{ key: 't', words: 'take the statement in', run: () => void bank.fetch() }] : []),
          ...(seen?.buyerId
            ? [
                { key: 'Enter', words: 'take it so', run: () => void bank.take() },
                { key: '1', words: 'the oldest first', run: bank.oldest },
                { key: '2', words: 'it stays on account', run: bank.none },
              ]
            : []),
          ...(seen
            ? [
                { key: 'w', words: 'it is somebody else’s', run: () => (whose = true) },
                { key: 'p', words: 'it is a payout of a sales channel', run: () => (payout = true) },
              ]
            : []),
        ]
      : []),
  ]);
</script>

<svelte:head><title>Money that came · Solvenda</title></svelte:head>
<svelte:window ondragover={(event) => event.preventDefault()} ondrop={drop} />
<Problem words={bank.problem || bank.latest.problem || bank.one.problem} onclose={() => (bank.problem = '')} />
<input
  bind:this={pick}
  type="file"
  class="sr-only"
  tabindex="-1"
  accept=".xml"
  aria-label="a statement of the bank"
  onchange={() => pick?.files?.[0] && void bank.file(pick.files[0])}
/>
{#if view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 class="font-serif text-[25px] leading-tight">
        Money that came <em class="text-second">{view.day ? `up to ${day(view.day)}` : 'no statement yet'}</em>
      </h1>
      {#if view.came}<span class="text-second">{plain(view.came)} movements, {view.currency} {fixed(view.sum, 2)} · {plain(view.went)} went by themselves</span
        >{/if}
      {#if bank.rows.length}<span class="needs">{plain(bank.rows.length)} {bank.rows.length === 1 ? 'needs' : 'need'} you</span>{/if}
      <span class="ml-auto"><Ways /></span>
    </div>
    <div class="mt-3 grid min-h-0 flex-1 overflow-auto border border-hairline lg:grid-cols-[420px_1fr]">
      <ul class="min-h-0 overflow-auto bg-base-200 lg:border-r lg:border-hairline" aria-label="what needs somebody">
        {#each bank.rows as row (row.id)}
          {@const here = row.id === bank.current?.id}
          <li>
            <button
              class="grid w-full grid-cols-[60px_1fr_auto] gap-x-2 border-b border-hairline px-3 py-2 text-left {here
                ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]'
                : ''}"
              aria-current={here ? 'true' : undefined}
              onclick={() => void bank.look(row.id)}
            >
              <span class="text-second">{day(row.day)}</span>
              <span class="min-w-0"
                ><span class="block truncate">{row.payer || 'unknown'}</span><span class="block truncate text-second"
                  >{row.words ? `“${row.words}”` : 'without a word'}</span
                ></span
              >
              <span class="text-right whitespace-nowrap"
                >{fixed(row.left, 2)}<span class="block text-second">{row.left < row.amount ? `of ${fixed(row.amount, 2)}` : row.currency}</span></span
              >
            </button>
          </li>
        {/each}
        {#if view.done.length}
          <li class="px-3 py-2">
            <button class="text-second underline" aria-expanded={all} onclick={() => (all = !all)}>{plain(view.done.length)} that are done</button>
          </li>
          {#each all ? view.done : [] as row (row.id)}
            <li class="grid grid-cols-[60px_1fr_auto] gap-x-2 border-b border-hairline px-3 py-1 text-second">
              <span>{day(row.day)}</span><span class="truncate">{row.buyer ?? row.payer} “{row.words}”</span><span>{fixed(row.amount, 2)}</span>
            </li>
          {/each}
        {/if}
      </ul>
      <section class="min-w-0 bg-sheet px-5 py-4" aria-label="what it may be for">
        {#if seen}
          <div class="flex flex-wrap items-baseline justify-between gap-x-4">
            <h2 class="font-serif text-[19px]">
              {seen.line.currency}
              {fixed(seen.line.left, 2)} <em class="text-second">{seen.buyer ? `from ${seen.buyer}` : `from ${seen.line.payer || 'somebody'}`}</em>
            </h2>
            <span class="text-second">{seen.knownBy}</span>
          </div>
          <p>
            {#if seen.line.why}<span class="needs">{seen.line.why}</span>{/if}
            <span class="text-second"
              >{#if seen.buyer && seen.invoices.length}They owe {seen.line.currency}
                {fixed(seen.owes, 2)} in {plain(seen.invoices.length)}
                {seen.invoices.length === 1 ? 'invoice' : 'invoices'}.{:else if !seen.buyer}Paid from {seen.payerAccount ||
                  'an account that the bank does not say'}.{/if}</span
            >
          </p>
          {#if seen.invoices.length}
            <table class="mt-3 w-full border-collapse">
              <thead class="border-b border-strong text-left text-[11.5px] text-second">
                <tr>
                  <th class="font-normal"><span class="sr-only">paid by it</span></th>
                  <th class="font-normal">invoice</th>
                  <th class="font-normal">due</th>
                  <th class="font-normal max-sm:hidden">for</th>
                  <th class="text-right font-normal">open</th>
                  <th class="text-right font-normal">taken</th>
                </tr>
              </thead>
              <tbody>
                {#each seen.invoices.slice(0, 40) as invoice (invoice.number)}
                  {@const taken = bank.takenOf(invoice.number)}
                  <tr class="border-b border-hairline">
                    <td class="w-8 py-1.5"
                      ><input
                        type="checkbox"
                        class="checkbox checkbox-xs"
                        aria-label="it pays {invoice.number}"
                        checked={taken > 0}
                        disabled={!view.mayApply || (!taken && bank.left <= 0)}
                        onchange={() => bank.tick(invoice.number)}
                      /></td
                    >
                    <td class="pr-2 font-mono text-[12px]">{invoice.number}</td>
                    <td class="pr-2 whitespace-nowrap text-second">{day(invoice.due)}</td>
                    <td class="max-w-0 truncate pr-2 text-second max-sm:hidden">{invoice.for}</td>
                    <td class="pr-2 text-right">{fixed(invoice.open, 2)}</td>
                    <td class="text-right font-semibold">{taken ? fixed(taken, 2) : ''}</td>
                  </tr>
                {/each}
              </tbody>
              <tfoot>
                <tr class="border-b border-strong"
                  ><td colspan="4" class="py-1.5 text-second">{bank.left > 0 ? `${fixed(bank.left, 2)} stays on their account` : ''}</td><td
                    class="pr-2 text-right">{fixed(seen.owes, 2)}</td
                  ><td class="text-right font-semibold">{fixed(seen.line.left - bank.left, 2)}</td></tr
                >
              </tfoot>
            </table>
          {/if}
          {#if view.mayApply}
            <div class="mt-4 grid gap-1.5">
              {#if seen.buyerId}
                {#if seen.invoices.length}<button class="text-left" onclick={bank.oldest}><KeyCap>1</KeyCap> the oldest first</button>{/if}
                <button class="text-left" onclick={bank.none}
                  ><KeyCap>2</KeyCap> all of it stays on their account <span class="text-second">it counts against their credit at once</span></button
                >
              {/if}
              <button class="text-left" onclick={() => (whose = true)}><KeyCap>W</KeyCap> {seen.buyerId ? 'it is somebody else’s' : 'say whose it is'}</button>
              <button class="text-left" onclick={() => (payout = true)}><KeyCap>P</KeyCap> it is a payout of a sales channel</button>
              {#if payout}
                <form
                  class="flex flex-wrap items-end gap-3"
                  onsubmit={(event) => {
                    event.preventDefault();
                    payout = false;
                    void bank.payout(readNumber(fees) ?? 0);
                  }}
                >
                  <!-- svelte-ignore a11y_autofocus -->
                  <label class="grid gap-1"
                    ><span class="text-second">what did they keep back as fees, in {seen.line.currency}?</span>
                    <input class="border-b border-ink bg-transparent text-right" inputmode="decimal" autofocus bind:value={fees} /></label
                  >
                  <button class="btn btn-outline btn-sm">Book it</button>
                </form>
              {/if}
              {#if whose}
                <label class="grid max-w-96 gap-1" for="whose"
                  ><span class="text-second">whose money is it?</span>
                  <Reference
                    id="whose"
                    of="buyers"
                    value=""
                    set={(code) => {
                      whose = false;
                      void bank.look(seen.line.id, code);
                    }}
                  /></label
                >
              {/if}
            </div>
          {/if}
        {:else if !bank.rows.length}
          <p class="font-serif text-[19px]">{view.came ? 'All of it is where it belongs.' : 'Nothing came yet.'}</p>
          <p class="text-second">A statement is taken in from the bank’s folder, or dropped here as a file (camt.053).</p>
        {/if}
      </section>
    </div>
    <footer class="flex flex-wrap items-center gap-4 py-3">
      {#if view.mayApply}
        {#if seen?.buyerId}<button class="btn btn-primary btn-sm" disabled={bank.busy} onclick={() => void bank.take()}
            >{bank.takes.length ? 'Take it so' : 'Leave it on account'} <KeyCap>Enter</KeyCap></button
          >{/if}
        {#if view.waiting.length}<button
            class="btn {bank.rows.length ? 'btn-outline' : 'btn-primary'} btn-sm"
            disabled={bank.busy}
            onclick={() => void bank.fetch()}>Take {view.waiting[0]} in <KeyCap>T</KeyCap></button
          >{/if}
        <button class="text-second underline" onclick={() => pick?.click()}>a statement as a file</button>
      {/if}
      <span class="text-second" role="status">{bank.busy ? 'it is being booked' : bank.done}</span>
    </footer>
  </div>
{/if}
