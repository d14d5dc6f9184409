<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { AskState, Facts, Figures, Item, Lines, Said, SendBack, Together } from '$lib/asks';
  import { Standing } from '$lib/credit';
  import { KeyCap, useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { ago, day, DayField, fixed, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const one = new AskState((next) => void goto(next ? `/asks/${next}` : '/'));
  const view = $derived(one.view);
  const asked = $derived(ago(view?.askedAt ?? ''));
  let back = $state<SendBack>();
  let talk = $state<Words>();
  let together = $state<Together>();
  let upTo = $state<HTMLInputElement>();
  let passing = $state(false);

  // Meets the server, for each ask anew.
  $effect(() => {
    passing = false;
    void one.open(Number(page.params.id));
  });
  usePulse(
    (subject) => subject === view?.subject,
    () => void one.follow(),
  );

  const next = () => view?.place.next && void goto(`/asks/${view.place.next}`);
  const take = (said: number) => {
    one.upTo = String(said);
    upTo?.focus();
  };

  useKeys(() =>
    !view
      ? []
      : [
          ...(one.mine
            ? [
                { key: 'g', words: view.may.handsOn ? 'say yes and hand it on' : 'grant', run: () => void one.grant() },
                ...(one.figure && !view.may.handsOn ? [{ key: 'u', words: 'grant up to', run: () => (upTo?.focus(), upTo?.select()) }] : []),
                { key: 'b', words: 'send back', run: () => back?.open() },
                { key: 'q', words: 'ask something', run: () => talk?.open() },
                ...(view.to.length ? [{ key: 'p', words: 'pass on', run: () => (passing = !passing) }] : []),
              ]
            : []),
          ...(view.may.answer ? [{ key: 'q', words: 'answer', run: () => talk?.open() }] : []),
          ...(view.place.next ? [{ key: 'j', words: 'next ask', run: () => next() }] : []),
          ...(view.beside.filter((b) => b.mayBeGranted).length > 1 ? [{ key: 'm', words: 'grant several', run: () => together?.open() }] : []),
          ...view.instead.map((way, i) => ({ key: String(i + 1), words: way.words, run: () => take(way.upTo) })),
        ],
  );
</script>

<svelte:head><title>{view ? `${view.handFirst} asks` : 'Ask'} · Solvenda</title></svelte:head>
<Problem words={one.problem || one.latest.problem} />
{#if view}
  <div class="flex w-full flex-1 flex-col gap-3 px-4 pt-3 pb-3 text-[13.5px] lg:px-5">
    <div class="flex flex-wrap items-start justify-between gap-x-6 gap-y-1">
      <div class="min-w-0 flex-1 basis-[560px]">
        <h1 class="font-serif text-[22px] leading-snug lg:text-[25px]">{view.sentence}</h1>
        <p class="mt-0.5 text-second">
          {view.yours} <em class="font-serif text-[16px] text-ink">“{view.why}”</em>
          <a class="font-mono text-[12px] whitespace-nowrap underline" href={view.path}>{view.number}</a>
          · asked {asked}{view.askedBy === view.hand ? '' : ` by ${view.askedBy}`}{view.urgent ? ', answer wanted today' : ''}{view.dueAt
            ? `, moves on ${day(view.dueAt)}`
            : ''}
        </p>
      </div>
      {#if view.place.waiting}
        <p class="text-second">
          {view.place.position || '–'} of {view.place.waiting}
          {#if view.place.next}<button class="ml-2" onclick={next}><KeyCap>J</KeyCap> next</button>{/if}
          {#if view.beside.filter((b) => b.mayBeGranted).length > 1}<button class="ml-2" onclick={() => together?.open()}><KeyCap>M</KeyCap> several</button
            >{/if}
        </p>
      {/if}
    </div>
    {#if view.question}
      <p class="border-l-[3px] border-ink bg-sheet px-3 py-2">
        {view.holders} asks: <em class="font-serif text-[16px]">“{view.question}”</em>
        {#if view.may.answer}<button class="btn ml-2 btn-primary btn-sm" onclick={() => talk?.open()}>Answer <KeyCap>Q</KeyCap></button>{/if}
      </p>
    {/if}
    <div class="grid gap-3 lg:grid-cols-[minmax(330px,1fr)_minmax(0,1.3fr)_minmax(240px,0.75fr)] lg:items-start">
      <section class="border border-hairline bg-sheet p-4" aria-label="figures against limits">
        <h2 class="mb-1 font-serif text-[17px] leading-snug">What is asked</h2>
        <Figures rulers={view.rulers} first={view.handFirst} />
        {#if view.rulers.length < view.fired.length}<p class="mt-1">{view.fired.join('; ')}.</p>{/if}
        {#if view.change.length}
          <table class="mt-2 w-full border-collapse">
            <thead class="text-left text-[11.5px] text-second">
              <tr class="border-b border-strong"
                ><th class="py-1 font-normal">on file</th><th class="px-2 font-normal">now</th><th class="font-normal">then</th></tr
              >
            </thead>
            <tbody>
              {#each view.change as change (change.label)}
                <tr class="border-b border-hairline align-top">
                  <td class="py-1.5 text-second">{change.label}</td>
                  <td class="px-2 py-1.5">{change.before || '–'}</td>
                  <td class="py-1.5 {change.money ? 'font-semibold' : ''}">{change.after || '–'}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        {/if}
        {#if view.lines.length}<div class="mt-3"><Lines lines={view.lines} more={view.more} /></div>
          <p class="mt-2">
            {view.costs ? `It costs ${fixed(view.costs, 2).replace('-', '\u2212')}; the whole still earns` : 'The whole earns'}
            <b>{fixed(view.earns, 2).replace('-', '\u2212')}</b>
            of {fixed(view.total, 2)}
            {view.currency}.
          </p>{/if}
        {#if view.sinceLast.length}
          <p class="mt-2"><b>Since the last round:</b> {view.sinceLast.join('; ')}.</p>
        {/if}
        {#if view.files.length}
          <p class="mt-2 text-second">
            with it: {#each view.files as file (file.id)}<a class="mr-2 text-ink underline" href="/api/files/{file.id}" target="_blank" rel="noreferrer"
                >{file.name}</a
              >{/each}
          </p>
        {/if}
        <div class="mt-2"><Said said={view.said} steps={view.steps} /></div>
      </section>
      <div class="grid gap-3">
        {#if view.credit}
          <section class="border border-hairline bg-sheet p-4" aria-label="what they owe">
            <h2 class="mb-1 font-serif text-[17px] leading-snug">What they owe <em class="text-second">{view.credit.currency}</em></h2>
            <Standing view={view.credit} />
          </section>
        {/if}
        {#each view.items as item (item.key)}<Item {item} currency={view.currency} />{/each}
      </div>
      <div class="grid gap-3">
        {#if view.ofBuyer.length}<Facts title={view.buyer} facts={view.ofBuyer} href="/records/buyers/{view.buyerId}" />{/if}
        <Facts title="{view.handFirst}, this quarter" facts={view.ofHand} />
        {#if view.instead.length && one.mine}
          <section class="border border-hairline bg-sheet p-4" aria-label="what would do">
            <h2 class="mb-1 font-serif text-[17px] leading-snug">What would do</h2>
            {#each view.instead as way, i (way.words)}
              <button class="flex w-full items-baseline gap-2 py-0.5 text-left" onclick={() => take(way.upTo)}
                ><KeyCap>{String(i + 1)}</KeyCap> {way.words}</button
              >
            {/each}
          </section>
        {/if}
      </div>
    </div>
    {#if one.mine}
      <div class="sticky bottom-0 mt-auto grid grid-cols-2 items-center gap-2 border-t border-hairline bg-ground py-2.5 sm:flex sm:flex-wrap">
        <button class="btn btn-primary max-sm:col-span-2 sm:min-w-40" disabled={one.busy} onclick={() => void one.grant()}
          >{view.may.handsOn ? 'Yes, hand it on' : `Grant ${one.only ? one.only.said : 'it'}`} <KeyCap>G</KeyCap></button
        >
        {#if one.figure && !view.may.handsOn}
          <form
            class="flex items-center gap-2 rounded-[3px] border border-ink px-3 py-1.5 max-sm:col-span-2 max-sm:justify-center"
            onsubmit={(e) => {
              e.preventDefault();
              void one.grantUpTo();
            }}
          >
            <button class="font-semibold" disabled={one.busy}>Grant up to</button>
            <input
              bind:this={upTo}
              bind:value={one.upTo}
              class="w-14 border-b border-dashed border-ink bg-transparent text-center"
              inputmode="decimal"
              aria-label="{one.figure.words}, granted up to"
            />
            <KeyCap>U</KeyCap>
          </form>
        {/if}
        {#if view.credit && !view.change.length}<span class="max-sm:col-span-2"
            ><span class="mr-1 text-second">until</span><DayField bind:value={one.until} label="granted until; a fortnight, unless you say" /></span
          >{/if}
        <button class="btn btn-outline" onclick={() => back?.open()}>Send back… <KeyCap>B</KeyCap></button>
        <button class="btn btn-outline" onclick={() => talk?.open()}>Ask something… <KeyCap>Q</KeyCap></button>
        {#if view.to.length}
          <div class="relative sm:ml-auto">
            {#if passing}
              <span class="text-second">pass on to</span>
              {#each view.to as to (to.id)}<button class="ml-2 underline" onclick={() => void one.passOn(to.id)}>{to.name}</button>{/each}
            {:else}<button class="text-second" onclick={() => (passing = true)}>pass on… <KeyCap>P</KeyCap></button>{/if}
          </div>
        {/if}
      </div>
    {:else}
      <p class="mt-auto flex items-center gap-3">
        <span
          >{{
            waiting: `${view.holders} has it.`,
            granted: view.upTo ? `Granted up to ${view.upTo}.` : 'Granted.',
            sentBack: 'Sent back.',
            withdrawn: 'Taken back.',
          }[view.outcome]}{view.note ? ` “${view.note}”` : ''}</span
        >
        {#if view.may.withdraw}<button class="btn btn-outline btn-sm" disabled={one.busy} onclick={() => void one.withdraw()}>Take it back</button>{/if}
      </p>
    {/if}
  </div>
  <SendBack bind:this={back} first={view.handFirst} lines={view.lines} take={one.sendBack} />
  <Together bind:this={together} asks={view.beside} take={one.grantAll} />
{/if}

<Words
  bind:this={talk}
  title={one.mine ? `Ask ${view?.askedBy ?? ''} something` : 'Answer'}
  says={one.mine ? 'Nothing is decided by it; it comes back to you with the answer.' : 'Whoever asked you reads it, and decides.'}
  label={one.mine ? 'what do you want to know?' : 'your answer'}
  button={one.mine ? 'Ask' : 'Answer'}
  take={one.talk}
/>
