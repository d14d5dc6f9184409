<script lang="ts">
  import { page } from '$app/state';
  import { KeyCap, useKeys } from '$lib/keys';
  import { AccountState, ReceiptForm, Ways } from '$lib/ledger';
  import { usePulse } from '$lib/pulse';
  import { day, fixed, plain, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const account = new AccountState(() => Number(page.params.id));
  const view = $derived(account.view);
  const current = $derived(account.current);
  let what = $state<'dispute' | 'settle' | 'write-off'>('dispute');
  let dialog = $state<Words>();
  let back = $state<Words>();
  let document = $state({ number: '', amount: 0, currency: '' });
  let receipt = $state<ReceiptForm>();

  // Meets the server.
  $effect(() => void account.load());
  usePulse(
    (subject) => subject === 'bank' || subject === `buyers:${page.params.id}`,
    () => void account.load(),
    5_000,
  );
  const ask = (now: typeof what) => {
    what = now;
    dialog?.open();
  };
  const payBack = (number: string, amount: number, currency: string) => {
    document = { number, amount, currency };
    back?.open();
  };
  const mayWriteOff = $derived(!!view?.mayBook && !!current?.isSmall);
  useKeys(() => [
    { key: 'j', words: 'next', run: () => account.go(1) },
    { key: 'k', words: 'before', run: () => account.go(-1) },
    { key: 'ArrowDown', words: 'next', run: () => account.go(1) },
    { key: 'ArrowUp', words: 'before', run: () => account.go(-1) },
    ...(view?.mayBook
      ? [
          { key: 'n', words: 'note money', run: () => receipt?.open() },
          ...(view.next ? [{ key: 'r', words: 'remind', run: () => void account.remind() }] : []),
          ...(view.items.length ? [{ key: 's', words: 'send a statement', run: () => void account.statement() }] : []),
          ...(mayWriteOff ? [{ key: 'w', words: 'write it off', run: () => ask('write-off') }] : []),
        ]
      : []),
    ...(view?.mayBill && current && current.open > 0
      ? [{ key: 'd', words: current.disputed ? 'the dispute is settled' : 'it is disputed', run: () => ask(current.disputed ? 'settle' : 'dispute') }]
      : []),
  ]);
  const said = {
    dispute: {
      title: 'Is it disputed?',
      says: 'Nobody is reminded of it until that is settled; it counts against their credit as before.',
      label: 'what do they say?',
      button: 'Keep it',
    },
    settle: { title: 'Is it settled?', says: 'It is owed as it stands, and reminded of again.', label: 'how was it settled?', button: 'It is settled' },
    'write-off': {
      title: 'Write it off?',
      says: 'It is booked as a small difference, and nothing of it is open any more.',
      label: 'why?',
      button: 'Write it off',
    },
  };
</script>

<svelte:head><title>{view?.name ?? 'Account'} · Solvenda</title></svelte:head>
<Problem words={account.problem || account.latest.problem} onclose={() => (account.problem = '')} />
{#if view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 class="font-serif text-[25px] leading-tight">
        {view.name}
        <em class="text-second">{account.sums.length ? account.sums.map((s) => `${s.currency} ${fixed(s.open, 2)} open`).join(', ') : 'owes nothing'}</em>
      </h1>
      <a class="text-second underline" href="/records/buyers/{view.id}">the buyer</a>
      <span class="ml-auto"><Ways /></span>
    </div>
    <div class="mt-3 grid min-h-0 flex-1 gap-x-8 gap-y-6 overflow-auto pb-4 lg:grid-cols-[1fr_360px]">
      <section class="min-w-0" aria-label="what is open">
        {#if view.items.length}
          <table class="w-full border-collapse">
            <thead class="border-b border-strong text-left text-[11.5px] text-second">
              <tr>
                <th class="font-normal">document</th>
                <th class="font-normal max-sm:hidden">order</th>
                <th class="font-normal">due</th>
                <th class="pr-2 text-right font-normal">open</th>
                <th class="font-normal">how it stands</th>
              </tr>
            </thead>
            <tbody>
              {#each view.items as item, i (i)}
                {@const here = current === item}
                <tr
                  class="h-[31px] border-b border-hairline {here ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
                  aria-current={here ? 'true' : undefined}
                  onclick={() => (account.at = i)}
                >
                  <td class="w-36 py-1.5 pr-2 pl-2 font-mono text-[12px]"
                    >{#if item.invoice}<a class="hover:underline" href="/ledger/invoices/{item.invoice}">{item.number}</a>{:else}{item.number}{/if}</td
                  >
                  <td class="w-28 pr-2 font-mono text-[12px] max-sm:hidden"
                    >{#if item.order}<a class="hover:underline" href="/orders/{item.order}">{item.order}</a>{/if}</td
                  >
                  <td class="w-20 pr-2 whitespace-nowrap {item.late ? '' : 'text-second'}">{day(item.due)}</td>
                  <td class="w-36 pr-2 text-right whitespace-nowrap"><span class="text-second">{item.currency}</span> {fixed(item.open, 2)}</td>
                  <td class="max-w-0 truncate pr-2" title={item.disputed}
                    >{#if item.disputed}<span class="needs">disputed: {item.disputed}</span>{:else if item.open < 0}<span class="text-second">theirs</span
                      >{:else if item.late}{plain(item.late)} {item.late === 1 ? 'day' : 'days'} late{:else if item.early}<span class="text-second"
                        >{fixed(item.early, 2)} less until {item.earlyUntil ? day(item.earlyUntil) : ''}</span
                      >{:else}<span class="text-second">not due</span>{/if}
                    <span class="text-second"
                      >{item.step ? ` · ${item.step === 3 ? 'last letter' : `letter ${item.step}`} ${item.remindedOn ? day(item.remindedOn) : ''}` : ''}</span
                    ></td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        {:else}
          <p class="mt-2 text-second">Nothing is open.</p>
        {/if}
      </section>
      <div class="grid content-start gap-5">
        {#if current}
          <section aria-label="the one at hand" class="grid gap-2">
            <h2 class="border-b border-strong pb-1 font-mono text-[12px]">{current.number}</h2>
            {#if current.disputed}<p class="text-second">{current.disputedBy} keeps the dispute</p>{/if}
            <p class="flex flex-wrap gap-3">
              {#if view.mayBill && current.open > 0}
                <button class="btn btn-outline btn-sm" onclick={() => ask(current.disputed ? 'settle' : 'dispute')}
                  >{current.disputed ? 'It is settled' : 'It is disputed'} <KeyCap>D</KeyCap></button
                >
              {/if}
              {#if view.mayBook && current.open < 0}
                <button class="btn btn-outline btn-sm" onclick={() => void account.setOff(current)}>Take it for what is due first</button>
                <button class="btn btn-outline btn-sm" onclick={() => payBack(current.number, -current.open, current.currency)}>Pay it back</button>
              {/if}
              {#if mayWriteOff}<button class="btn btn-outline btn-sm" onclick={() => ask('write-off')}>Write it off <KeyCap>W</KeyCap></button>{/if}
            </p>
          </section>
        {/if}
        <section aria-label="money of theirs">
          <h2 class="border-b border-strong pb-1 text-second">money of theirs</h2>
          {#each view.money as m (m.document)}
            <p class="flex items-baseline gap-2 border-b border-hairline py-1">
              <span class="font-mono text-[12px]">{m.document}</span> <span class="text-second">{day(m.day)}</span>
              <span class="ml-auto whitespace-nowrap">{m.currency} {fixed(m.left, 2)}</span>
              {#if view.mayBook}<button class="underline" onclick={() => payBack(m.document, m.left, m.currency)}>pay back</button>{/if}
            </p>
          {:else}
            <p class="py-1 text-second">none on account</p>
          {/each}
        </section>
        {#if view.mayBook}
          <ReceiptForm bind:this={receipt} {account} />
        {/if}
      </div>
    </div>
    <footer class="flex flex-wrap items-center gap-4 border-t border-strong py-3">
      {#if view.mayBook}
        <button class="btn btn-primary btn-sm" onclick={() => receipt?.open()}>Note money <KeyCap>N</KeyCap></button>
        {#if view.next}<button class="btn btn-outline btn-sm" onclick={() => void account.remind()}>Remind <KeyCap>R</KeyCap></button>{/if}
        {#if view.items.length}<button class="btn btn-outline btn-sm" onclick={() => void account.statement()}>Send a statement <KeyCap>S</KeyCap></button>{/if}
      {/if}
      {#if view.items.length}<a class="text-second underline" href="/api/owed/{view.id}/paper" target="_blank" rel="noopener">the statement as it would print</a
        >{/if}
      <span class="text-second" role="status">{account.done}</span>
    </footer>
  </div>
{/if}
<Words bind:this={dialog} {...said[what]} take={(words) => account.say(what, current?.number ?? '', words)} />
<Words
  bind:this={back}
  title="Pay {document.currency} {fixed(document.amount, 2)} back?"
  says="It is booked as paid from the bank today; the transfer itself is made there."
  label="why?"
  button="It is paid back"
  take={(words) => account.payBack(document.number, document.amount, words)}
/>
