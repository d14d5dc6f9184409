<script lang="ts">
  import { useKeys } from '$lib/keys';
  import { day, documentPath, fixed, plain } from '$lib/shared';
  import { KeyCap } from '$lib/keys';
  import type { LineNotes } from './notes.svelte';
  import type { SheetState } from './sheet.svelte';
  import OtherWays from './OtherWays.svelte';
  import WhatItTakes from './WhatItTakes.svelte';

  let { sheet, notes: of }: { sheet: SheetState; notes: LineNotes } = $props();
  const notes = $derived(of.now);
  const line = $derived(sheet.focused);
  const d = $derived(sheet.view.decimals);
  const here = $derived(line?.says.shipFrom ?? sheet.terms['shipFrom']?.value ?? '');
  const stock = $derived((notes?.stock ?? []).toSorted((a, b) => Number(b.warehouse === here) - Number(a.warehouse === here)));
  let moves = $state(false);
  let ways = $state(false);
  const mayGo = $derived(sheet.editable && line?.kind === 'item' && !!line.code && !line.isService);

  useKeys(() => [
    { key: 'v', words: 'what moved and will move of the item', run: () => (moves = !moves) },
    ...(sheet.editable ? [{ key: 't', words: 'what would it take', run: () => (sheet.reaching = true) }] : []),
    ...(mayGo ? [{ key: 'e', words: 'other ways to deliver it', run: () => (ways = !ways) }] : []),
    ...(sheet.editable ? (notes?.cheaper ?? []) : []).map((c, i) => ({
      key: String(i + 1),
      words: `take ${c.words} instead`,
      run: () => line && void sheet.set(line.key, c.field, c.value),
    })),
  ]);
</script>

<aside
  class="w-60 shrink-0 overflow-y-auto border-l border-dashed border-strong px-3.5 py-4 {sheet.reaching
    ? 'max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:z-30 max-lg:max-h-[60vh] max-lg:w-auto max-lg:border-t max-lg:border-l-0 max-lg:bg-sheet'
    : 'max-lg:hidden'}"
  aria-label="notes to the focused line"
>
  {#if sheet.reaching}
    <WhatItTakes {sheet} />
  {:else if sheet.editable}
    <p class="mb-3 text-second"><button class="hover:underline" onclick={() => (sheet.reaching = true)}>what would it take <KeyCap>T</KeyCap></button></p>
  {/if}
  {#if mayGo && line && ways}<OtherWays {sheet} key={line.key} onclose={() => (ways = false)} />
  {:else if mayGo}<p class="mb-3 text-second">
      <button class="hover:underline" onclick={() => (ways = true)}>other ways to deliver it <KeyCap>E</KeyCap></button>
    </p>{/if}
  {#if notes && line}
    <h2 class="font-semibold">{line.code ?? 'This line'}, this buyer</h2>
    {#each notes.toThisBuyer as sale, i (i)}
      <div class="grid grid-cols-[1fr_auto_auto] gap-3 text-second" title={sale.document}>
        <span>{day(sale.day)}</span><span>{plain(sale.quantity)} {sale.unitWord}</span><span class="text-right">{sale.currency} {fixed(sale.netPrice, 4)}</span>
      </div>
    {:else}
      <p class="text-second">{line.code ? 'never bought it' : ''}</p>
    {/each}
    {#if stock.length}
      <h2 class="mt-3 font-semibold">Stock</h2>
      {#each stock as w (w.warehouse)}
        <div class="grid grid-cols-[1fr_auto] gap-3 text-second">
          <span class={w.warehouse === here ? 'text-ink' : ''}>{w.warehouse}</span><span>{plain(w.free)} {notes.unitWord} free</span>
        </div>
      {/each}
      {#each notes.ahead.slice(0, moves ? 40 : 2) as ahead, i (i)}
        <div class="grid min-h-6 grid-cols-[56px_1fr_auto] items-center gap-2 text-second">
          <span>{day(ahead.day)}</span>
          <span class="truncate" title={ahead.words}
            >{#if ahead.order}<a class="block min-h-6 truncate leading-6 underline" href={documentPath({ kind: 'order', number: ahead.order })}>{ahead.words}</a
              >{:else}{ahead.words}{/if}</span
          >
          <span class={ahead.quantity < 0 ? '' : 'text-clear'}>{ahead.quantity > 0 ? '+' : ''}{plain(ahead.quantity)}</span>
        </div>
      {/each}
      {#if moves}
        {#each notes.toOthers as sale, i (i)}
          <div class="grid grid-cols-[56px_1fr_auto] gap-2 text-second">
            <span>{day(sale.day)}</span><span class="truncate" title={sale.buyer}>{sale.buyer}</span><span>{plain(-sale.quantity)}</span>
          </div>
        {/each}
      {/if}
      {#if notes.ahead.length > 2 || notes.toOthers.length}
        <button class="text-second hover:underline" aria-expanded={moves} onclick={() => (moves = !moves)}
          >{moves ? 'less' : 'all that moves'} <KeyCap>V</KeyCap></button
        >
      {/if}
    {/if}
    {#if notes.break}
      <h2 class="mt-3 font-semibold">From {plain(notes.break.from)} {notes.break.unitWord}</h2>
      <p class="text-second">
        {fixed(notes.break.price, 4)} each; so many come to {fixed(Math.abs(notes.break.moreInAll), d)}
        {notes.break.moreInAll < 0 ? 'less' : 'more'} than the line does
      </p>
    {/if}
    {#if notes.cheaper.length}
      <h2 class="mt-3 font-semibold">Cheaper, in stock</h2>
      {#each notes.cheaper as c, i (c.value)}
        <p class="text-second">
          {#if sheet.editable}
            <button class="min-h-6 text-left" onclick={() => void sheet.set(line.key, c.field, c.value)}>
              <KeyCap>{i + 1}</KeyCap>
              {c.words}: {fixed(c.saves, d)} less
            </button>
          {:else}{c.words}: {fixed(c.saves, d)} less{/if}
        </p>
      {/each}
    {/if}
    {#if notes.theyWrote}
      <h2 class="mt-3 font-semibold">They asked for</h2>
      <p class="font-serif text-[15px] leading-snug text-second italic">“{notes.theyWrote}”</p>
    {/if}
  {/if}
</aside>
