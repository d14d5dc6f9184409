<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, ask, Refusal, type Schemas } from '$lib/api';
  import { AskLine } from '$lib/asks';
  import { KeyCap, useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { fixed, Latest, Problem, Ruler } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const latest = new Latest<Schemas['AskView']>();
  const view = $derived(latest.value);
  let problem = $state('');
  let busy = $state(false);
  let back = $state<Words>();
  const id = $derived(Number(page.params.id));

  // Meets the server, for each ask anew.
  $effect(() => {
    const path = { id };
    latest.take(null);
    void latest.ask(() => ask(api.GET('/api/asks/{id}', { params: { path } })), 'It could not be opened.');
  });
  usePulse(
    (subject) => subject === view?.subject,
    () => void latest.ask(() => ask(api.GET('/api/asks/{id}', { params: { path: { id } } }))),
  );

  async function onwards() {
    await goto(view?.next ? `/asks/${view.next}` : '/');
  }

  async function grant() {
    if (!view?.mine || busy) return;
    busy = true;
    try {
      await ask(api.POST('/api/asks/{id}/grant', { params: { path: { id } }, body: { note: null } }));
      await onwards();
    } catch (reason) {
      problem = reason instanceof Refusal ? reason.message : 'It was not decided; try again.';
    } finally {
      busy = false;
    }
  }

  useKeys(() =>
    view?.mine
      ? [
          { key: 'g', words: 'grant', run: () => void grant() },
          { key: 'b', words: 'send back', run: () => back?.open() },
        ]
      : [],
  );

  const over = (r: Schemas['AskRuler']) => r.handsLimit !== null && (r.moreIsWorse ? r.figure > r.handsLimit : r.figure < r.handsLimit);
  // Where one thing is given, the button says how much of it.
  const given = $derived(view?.rulers.filter((r) => r.moreIsWorse) ?? []);
  const only = $derived(given.length === 1 ? given[0] : undefined);
</script>

<svelte:head><title>{view ? `${view.handFirst} asks` : 'Ask'} · Solvenda</title></svelte:head>
<Problem words={problem || latest.problem} />
{#if view}
  <div class="mx-auto flex w-full max-w-[560px] flex-1 flex-col gap-3 px-4 pt-3 pb-4 text-[14px] lg:max-w-[1020px]">
    {#if view.waiting}<p class="text-right text-second">{view.position || '–'} of {view.waiting}</p>{/if}
    <div>
      <h1 class="font-serif text-[23px] leading-snug">{view.sentence}</h1>
      <p class="mt-1 text-second">
        {view.mine ? 'Yours to decide' : `With ${view.approver}`}: {view.fired.join('; ')}.
        <em class="font-serif text-[16px] text-ink">“{view.why}”</em>
        <a class="font-mono text-[12px] underline" href="/{view.isOrder ? 'orders' : 'quotes'}/{view.subject}">{view.subject}</a>
      </p>
    </div>
    <div class="gap-3 lg:columns-2">
      <section class="mb-3 break-inside-avoid border border-hairline bg-sheet p-4" aria-label="figures against limits">
        {#each view.rulers as r, i (i)}
          <div class="grid grid-cols-[118px_1fr_84px] items-center gap-3 py-1">
            <span class="text-second">{r.words}</span>
            <Ruler
              from={r.from}
              to={r.to}
              at={r.figure}
              limit={r.handsLimit}
              cost={r.moreIsWorse ? null : r.from}
              ring={r.before}
              over={over(r)}
              label="{r.words}: {r.said}; {view.handFirst} may go to {r.handsLimit ?? 'nothing'}, before {r.before ?? 'unknown'}"
            />
            <b class="text-right {over(r) ? 'text-stop' : ''}">{r.said}</b>
          </div>
        {/each}
        <p class="mt-2">It costs {fixed(view.costs, 2)}; the whole of {fixed(view.total, 2)} {view.currency} still earns {fixed(view.earns, 2)}.</p>
        <p class="text-[12.5px] text-second">Red tick: where {view.handFirst}’s own authority ends. Ring: before anything was given.</p>
      </section>
      <section class="mb-3 break-inside-avoid border border-hairline bg-sheet p-4" aria-label="the buyer">
        <div class="flex justify-between gap-3 py-0.5"><span class="text-second">the buyer</span><span>{view.buyer}</span></div>
        <div class="flex justify-between gap-3 py-0.5">
          <span class="text-second">bought this year</span><span
            >{view.boughtThisYear.map((b) => `${fixed(b.amount, 2)} ${b.currency}`).join(', ') || 'nothing'}</span
          >
        </div>
        <div class="flex justify-between gap-3 py-0.5"><span class="text-second">credit</span><span class="text-right">{view.creditWords}</span></div>
      </section>
      {#each view.lines as line, i (i)}
        <AskLine {line} currency={view.currency} />
      {/each}
    </div>
    {#if view.mine}
      <div class="sticky bottom-0 mt-auto grid gap-2 bg-ground pt-3 pb-1 sm:grid-cols-2">
        <button class="btn btn-primary" disabled={busy} onclick={grant}>Grant {only ? only.said : 'it'} <KeyCap>G</KeyCap></button>
        <button class="btn btn-outline" onclick={() => back?.open()}>Send back… <KeyCap>B</KeyCap></button>
      </div>
    {:else}
      <p class="mt-auto">
        {{ waiting: `${view.approver} has it.`, granted: 'Granted.', sentBack: 'Sent back.', withdrawn: 'Withdrawn.' }[view.outcome]}{view.note
          ? ` “${view.note}”`
          : ''}
      </p>
    {/if}
  </div>
{/if}

<Words
  bind:this={back}
  title="Send it back"
  says="{view?.handFirst ?? ''} changes it and asks again; each round stays in the history."
  label="what should change?"
  button="Send back"
  take={async (note) => {
    await ask(api.POST('/api/asks/{id}/send-back', { params: { path: { id } }, body: { note } }));
    await onwards();
  }}
/>
