<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ask, Refusal, type Schemas } from '$lib/api';
  import { KeyCap, useKeys } from '$lib/keys';
  import { useSession } from '$lib/session';
  import { day, documentPath, fixed, Problem } from '$lib/shared';
  import { HeadTerms, Sheet, SheetState, Tally, typed, Words } from '$lib/sheet';
  import { Strip } from '$lib/strip';
  import History from './History.svelte';
  import Letter from './Letter.svelte';
  import Tracks from './Tracks.svelte';

  interface Props {
    view: Schemas['DocumentView'];
    /** Fetches the document anew. */
    load: () => Promise<Schemas['DocumentView']>;
  }

  let { view: given, load }: Props = $props();
  const session = useSession();
  // A page is made anew for each document, so the first view is the one to begin with.
  // svelte-ignore state_referenced_locally
  let doc = $state.raw(given);
  // svelte-ignore state_referenced_locally
  const sheet = new SheetState(given.sheet, reload, session.person?.mayWrite ?? false, ({ next, state, stateWords, tracks }) => {
    doc = { ...doc, next, state, stateWords, tracks };
  });
  let problem = $state('');
  let terms = $state<HeadTerms>();
  let history = $state<History>();
  let letter = $state<Letter>();
  let askDialog = $state<Words>();
  let waiveDialog = $state<Words>();
  let withdrawDialog = $state<Words>();
  let waived = $state.raw<Schemas['FindingView'] | null>(null);
  let waiveReason = $state('');

  const isOrder = $derived(doc.kind === 'order');
  const number = $derived(doc.number);
  const d = $derived(sheet.view.decimals);
  const next = $derived(doc.next);

  async function reload() {
    take(await load());
  }

  function take(fresh: Schemas['DocumentView']) {
    doc = fresh;
    sheet.view = fresh.sheet;
  }

  async function run(act: () => Promise<void>) {
    problem = '';
    try {
      await act();
    } catch (reason) {
      problem = reason instanceof Refusal ? reason.message : 'Something went wrong here; nothing was changed.';
    }
  }

  // What cannot be undone names the version that was looked at.
  const withVersion = () => ({ params: { path: { number }, header: { 'If-Match': `"${sheet.view.version}"` } } });

  function act() {
    if (!next.possible) return;
    const path = { params: { path: { number } } };
    const seen = withVersion();
    const moves: Record<string, () => void> = {
      ask: () => askDialog?.open(),
      send: () => void letter?.open(number),
      confirm: () => void run(async () => take(await ask(api.POST('/api/orders/{number}/confirm', seen)))),
      revise: () => void run(async () => take(await ask(api.POST('/api/quotes/{number}/revise', path)))),
      turn: () =>
        void run(async () => {
          const made = await ask(api.POST('/api/quotes/{number}/order', path));
          await goto(documentPath(made));
        }),
      open: () => void (next.opens && goto(documentPath(next.opens))),
    };
    moves[next.code]?.();
  }

  function cure(c: Schemas['CureView'], finding: Schemas['FindingView']) {
    if (c.action === 'set') void sheet.set(finding.line, c.field, c.value);
    else if (c.action === 'ask') askDialog?.open();
    else if (c.action === 'waive') waive(finding, c.value);
    else if (finding.line === null) terms?.focus(c.field);
    else [sheet.line, sheet.column, sheet.editing] = [finding.line, c.field === 'quantity' ? 'quantity' : 'item', true];
  }

  function waive(finding: Schemas['FindingView'], reason = '') {
    if (!finding.mayWaive) {
      problem = finding.whyNot;
      return;
    }
    [waived, waiveReason] = [finding, reason];
    waiveDialog?.open();
  }

  const focusFindings = $derived(sheet.view.findings.filter((f) => f.line === sheet.line || f.line === null));
  const waivable = $derived(isOrder && sheet.view.editable ? focusFindings.find((f) => f.mayWaive) : undefined);
  // Two findings may have the same way out; its key is the first one's until that is cured.
  const cures = $derived(
    focusFindings
      .flatMap((f) => f.cures.map((c) => ({ key: c.key.toLowerCase(), words: c.words, run: () => cure(c, f) })))
      .filter((c, i, all) => all.findIndex((o) => o.key === c.key) === i),
  );
  useKeys(() => [
    ...(next.key && sheet.mayWrite ? [{ key: next.key.toLowerCase(), words: next.words, run: act }] : []),
    ...(sheet.editable
      ? [
          { key: 'Ctrl+z', words: 'undo', run: () => void sheet.undo() },
          { key: 'n', words: 'add a line', run: addLine },
          { key: 'i', words: 'offer the line only if wanted, or for good', run: sheet.toggleOptional },
          ...cures,
        ]
      : []),
    ...(waivable ? [{ key: 'w', words: 'let it pass', run: () => waive(waivable) }] : []),
    { key: 'h', words: 'history', run: () => void history?.open(doc.dossier) },
    ...(isOrder ? [] : [{ key: 'p', words: 'as it would print', run: () => void window.open(`/api/quotes/${number}/print`, '_blank') }]),
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
  <div class="flex flex-wrap items-end gap-x-6 gap-y-2">
    <div class="min-w-0 flex-1 basis-80">
      <h1 class="truncate font-serif text-[25px] leading-tight">{doc.buyer.name} <em class="text-second">{doc.matter}</em></h1>
      <p class="text-second">
        <span class="font-mono text-[12px] text-ink">{number}</span>
        {#if doc.revision}· revision {doc.revision},{:else}·{/if}
        {doc.stateWords} · <span class="font-mono text-[12px]">{doc.dossier}</span> · {doc.seller}
        {#each doc.related as other (other.kind + other.number)}
          · <a class="underline" href={documentPath(other)}>{other.kind} {other.number}</a>
        {/each}
      </p>
    </div>
    {#if doc.tracks}<Tracks tracks={doc.tracks} />{/if}
    <p class="text-right">
      <span class="font-serif text-[25px] leading-none">{fixed(sheet.view.tally.totalWithTax, d)}</span>
      <span class="text-second">{sheet.view.currency} with tax</span>
    </p>
    <div class="flex items-center gap-2">
      {#if next.words && sheet.mayWrite}
        <button class="btn btn-primary btn-sm" disabled={!next.possible} aria-describedby={next.why ? 'why-not' : undefined} onclick={act}>
          {next.words}{#if next.key && next.possible}<KeyCap>{next.key}</KeyCap>{/if}
        </button>
      {/if}
    </div>
  </div>
  {#if next.why && !next.possible}<p id="why-not" class="mt-1 text-right text-second">{next.why}</p>{/if}
  <Strip marks={doc.strip} />
  <Problem words={problem || sheet.problem} onclose={() => ((problem = ''), sheet.letGo())} />
  {#if sheet.refused}
    <div class="mb-2 border border-strong bg-sheet px-3 py-2" role="group" aria-label="not taken yet">
      {#each sheet.refused.theirs as theirs, i (i)}<p class="text-second">{theirs}</p>{/each}
      <p>
        You typed {sheet.refused.edits.map(typed).join('; ')}.
        <button class="ml-2 underline" onclick={sheet.again}>put it in now</button>
        <button class="ml-2 underline" onclick={sheet.letGo}>let it go</button>
      </p>
    </div>
  {/if}
  {#if doc.asks.length}
    <ul class="pb-1">
      {#each doc.asks as round (round.id)}
        <li>
          <span class="text-second">{day(round.askedAt)}</span>
          {round.askedBy} asked {round.approver}{round.hand === round.askedBy ? '' : ` about what ${round.hand} typed`}:
          <em class="font-serif text-[15px]">“{round.why}”</em>
          <b>{{ waiting: 'waits', granted: 'granted', sentBack: 'sent back', withdrawn: 'withdrawn' }[round.outcome]}</b>{#if round.note}: <em
              class="font-serif text-[15px]">“{round.note}”</em
            >{/if}
        </li>
      {/each}
    </ul>
  {/if}
  <HeadTerms bind:this={terms} {sheet} oncure={cure} onwaive={waive} />
  <Sheet {sheet} oncure={cure} onwaive={waive} />
  <Tally {sheet} />
  <p class="flex flex-wrap gap-4 pb-2 text-second">
    <button onclick={() => history?.open(doc.dossier)}><KeyCap>H</KeyCap> history</button>
    {#if !isOrder}<a href="/api/quotes/{number}/print" target="_blank" rel="noopener"><KeyCap>P</KeyCap> as it would print</a>{/if}
    {#if doc.mayWithdraw}<button onclick={() => withdrawDialog?.open()}>withdraw it…</button>{/if}
    {#if sheet.editable}<span class="max-md:hidden">kept as you type; <KeyCap>Ctrl Z</KeyCap> undoes</span>{/if}
  </p>
</div>

<History bind:this={history} />
<Letter bind:this={letter} take={async (l) => take(await ask(api.POST('/api/quotes/{number}/send', { ...withVersion(), body: l })))} />
<Words
  bind:this={askDialog}
  title="Ask {sheet.view.approval.approvers.join(' and ')}"
  says={sheet.view.approval.why.join('; ')}
  label="why?"
  button="Ask"
  take={async (why) =>
    take(
      await (isOrder
        ? ask(api.POST('/api/orders/{number}/ask', { ...withVersion(), body: { why } }))
        : ask(api.POST('/api/quotes/{number}/ask', { ...withVersion(), body: { why } }))),
    )}
/>
<Words
  bind:this={waiveDialog}
  title="Let it pass?"
  says={waived?.words ?? ''}
  label="why may it pass? The reason is kept."
  button="Let it pass"
  start={waiveReason}
  take={async (reason) => {
    if (waived)
      take(
        await ask(
          api.POST('/api/orders/{number}/waive', {
            params: { path: { number } },
            body: { check: waived.check, line: waived.line, field: waived.field, reason },
          }),
        ),
      );
  }}
/>
<Words
  bind:this={withdrawDialog}
  title="Withdraw the quote?"
  says="The buyer’s link will say that it was withdrawn. This cannot be undone; a new quote can be made."
  label="why?"
  button="Withdraw"
  take={async (reason) => take(await ask(api.POST('/api/quotes/{number}/withdraw', { params: { path: { number } }, body: { reason } })))}
/>
