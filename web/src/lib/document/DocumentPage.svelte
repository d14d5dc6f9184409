<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Schemas } from '$lib/api';
  import { Owes } from '$lib/credit';
  import { OrderGoods, OrderReturns } from '$lib/goods';
  import { OrderMoney, ProForma } from '$lib/ledger';
  import { KeyCap, useKeys } from '$lib/keys';
  import { loadKinds } from '$lib/list';
  import { usePulse } from '$lib/pulse';
  import { useSession } from '$lib/session';
  import { NewRecord } from '$lib/records';
  import { documentPath, Problem } from '$lib/shared';
  import { Columns, HeadTerms, NotTaken, Sheet, Tally, Words } from '$lib/sheet';
  import { Strip } from '$lib/strip';
  import { Others } from '$lib/presence';
  import Asks from './Asks.svelte';
  import BecomeCustomer from './BecomeCustomer.svelte';
  import CallOff from './CallOff.svelte';
  import CloseShort from './CloseShort.svelte';
  import Confirming from './Confirming.svelte';
  import Beside from './Beside.svelte';
  import { DocumentState } from './document.svelte';
  import DocumentHead from './DocumentHead.svelte';
  import Files from './Files.svelte';
  import History from './History.svelte';
  import Letter from './Letter.svelte';
  import TurnTogether from './TurnTogether.svelte';

  interface Props {
    view: Schemas['DocumentView'];
    /** Fetches the document anew. */
    load: () => Promise<Schemas['DocumentView']>;
  }

  let { view, load }: Props = $props();
  const session = useSession();
  // A page is made anew for each document, so the first view is the one to begin with.
  // svelte-ignore state_referenced_locally
  const whole = new DocumentState(view, load, session.person?.mayWrite ?? false);
  const { sheet } = whole;
  let terms = $state<HeadTerms>();
  let history = $state<History>();
  let beside = $state<Beside>();
  let files = $state<Files>();
  let fresh = $state<NewRecord>();
  let letter = $state<Letter>();
  let askDialog = $state<Words>();
  let waiveDialog = $state<Words>();
  let withdrawDialog = $state<Words>();
  let moveDialog = $state<Words>();
  let confirming = $state<Confirming>();
  let owes = $state<Owes>();
  let callOff = $state<CallOff>();
  let closeShort = $state<CloseShort>();
  let customer = $state<BecomeCustomer>();
  let waiveReason = $state('');
  const { doc, number, next, isOrder } = $derived(whole);
  const printed = $derived(`/api/${isOrder ? 'orders' : 'quotes'}/${number}/print`);

  // svelte-ignore state_referenced_locally
  const others = new Others(
    view.number,
    () => sheet.line,
    () => void whole.follow(),
  );

  let mayMakeItems = $state(false);
  void loadKinds().then(
    (kinds) => (mayMakeItems = kinds.some((k) => k.name === 'items' && k.mayChange)),
    // Without it the page is as useful; the records page says what is wrong.
    () => undefined,
  );

  usePulse(
    (subject) => subject === number,
    () => void whole.follow(),
  );

  function act() {
    if (!next.possible) return;
    const moves: Record<string, () => void> = {
      ask: () => askDialog?.open(),
      send: () => void letter?.open(number),
      confirm: () => void confirming?.open(),
      goOn: () => void whole.goOn(),
      revise: () => void whole.revise(),
      turn: async () => {
        const made = await whole.turn();
        if (made) await goto(documentPath(made));
      },
      open: () => void (next.opens && goto(documentPath(next.opens))),
    };
    moves[next.code]?.();
  }

  // What is made is used at once where it was missing.
  function onmade(kind: string, _: number, values: Readonly<Record<string, string>>) {
    if (kind === 'addresses' && values.use === 'deliver-to') void sheet.set(null, 'deliverTo', values.code ?? '');
    else if (kind === 'items' && sheet.focused && !sheet.focused.code) void sheet.set(sheet.focused.key, 'item', values.code ?? '');
    else sheet.said = `${values.name ?? values.words ?? values.code} is kept.`;
  }

  const make = {
    address: () => void fresh?.open('addresses', { buyer: doc.buyer.code, use: 'deliver-to', code: '', words: '', country: doc.buyer.country }),
    contact: () => void fresh?.open('contacts', { buyer: doc.buyer.code, name: '', mail: '', phone: '' }),
    item: () => void fresh?.open('items', sheet.focused?.kind === 'item' && !sheet.focused.code ? { words: sheet.focused.words } : {}),
  };

  // What else can be done to it; what takes a reason is asked for it, with what will happen.
  let moved = $state.raw<Schemas['OrderMove'] | null>(null);
  function move(to: Schemas['OrderMove']) {
    if (to.withReason || to.says) {
      moved = to;
      moveDialog?.open();
    } else if (to.code === 'change') void whole.change();
    else if (to.code === 'callOff') callOff?.open();
    else if (to.code === 'closeShort') closeShort?.open();
    else if (to.code === 'openLines') void whole.openLines();
    else if (to.code === 'openAgain') void whole.openAgain();
    else if (to.code === 'copy') void whole.copyOrder().then((made) => made && goto(documentPath(made)));
  }
  const carry = async (reason: string) => {
    if (moved?.code === 'hold') await whole.hold(reason);
    else if (moved?.code === 'cancel') await whole.cancel(reason);
    else if (moved?.code === 'leaveAsConfirmed') await whole.leaveAsConfirmed();
  };

  async function copy(toChoose: boolean) {
    const made = await whole.copy(toChoose);
    if (made) await goto(documentPath(made));
  }

  function cure(c: Schemas['CureView'], finding: Schemas['FindingView']) {
    if (c.action === 'set') void sheet.set(finding.line, c.field, c.value);
    else if (c.action === 'ask') askDialog?.open();
    else if (c.action === 'customer') void customer?.open(doc.buyer.id);
    else if (c.action === 'waive') waive(finding, c.value);
    else if (finding.line === null) terms?.focus(c.field);
    else [sheet.line, sheet.column, sheet.editing] = [finding.line, c.field === 'quantity' ? 'quantity' : 'item', true];
  }

  function waive(finding: Schemas['FindingView'], reason = '') {
    if (!finding.mayWaive) {
      whole.problem = finding.whyNot;
      return;
    }
    [whole.waived, waiveReason] = [finding, reason];
    waiveDialog?.open();
  }

  useKeys(() => [
    ...(next.key && sheet.mayWrite ? [{ key: next.key.toLowerCase(), words: next.words, run: act }] : []),
    ...(sheet.editable
      ? [
          { key: 'Ctrl+z', words: 'undo', run: () => void sheet.undo() },
          { key: 'Ctrl+Shift+z', words: 'redo', run: () => void sheet.redo() },
          { key: 'n', words: 'add a line', run: addLine },
          { key: 'i', words: 'offer the line only if wanted, or for good', run: sheet.toggleOptional },
          ...whole.cures.map((c) => ({ key: c.key, words: c.cure.words, run: () => cure(c.cure, c.finding) })),
        ]
      : []),
    ...(whole.waivable ? [{ key: 'w', words: 'let it pass', run: () => whole.waivable && waive(whole.waivable) }] : []),
    ...(doc.beside.length ? [{ key: 'b', words: 'another document beside it', run: () => void beside?.open() }] : []),
    { key: 'j', words: 'files', run: () => void files?.open() },
    ...(isOrder ? [{ key: 'l', words: 'what they owe, and what would help', run: () => owes?.open() }] : []),
    ...(doc.moves.some((m) => m.code === 'callOff') ? [{ key: 'k', words: 'call a part off', run: () => callOff?.open() }] : []),
    { key: 'h', words: 'history', run: () => void history?.open(doc.dossier) },
    { key: 'p', words: 'as it would print', run: () => void window.open(printed, '_blank') },
    { key: 'ArrowDown', words: 'next line', run: () => enter(1) },
    { key: 'ArrowUp', words: 'line before', run: () => enter(-1) },
  ]);

  function addLine() {
    sheet.line = null;
    document.querySelector<HTMLInputElement>('[data-sheet] input[role=combobox]')?.focus();
  }

  // From anywhere on the page, an arrow goes into the sheet.
  function enter(step: number) {
    sheet.move(step);
    document.querySelector<HTMLElement>('[data-sheet] td[tabindex="0"]')?.focus();
  }
</script>

<svelte:head><title>{number} {doc.buyer.name} · Solvenda</title></svelte:head>

<div class="flex min-h-0 flex-1 flex-col px-5 pt-2.5">
  <DocumentHead state={whole} others={others.here} onact={act} onbeside={doc.beside.length ? () => void beside?.open() : undefined} />
  <Strip marks={doc.strip} />
  <Problem words={whole.problem || sheet.problem} onclose={() => ((whole.problem = ''), sheet.letGo())} />
  <NotTaken {sheet} />
  <Asks asks={doc.asks} />
  {#if next.code === 'turn' && sheet.mayWrite}<TurnTogether state={whole} />{/if}
  <CallOff bind:this={callOff} state={whole} oncall={doc.moves.some((m) => m.code === 'callOff') ? () => callOff?.open() : undefined} />
  {#if isOrder && doc.tracks?.terms === 'confirmed'}
    <OrderGoods order={number} mayShip={session.person?.ships ?? false} onmoved={() => void whole.follow()} />
    <OrderMoney order={number} onmoved={() => void whole.follow()} />
    <OrderReturns order={number} onmoved={() => void whole.follow()} />
  {/if}
  <HeadTerms bind:this={terms} {sheet} oncure={cure} onwaive={waive} />
  <Sheet {sheet} others={others.here} oncure={cure} onwaive={waive} />
  <Tally {sheet} />
  <p class="flex flex-wrap gap-4 pb-2 text-second">
    <button onclick={() => history?.open(doc.dossier)}><KeyCap>H</KeyCap> history</button>
    <button onclick={() => void files?.open()}><KeyCap>J</KeyCap> files</button>
    {#if isOrder}<button onclick={() => owes?.open()}><KeyCap>L</KeyCap> what they owe</button>{/if}
    <a href={printed} target="_blank" rel="noopener"><KeyCap>P</KeyCap> as it would print</a>
    {#if isOrder && doc.tracks && doc.tracks.terms !== 'cancelled' && (doc.tracks.money === 'notDue' || doc.tracks.money === 'toInvoice')}
      <ProForma order={number} maySend={session.person?.mayWrite ?? false} />
    {/if}
    {#if !isOrder && sheet.mayWrite}
      <button onclick={() => void copy(false)} title="a quote of its own with the same lines, at the prices of today">copy it</button>
      {#if doc.mayWithdraw}<button onclick={() => void copy(true)} title="the buyer takes one of the two">another to choose from</button>{/if}
    {/if}
    {#if doc.mayWithdraw}<button onclick={() => withdrawDialog?.open()}>withdraw it…</button>{/if}
    {#each doc.moves as one (one.code)}
      <button
        class="lowercase"
        title={one.code === 'copy' ? 'an order of its own with the same lines, at the prices of today; this one stays as it is' : undefined}
        onclick={() => move(one)}>{one.words}{one.withReason || one.says || ['callOff', 'closeShort'].includes(one.code) ? '…' : ''}</button
      >
    {/each}
    {#if sheet.editable}
      <span class="flex gap-2"
        >new <button class="underline" onclick={make.address}>address</button>
        <button class="underline" onclick={make.contact}>contact</button>
        {#if mayMakeItems}<button class="underline" onclick={make.item}>item</button>{/if}</span
      >
    {/if}
    <Columns {sheet} />
    {#if sheet.editable}<span class="max-md:hidden">kept as you type; <KeyCap>Ctrl Z</KeyCap> undoes, with <KeyCap>Shift</KeyCap> redoes</span>{/if}
  </p>
</div>

<History bind:this={history} pdf={session.person?.seesSetup ? `/api/setup/decisions/${number}` : ''} />
{#if isOrder}<Owes bind:this={owes} {number} mayNote={session.person?.notesMoney ?? false} onnoted={() => void whole.follow()} />{/if}
<NewRecord bind:this={fresh} {onmade} />
<Beside bind:this={beside} choices={doc.beside} now={whole.name} />
<Files
  bind:this={files}
  kind={doc.kind}
  {number}
  mayWrite={sheet.mayWrite}
  line={sheet.focused?.number ? { key: sheet.focused.key, number: sheet.focused.number } : null}
/>
<Letter bind:this={letter} take={whole.send} />
<Words
  bind:this={askDialog}
  title="Ask {sheet.view.approval.approvers.join(' and ')}"
  says={sheet.view.approval.why.join('; ')}
  label="why?"
  tick="the answer is wanted today"
  button="Ask"
  take={whole.ask}
/>
<Words
  bind:this={waiveDialog}
  title="Let it pass?"
  says={whole.waived?.words ?? ''}
  label="why may it pass? The reason is kept."
  button="Let it pass"
  start={waiveReason}
  reasons="waived"
  until={whole.waived?.check === 'credit' ? 'until (a fortnight, unless you say)' : ''}
  take={whole.waive}
/>
<Confirming bind:this={confirming} state={whole} />
<CloseShort bind:this={closeShort} state={whole} />
<BecomeCustomer
  bind:this={customer}
  onmade={async (words, agreed) => {
    // What was agreed stands on the order that it was agreed for, where nothing is said there.
    for (const [term, value] of Object.entries(agreed)) if (!sheet.terms[term]?.value) await sheet.set(null, term, value);
    await whole.reload();
    sheet.said = words;
  }}
/>
<Words
  bind:this={moveDialog}
  title="{moved?.words ?? ''}?"
  says={moved?.says ?? ''}
  label={moved?.withReason ? 'why? The reason is kept.' : ''}
  button={moved?.words ?? ''}
  take={carry}
/>
<Words
  bind:this={withdrawDialog}
  title="Withdraw the quote?"
  says="The buyer’s link will say that it was withdrawn. This cannot be undone; a new quote can be made."
  label="why?"
  button="Withdraw"
  reasons="lost"
  take={whole.withdraw}
/>
