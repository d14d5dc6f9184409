<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { Answer, Divide, InHand, Original, ReadingPane, RequestFoot, RequestHead, RequestState, Thread } from '$lib/reading';
  import { useSession } from '$lib/session';
  import { day, documentPath, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const session = useSession();
  const request = new RequestState(() => session.person?.mayWrite ?? false);
  let asideDialog = $state<Words>();
  let answerDialog = $state<Answer>();
  let divideDialog = $state<Divide>();
  let dossierDialog = $state<Words>();
  let desk = $state<HTMLElement>();
  const number = $derived(page.params.number ?? '');

  // Meets the server, for each number anew.
  $effect(() => void request.load(number));
  usePulse(
    (subject) => subject === number,
    () => void request.refresh(),
  );

  async function turn(intoOrder: boolean) {
    const made = await request.turn(intoOrder);
    if (made) await goto(documentPath(made));
  }

  const own = $derived.by(() => {
    const { focused, reading, over } = request;
    if (request.open && over)
      return [
        ...(over.why ? [] : [{ key: '1', words: `“${over.words}” is a line of its own`, run: () => void request.takeUp(over) }]),
        { key: 'l', words: over.why ? 'seen; go on with what was read' : `“${over.words}” means nothing here`, run: () => void request.dismiss(over) },
      ];
    if (!request.open || !focused) return [];
    return [
      ...focused.proposals.map((p, i) => ({
        key: String(i + 1),
        words: `${p.quantity} ${p.unitWord} ${p.code}`,
        run: () => void request.settle(focused, p.code, p.quantity, p.unit),
      })),
      ...(focused.itemCode && focused.needsYou
        ? [{ key: 'y', words: 'right as read', run: () => void request.settle(focused, focused.itemCode ?? '', focused.quantity, focused.unit) }]
        : []),
      { key: 'l', words: 'not an item', run: () => void request.leaveOut(focused) },
      ...(focused.no < (reading?.lines.length ?? 0) ? [{ key: 'm', words: 'join with the next line', run: () => void request.join(focused) }] : []),
    ];
  });

  useKeys(() => [
    ...(request.open && request.turns && !request.overs.length
      ? [
          { key: 'Enter', words: request.isOrder ? 'make it an order' : 'quote it', run: () => void turn(request.isOrder) },
          { key: request.isOrder ? 'q' : 'o', words: request.isOrder ? 'quote it instead' : 'it is an order', run: () => void turn(!request.isOrder) },
        ]
      : []),
    ...(request.open && request.changes ? [{ key: 'Enter', words: 'beside the order', run: () => void goto(`/requests/${number}/change`) }] : []),
    ...(request.open ? [{ key: 'a', words: 'answer', run: () => void answerDialog?.open() }] : []),
    ...(request.open ? [{ key: 'g', words: 'it goes with another matter', run: () => dossierDialog?.open() }] : []),
    ...(request.open && (request.reading?.lines.length ?? 0) > 1 ? [{ key: 'v', words: 'make two of it', run: () => divideDialog?.open() }] : []),
    ...(request.open ? [{ key: 'x', words: 'set aside', run: () => asideDialog?.open() }] : []),
    ...(request.view?.next ? [{ key: 'j', words: 'next request', run: () => void goto(`/requests/${request.view?.next}`) }] : []),
    ...(request.open && request.chosen
      ? [
          ...(request.focused
            ? [{ key: 'u', words: `the chosen words are line ${request.focused.no}`, run: () => void request.use(request.focused?.no ?? 0) }]
            : []),
          { key: 'n', words: 'the chosen words are a new line', run: () => void request.use(0) },
        ]
      : []),
    { key: 'ArrowDown', words: 'next line', run: () => request.move(1) },
    { key: 'ArrowUp', words: 'line before', run: () => request.move(-1) },
    ...own,
  ]);
</script>

<svelte:head><title>{number} · Solvenda</title></svelte:head>
<Problem words={request.problem} onclose={() => (request.problem = '')} />
{#if request.view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-2.5">
    <RequestHead request={request.view}
      >{#snippet hand()}<InHand
          request={request.view!}
          me={session.person?.id ?? 0}
          mayWrite={session.person?.mayWrite ?? false}
          handed={(now) => (request.view = now)}
          failed={(words) => (request.problem = words)}
        />{/snippet}</RequestHead
    >
    {#each request.view.answers as answer, i (i)}
      <details class="border-b border-hairline py-1">
        <summary><span class="text-second">written to {answer.to} by {answer.by}, {day(answer.at)}:</span> {answer.subject}</summary>
        <p class="py-1 font-serif text-[15px] whitespace-pre-wrap">{answer.text}</p>
      </details>
    {/each}
    <div bind:this={desk} class="relative grid min-h-0 flex-1 lg:grid-cols-[2fr_3fr]">
      <Original
        request={request.view}
        lit={request.lit}
        open={request.open}
        bind:part={request.part}
        onlight={(of) => (request.lit = of)}
        onchoose={(c) => (request.chosen = c)}
        oncolumns={request.columns}
      />
      <ReadingPane state={request} />
      <Thread state={request} box={desk} />
    </div>
    <RequestFoot
      state={request}
      onturn={turn}
      onaside={() => asideDialog?.open()}
      onanswer={() => void answerDialog?.open()}
      ondivide={() => divideDialog?.open()}
      ondossier={() => dossierDialog?.open()}
    />
  </div>
{/if}

{#if request.view}<Answer bind:this={answerDialog} request={request.view} answered={(now) => (request.view = now)} />{/if}
<Divide bind:this={divideDialog} state={request} done={(made) => void goto(`/requests/${made}`)} />
<Words
  bind:this={dossierDialog}
  title="Which matter does it go with?"
  says={request.turns ? 'What is made of it is made in that dossier.' : 'It is done with that, and stands in the dossier.'}
  label="number of a dossier, a quote or an order"
  button="Put it there"
  take={request.belongs}
/>
<Words
  bind:this={asideDialog}
  title="Set it aside?"
  says="It stays as it came, and can be found; it no longer waits."
  label="why?"
  button="Set aside"
  reasons="setAside"
  take={request.setAside}
/>
