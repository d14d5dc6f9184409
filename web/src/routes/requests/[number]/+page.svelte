<script lang="ts">
  import { tick } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, ask, Refusal, type Schemas } from '$lib/api';
  import { KeyCap, useKeys } from '$lib/keys';
  import { Original, ReadingPane, type Chosen } from '$lib/reading';
  import { useSession } from '$lib/session';
  import { documentPath, Problem, since } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const session = useSession();
  let request = $state.raw<Schemas['RequestView'] | null>(null);
  let problem = $state('');
  let lit = $state<string | null>(null);
  let line = $state<number | null>(null);
  let asideDialog = $state<Words>();
  let desk = $state<HTMLElement>();
  let thread = $state('');
  let part = $state(0);
  let chosen = $state.raw<Chosen | null>(null);
  let forAll = $state(false);
  const number = $derived(page.params.number ?? '');
  const reading = $derived(request?.reading ?? null);
  const open = $derived(!!request && (request.state === 'new' || request.state === 'needsYou') && (session.person?.mayWrite ?? false));
  const isOrder = $derived(reading?.kind === 'order');
  // A change or a cancellation is of an order that there is: nothing new is made of it.
  const turns = $derived(!!reading?.lines.length && !['change', 'cancellation', 'answerToQuote', 'notForUs'].includes(reading.kind));

  // Meets the server, for each number anew.
  $effect(() => {
    const path = { params: { path: { number } } };
    [request, chosen, forAll] = [null, null, false];
    ask(api.GET('/api/requests/{number}', path)).then(
      (found) => {
        request = found;
        // The part that most was read from stands in front.
        const counts = found.parts.map((_, i) => (found.reading?.lines ?? []).filter((l) => l.evidence.some((e) => (e.part ?? 0) === i)).length);
        part = Math.max(0, counts.indexOf(Math.max(...counts, 0)));
        line = found.reading?.lines.find((l) => l.needsYou)?.no ?? null;
      },
      (reason: unknown) => (problem = say(reason)),
    );
  });

  // Pages and pictures are laid out after they have come; what points into them moves along.
  let laid = $state(0);
  $effect(() => {
    const shown = desk?.firstElementChild;
    void part;
    if (!shown) return;
    const watcher = new ResizeObserver(() => laid++);
    const watch = () => [...shown.querySelectorAll('img, canvas')].forEach((drawn) => watcher.observe(drawn));
    const comers = new MutationObserver(watch);
    comers.observe(shown, { childList: true, subtree: true });
    watch();
    return () => {
      comers.disconnect();
      watcher.disconnect();
    };
  });

  // Meets the drawing: the thread from a line to its words follows what is lit.
  $effect(() => {
    const of = lit ?? (line === null ? null : String(line));
    void request;
    void part;
    void laid;
    void tick().then(() => {
      // What the keys are on comes into sight; what the pointer is on is in sight already.
      if (lit === null && of !== null) desk?.querySelector(`[data-evidence~="${of}"]`)?.scrollIntoView({ block: 'nearest' });
      thread = of === null ? '' : draw(of);
    });
  });

  function draw(of: string): string {
    // Of several places the one that is nearest to the line, so that the thread crosses the fewest words.
    const from = [...(desk?.querySelectorAll(`[data-evidence~="${of}"]`) ?? [])].map((e) => e.getBoundingClientRect()).sort((a, b) => b.right - a.right)[0];
    const to = desk?.querySelector(`[data-reads="${of}"]`)?.getBoundingClientRect();
    const box = desk?.getBoundingClientRect();
    if (!from || !to || !box || to.left < from.left + 40 || from.bottom > box.bottom || from.top < box.top) return '';
    const [x1, y1, x2, y2] = [Math.min(from.right, to.left - 24) - box.left, from.bottom - box.top - 2, to.left - box.left, to.top + 14 - box.top];
    return `M${x1} ${y1} C ${x1 + 28} ${y1}, ${x2 - 28} ${y2}, ${x2} ${y2}`;
  }

  const say = (reason: unknown) => (reason instanceof Refusal ? reason.message : 'Something went wrong here; nothing was changed.');

  // One after the other: a key pressed while the last one is still under way waits for it.
  let under: Promise<void> = Promise.resolve();

  function run(call: () => Promise<Schemas['RequestView']>) {
    under = under.then(async () => {
      problem = '';
      try {
        request = await call();
        line = request.reading?.lines.find((l) => l.needsYou)?.no ?? null;
      } catch (reason) {
        problem = say(reason);
      }
    });
    return under;
  }

  const settle = (l: Schemas['ReadLineView'], itemCode: string, quantity: number | null, unit: string | null) =>
    run(() =>
      ask(
        api.POST('/api/requests/{number}/settle', {
          params: { path: { number } },
          body: { version: request!.version, line: l.no, itemCode, quantity, unit, remember: true, forAll },
        }),
      ),
    );
  const leaveOut = (l: Schemas['ReadLineView']) =>
    run(() => ask(api.POST('/api/requests/{number}/leave-out/{line}', { params: { path: { number, line: l.no }, query: { version: request!.version } } })));
  const correct = (field: string, value: string) =>
    run(() => ask(api.POST('/api/requests/{number}/correct', { params: { path: { number } }, body: { version: request!.version, field, value } })));

  const split = (l: Schemas['ReadLineView'], first: number) =>
    run(() => ask(api.POST('/api/requests/{number}/split', { params: { path: { number } }, body: { version: request!.version, line: l.no, first } })));
  const join = (l: Schemas['ReadLineView']) =>
    run(() => ask(api.POST('/api/requests/{number}/join', { params: { path: { number } }, body: { version: request!.version, line: l.no } })));
  const columns = (of: number, row: number, meanings: Record<number, string>) =>
    run(() =>
      ask(api.POST('/api/requests/{number}/columns', { params: { path: { number } }, body: { version: request!.version, part: of, row, columns: meanings } })),
    );

  // What was chosen in the original becomes a line, words for a line, or a value of the head.
  function use(of: number | string) {
    const words = chosen;
    if (!words) return;
    chosen = null;
    document.getSelection()?.removeAllRanges();
    const where = { part: words.part, start: words.start, length: words.length };
    void run(() =>
      typeof of === 'number'
        ? ask(api.POST('/api/requests/{number}/choose', { params: { path: { number } }, body: { version: request!.version, line: of, ...where } }))
        : ask(
            api.POST('/api/requests/{number}/correct', {
              params: { path: { number } },
              body: { version: request!.version, field: of, value: words.text.trim(), where },
            }),
          ),
    );
  }

  async function turn(intoOrder: boolean) {
    await under;
    if (!request || !open || !turns) return;
    problem = '';
    try {
      const made = await ask(api.POST('/api/requests/{number}/turn', { params: { path: { number } }, body: { version: request.version, intoOrder } }));
      await goto(`/${made.kind}s/${made.number}`);
    } catch (reason) {
      problem = say(reason);
    }
  }

  const focused = $derived(reading?.lines.find((l) => l.no === line) ?? null);

  function move(step: number) {
    const all = reading?.lines ?? [];
    const at = all.findIndex((l) => l.no === line);
    line = all[Math.min(Math.max(0, at + step), all.length - 1)]?.no ?? null;
  }

  useKeys(() => [
    ...(open && turns
      ? [
          { key: 'Enter', words: isOrder ? 'make it an order' : 'quote it', run: () => void turn(isOrder) },
          { key: isOrder ? 'q' : 'o', words: isOrder ? 'quote it instead' : 'it is an order', run: () => void turn(!isOrder) },
        ]
      : []),
    ...(open ? [{ key: 'x', words: 'set aside', run: () => asideDialog?.open() }] : []),
    ...(request?.next ? [{ key: 'j', words: 'next request', run: () => void goto(`/requests/${request?.next}`) }] : []),
    ...(open && chosen
      ? [
          ...(focused ? [{ key: 'u', words: `the chosen words are line ${focused.no}`, run: () => use(focused.no) }] : []),
          { key: 'n', words: 'the chosen words are a new line', run: () => use(0) },
        ]
      : []),
    { key: 'ArrowDown', words: 'next line', run: () => move(1) },
    { key: 'ArrowUp', words: 'line before', run: () => move(-1) },
    ...(open && focused
      ? [
          ...focused.proposals.map((p, i) => ({
            key: String(i + 1),
            words: `${p.quantity} ${p.unitWord} ${p.code}`,
            run: () => void settle(focused, p.code, p.quantity, p.unit),
          })),
          ...(focused.itemCode && focused.needsYou
            ? [{ key: 'y', words: 'right as read', run: () => void settle(focused, focused.itemCode ?? '', focused.quantity, focused.unit) }]
            : []),
          { key: 'l', words: 'not an item', run: () => void leaveOut(focused) },
          ...(focused.no < (reading?.lines.length ?? 0) ? [{ key: 'm', words: 'join with the next line', run: () => void join(focused) }] : []),
        ]
      : []),
  ]);

  const wants = $derived(
    reading
      ? {
          unclear: 'wrote',
          requestForQuotation: 'wants a price',
          order: 'orders',
          change: 'changes an order',
          cancellation: 'takes an order back',
          question: 'asks something',
          answerToQuote: 'answers our quote',
          notForUs: 'wrote',
        }[reading.kind]
      : 'could not be read',
  );
</script>

<svelte:head><title>{number} · Solvenda</title></svelte:head>
<Problem words={problem} onclose={() => (problem = '')} />
{#if request}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-2.5">
    <div class="flex flex-wrap items-end justify-between gap-2 pb-2.5">
      <div>
        <h1 class="font-serif text-[25px] leading-tight">{reading?.buyer.value ?? (request.from || request.subject)} <em class="text-second">{wants}</em></h1>
        <p class="text-second">
          <span class="font-mono text-[12px] text-ink">{request.number}</span> · {request.channel}{request.from ? ` from ${request.from}` : ''} · {since(
            request.receivedAt,
          )} ago
          {#if request.turnedInto}· became <a class="underline" href={documentPath(request.turnedInto)}>{request.turnedInto.number}</a>{/if}
          {#if request.siblings.length}· in one file with {#each request.siblings.slice(0, 6) as s, i (s.number)}{i ? ', ' : ''}<a
                class="underline"
                href="/requests/{s.number}"
                title={s.subject}>{s.number}</a
              >{/each}{request.siblings.length > 6 ? ` and ${request.siblings.length - 6} more` : ''}{/if}
          {#if request.state === 'setAside'}· set aside: “{request.reason}”{/if}
          · <a class="underline" href="/api/requests/{request.number}/original" download>the original</a>
        </p>
      </div>
      {#if request.position > 0}<p class="text-second">
          {request.position} of {request.waiting} waiting {#if request.next}<a href="/requests/{request.next}"><KeyCap>J</KeyCap> next</a>{/if}
        </p>{/if}
    </div>
    <div bind:this={desk} class="relative grid min-h-0 flex-1 lg:grid-cols-[2fr_3fr]">
      <Original {request} {lit} {open} bind:part onlight={(of) => (lit = of)} onchoose={(c) => (chosen = c)} oncolumns={columns} />
      <ReadingPane
        {request}
        {lit}
        bind:line
        bind:forAll
        {open}
        onlight={(of) => (lit = of)}
        onsettle={settle}
        onleaveout={leaveOut}
        onsplit={split}
        onjoin={join}
        oncorrect={correct}
      />
      {#if thread}
        <svg class="pointer-events-none absolute inset-0 size-full overflow-visible max-lg:hidden" aria-hidden="true"
          ><path d={thread} class="fill-none stroke-ink" stroke-width="1.2" /></svg
        >
      {/if}
    </div>
    <footer class="flex flex-wrap items-center gap-3 py-3">
      {#if open && chosen}
        <span class="max-w-96 truncate font-serif">“{chosen.text.trim()}”</span>
        <span class="text-second">is</span>
        {#if focused}<button class="btn btn-outline btn-sm" onclick={() => use(focused.no)}>line {focused.no} <KeyCap>U</KeyCap></button>{/if}
        <button class="btn btn-outline btn-sm" onclick={() => use(0)}>a new line <KeyCap>N</KeyCap></button>
        <select class="bg-transparent" aria-label="what the chosen words are" value="" onchange={(e) => use(e.currentTarget.value)}>
          <option value="">or…</option>
          {#each [['poNumber', 'their PO'], ['wanted', 'the day it is wanted'], ['deliverTo', 'where it goes'], ['contact', 'the person']] as [value, words] (value)}
            <option {value}>{words}</option>
          {/each}
        </select>
        <button class="text-second underline" onclick={() => (chosen = null)}>nothing</button>
      {:else if open}
        {#if turns}
          <button class="btn btn-primary btn-sm" onclick={() => turn(isOrder)}>{isOrder ? 'Make it an order' : 'Quote it'} <KeyCap>Enter</KeyCap></button>
          <button class="btn btn-outline btn-sm" onclick={() => turn(!isOrder)}
            >{isOrder ? 'Quote it instead' : 'It is an order'} <KeyCap>{isOrder ? 'Q' : 'O'}</KeyCap></button
          >
        {/if}
        <button class="btn btn-outline btn-sm" onclick={() => asideDialog?.open()}>Set aside… <KeyCap>X</KeyCap></button>
        {#if focused?.needsYou}<span class="text-second">What you settle here is remembered: next time the same words from this buyer are read so.</span>{/if}
      {:else}<span class="text-second">This request was dealt with.</span>{/if}
    </footer>
  </div>
{/if}

<Words
  bind:this={asideDialog}
  title="Set it aside?"
  says="It stays as it came, and can be found; it no longer waits."
  label="why?"
  button="Set aside"
  take={async (reason) => {
    request = await ask(api.POST('/api/requests/{number}/set-aside', { params: { path: { number } }, body: { version: request?.version ?? 0, reason } }));
  }}
/>
