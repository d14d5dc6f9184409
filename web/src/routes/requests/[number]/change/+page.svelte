<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { KeyCap, useKeys } from '$lib/keys';
  import { ChangeState } from '$lib/reading';
  import { useSession } from '$lib/session';
  import { day, documentPath, fixed, Mark, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const session = useSession();
  const change = new ChangeState();
  const view = $derived(change.view);
  const number = $derived(page.params.number ?? '');
  const may = $derived((session.person?.mayWrite ?? false) && !!view && view.mayTake === '');
  let refusing = $state<Words>();

  // Meets the server, for each request and order anew.
  $effect(() => void change.load(number, page.url.searchParams.get('order') ?? undefined));

  async function take() {
    const made = await change.take();
    if (made) await goto(documentPath(made));
  }
  async function refuse(reason: string) {
    await change.refuse(reason);
    await goto(`/requests/${number}`);
  }
  const more = $derived(view ? view.becomes - view.total : 0);

  useKeys(() => [
    { key: 'ArrowDown', words: 'next line', run: () => change.go(1) },
    { key: 'ArrowUp', words: 'line before', run: () => change.go(-1) },
    { key: 'j', words: 'next line', run: () => change.go(1) },
    { key: 'k', words: 'line before', run: () => change.go(-1) },
    ...(may
      ? [
          ...(view?.whole ? [] : [{ key: 'n', words: 'take this line, or not', run: () => change.toggle() }]),
          ...(change.nothing ? [] : [{ key: 'Enter', words: 'take it so', run: () => void take() }]),
          ...(view?.whole ? [] : [{ key: 'a', words: 'take all of it', run: change.all }]),
          { key: 'x', words: 'not so: tell them why', run: () => refusing?.open() },
        ]
      : []),
    { key: 'u', words: 'their message', run: () => void goto(`/requests/${number}`) },
  ]);
</script>

<svelte:head><title>{number}, a change · Solvenda</title></svelte:head>
<Problem words={change.problem || change.latest.problem} onclose={() => (change.problem = '')} />
{#if view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
    <div class="flex flex-wrap items-end justify-between gap-2 pb-2.5">
      <div class="min-w-0">
        <h1 class="font-serif text-[25px] leading-tight">
          {view.buyer} <em class="text-second">{view.whole ? 'takes their order back' : 'changes their order'}</em>
        </h1>
        <p class="text-second">
          <a class="font-mono text-[12px] text-ink underline" href="/orders/{view.order}">{view.order}</a>{view.confirmedAt
            ? ` confirmed ${day(view.confirmedAt)}`
            : ''} · their change
          <a class="font-mono text-[12px] text-ink underline" href="/requests/{number}">{number}</a>{view.poNumber ? `, to PO ${view.poNumber}` : ''}
          {#each view.orders.filter((o) => o !== view.order) as o (o)}
            · or is it <a class="font-mono text-[12px] underline" href="/requests/{number}/change?order={o}">{o}</a>?{/each}
        </p>
      </div>
      {#if !view.whole}<p class="text-right">
          <span class="block text-[11.5px] text-second">all of it taken it would become</span>
          <span class="font-serif text-[24px]">{fixed(view.becomes, 2)}</span> <span class="text-second">{view.currency}</span>{#if more}<span
              class="text-second">, {fixed(Math.abs(more), 2)} {more < 0 ? 'less' : 'more'}</span
            >{/if}
        </p>{/if}
    </div>
    <div class="min-h-0 flex-1 overflow-auto">
      <table class="w-full min-w-[860px] border-collapse border border-hairline bg-sheet">
        <thead class="text-left text-[11.5px] text-second">
          <tr class="border-b border-hairline"
            ><th class="w-10 py-2 pl-3 font-normal"></th><th class="font-normal">what</th><th class="w-56 font-normal"
              >{view.confirmedAt ? 'we confirmed' : 'it stands'}</th
            ><th class="w-56 font-normal">they want</th><th class="w-[360px] pr-3 font-normal">taken</th></tr
          >
        </thead>
        <tbody>
          {#each view.lines as l, i (i)}
            <tr
              class="border-b border-hairline align-top {i === change.at ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
              onclick={() => (change.at = i)}
            >
              <td class="py-2.5 pl-3 text-second">{l.number || (l.kind === 'new' ? 'new' : '')}</td>
              <td class="py-2.5 pr-3"
                >{#if l.code}<span class="font-mono text-[12px]">{l.code}</span>{/if}
                {l.words}</td
              >
              <td class="py-2.5 pr-3 text-second">{l.confirmed}</td>
              <td class="py-2.5 pr-3">
                {#if l.kind === 'gone'}<b>none</b>
                {:else if l.kind === 'same'}<span class="text-second">{l.no === null ? '' : 'the same'}</span>
                {:else}<span class={l.outcome === 'clear' ? 'font-semibold' : 'needs'}>{l.wanted}</span>{/if}
              </td>
              <td class="py-2.5 pr-3">
                {#if l.no === null || l.kind === 'same'}<span class="text-second">{l.effect}</span>
                {:else}
                  <label class="flex items-baseline gap-2">
                    <input
                      class="accent-ink"
                      type="checkbox"
                      checked={change.is(l)}
                      disabled={!may}
                      onchange={() => change.toggle(l)}
                      aria-label="take {l.words}"
                    />
                    {#if change.is(l)}<span class={l.outcome === 'stop' ? 'text-stop' : l.outcome === 'notice' ? 'text-notice' : ''}
                        ><Mark outcome={l.outcome} /> {l.effect}</span
                      >
                    {:else}<span class="text-second">no, as confirmed</span>{/if}
                  </label>
                {/if}
              </td>
            </tr>
          {/each}
          {#if view.day}
            <tr class="border-b border-hairline align-top">
              <td></td><td class="py-2.5">the day for the whole</td><td class="py-2.5 text-second">{view.dayBefore ? day(view.dayBefore) : 'none said'}</td><td
                class="py-2.5 font-semibold">{day(view.day)}</td
              ><td class="py-2.5"
                ><label class="flex items-baseline gap-2"
                  ><input class="accent-ink" type="checkbox" bind:checked={change.day} disabled={!may} />
                  {change.day ? 'as they want' : 'no, as confirmed'}</label
                ></td
              >
            </tr>
          {/if}
        </tbody>
      </table>
      <div class="mt-5 grid gap-6 sm:grid-cols-2">
        <section>
          <h2 class="border-b border-strong pb-1 text-[11.5px] text-second">what all of it does</h2>
          {#each view.does as words (words)}<p class="py-1">{words}</p>{:else}<p class="py-1 text-second">Nothing that stops it.</p>{/each}
        </section>
        <section>
          <h2 class="border-b border-strong pb-1 text-[11.5px] text-second">what they are told</h2>
          <p class="py-1">{view.whole ? 'that it is cancelled, by mail' : view.told}</p>
        </section>
      </div>
    </div>
    <footer class="flex flex-wrap items-center gap-3 py-3">
      {#if may}
        <button class="btn btn-primary btn-sm" disabled={change.nothing} onclick={() => void take()}
          >{view.whole ? `Cancel ${view.order}` : change.left.length ? `Take ${change.taken.length} of ${change.wishes.length}` : 'Take it so'}
          <KeyCap>Enter</KeyCap></button
        >
        {#if !view.whole}<button class="btn btn-outline btn-sm" onclick={change.all}>Take all of it <KeyCap>A</KeyCap></button>{/if}
        <button class="btn btn-outline btn-sm" onclick={() => refusing?.open()}>Not so… <KeyCap>X</KeyCap></button>
      {:else}<span class={view.mayTake ? 'text-stop' : 'text-second'}>{view.mayTake || 'The order desk and sellers take it.'}</span>{/if}
      <span class="ml-auto text-second">what was confirmed is kept as a version; nothing goes out before you confirm</span>
    </footer>
  </div>
{/if}

<Words
  bind:this={refusing}
  title="Do not take it?"
  says="The order stays as it is confirmed, and they get a letter with what you write here."
  label="why, as they read it"
  button="Tell them"
  take={refuse}
/>
