<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { KeyCap, useKeys } from '$lib/keys';
  import { AskFor, OutlookState, Stepped } from '$lib/planning';
  import { usePulse } from '$lib/pulse';
  import { day, Mark, plain, Problem } from '$lib/shared';

  const outlook = new OutlookState();
  const view = $derived(outlook.view);
  const item = $derived(Number(page.params.id));
  const warehouse = $derived(page.url.searchParams.get('warehouse') ?? undefined);
  let form = $state<AskFor>();
  let body = $state<HTMLElement>();

  // Meets the server, for each item and warehouse anew.
  $effect(() => void outlook.begin(item, warehouse));
  usePulse(
    () => true,
    () => void outlook.load(),
    5_000,
  );

  function go(step: number) {
    outlook.go(step);
    body?.querySelectorAll<HTMLElement>('[data-wait]')[outlook.at]?.querySelector('a')?.focus();
  }
  const other = (name: string) => void goto(`/planning/${item}?warehouse=${encodeURIComponent(name)}`);

  useKeys(() => [
    { key: 'j', words: 'next', run: () => go(1) },
    { key: 'k', words: 'before', run: () => go(-1) },
    { key: 'ArrowDown', words: 'next', run: () => go(1) },
    { key: 'ArrowUp', words: 'before', run: () => go(-1) },
    ...(view?.mayPlan
      ? [
          ...(outlook.chosen?.reliefs ?? []).map((r, i) => ({
            key: String(i + 1),
            words: r.words,
            run: () => outlook.chosen && void outlook.take(outlook.chosen.commitment, r),
          })),
          { key: 'b', words: 'ask for more', run: () => void form?.open('more') },
          { key: 'c', words: 'count what lies there', run: () => void form?.open('counted') },
        ]
      : []),
    {
      key: 'w',
      words: 'the other warehouse',
      run: () => view && other(view.warehouses[(view.warehouses.indexOf(view.warehouse) + 1) % view.warehouses.length]!),
    },
    { key: 'u', words: 'the whole planning', run: () => void goto('/planning') },
  ]);
</script>

<svelte:head><title>{view ? `${view.code} · ` : ''}Outlook · Solvenda</title></svelte:head>
<Problem words={outlook.problem || outlook.latest.problem} onclose={() => (outlook.problem = '')} />
{#if view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
    <div class="flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-2">
      <h1 class="min-w-0 truncate font-serif text-[24px]">
        <a class="hover:underline" href="/records/items/{view.item}">{view.code}</a> <em class="text-second">{view.words}</em>
      </h1>
      <span role="group" aria-label="warehouse" class="flex gap-3">
        {#each view.warehouses as name (name)}
          <button
            class={name === view.warehouse ? 'border-b-2 border-ink font-semibold' : 'border-b-2 border-transparent text-second'}
            aria-pressed={name === view.warehouse}
            onclick={() => other(name)}>{name}</button
          >
        {/each}
      </span>
      <p class="ml-auto sm:whitespace-nowrap">
        on hand <b>{plain(view.row.onHand)} {view.unit}</b> · promised {plain(view.row.days.reduce((a, b) => a + b, 0))} · comes {plain(view.row.comes)}
        {#if view.row.shortFrom}<span class={view.row.late ? 'needs' : 'text-stop'}>short from {day(view.row.shortFrom)}, by {plain(view.row.shortBy)}</span
          >{/if}
      </p>
    </div>
    <div class="min-h-0 flex-1 overflow-y-auto">
      <Stepped outlook={view} />
      <p class="mt-3 flex justify-between border-b border-strong pb-1 text-[11.5px] text-second">
        <span>who waits for it, in their turn</span><span>gets, and when</span>
      </p>
      <div bind:this={body}>
        {#each view.waits as w, i (w.commitment)}
          <div
            data-wait
            class="border-b border-hairline {i === outlook.at ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''}"
            aria-current={i === outlook.at ? 'true' : undefined}
          >
            <div class="grid grid-cols-[80px_110px_minmax(0,1fr)_110px_170px] gap-3 px-2 py-1.5 max-sm:grid-cols-[64px_1fr_1fr]">
              <span>{day(w.day)}</span>
              <a class="font-mono text-[12.5px] hover:underline" href="/orders/{w.order}">{w.order}</a>
              <span class="truncate max-sm:hidden"
                >{w.buyer}
                <span class="text-second"
                  >{w.wanted ? `wanted ${day(w.wanted)}` : ''}{w.promised ? `, promised ${day(w.promised)}` : ''}{w.note ? `, ${w.note}` : ''}</span
                ></span
              >
              <span class="text-right">{plain(w.quantity)} {view.unit}</span>
              <span class="text-right max-sm:col-span-3">
                {#if w.kept < w.quantity}<span class="text-stop"
                    ><Mark outcome="stop" /> {plain(w.kept)}{w.later ? `, the rest ${day(w.later)}` : ', no day for the rest'}</span
                  >
                {:else if w.toBeHad}<span class="text-notice"><Mark outcome="notice" /> {plain(w.toBeHad)} to be had by then</span>
                {:else}<span><Mark outcome="clear" /> kept</span>{/if}
              </span>
            </div>
            {#if i === outlook.at && w.reliefs.length && view.mayPlan}
              <p class="flex flex-wrap gap-x-5 gap-y-1 px-2 pb-2 sm:pl-[206px]">
                {#each w.reliefs as r, n (r.sign)}
                  <button class="text-left" onclick={() => void outlook.take(w.commitment, r)}
                    ><KeyCap>{n + 1}</KeyCap> {r.words} <span class={r.hurts ? 'text-stop' : 'text-second'}>{r.effect}</span></button
                  >
                {/each}
              </p>
            {/if}
          </div>
        {:else}<p class="py-3 text-second">Nobody waits for it here.</p>{/each}
        {#each view.offered as o (o.order)}
          <div
            class="grid grid-cols-[80px_110px_minmax(0,1fr)_110px_170px] gap-3 border-b border-hairline px-2 py-1.5 text-second max-sm:grid-cols-[64px_1fr_1fr]"
          >
            <span>{day(o.day)}</span><a class="font-mono text-[12.5px] hover:underline" href="/quotes/{o.order}">{o.order}</a><span class="truncate"
              >{o.words}, offered until then</span
            ><span class="text-right">{plain(o.quantity)} {view.unit}</span>
          </div>
        {/each}
      </div>
    </div>
    <footer class="border-t border-strong py-3">
      <AskFor bind:this={form} state={outlook} />
      <div class="flex flex-wrap items-center gap-4">
        {#if view.mayPlan}
          <button class="btn btn-sm {view.row.propose ? 'btn-primary' : 'btn-outline'}" onclick={() => void form?.open('more')}
            >Ask for {view.row.propose ? `${plain(view.row.propose)} ${view.unit} more` : 'more'}… <KeyCap>B</KeyCap></button
          >
          <button class="btn btn-outline btn-sm" onclick={() => void form?.open('counted')}>Count it… <KeyCap>C</KeyCap></button>
        {/if}
        <span class="text-second" role="status">{outlook.done || (view.wouldMove ? `${view.wouldMove} would move if all were promised anew` : '')}</span>
        <a class="ml-auto" href="/planning"><KeyCap>U</KeyCap> the whole planning</a>
      </div>
    </footer>
  </div>
{/if}
