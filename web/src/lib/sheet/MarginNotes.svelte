<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { day, fixed, plain } from '$lib/shared';
  import type { SheetState } from './sheet.svelte';

  let { sheet }: { sheet: SheetState } = $props();
  let found = $state.raw<{ line: string; notes: Schemas['MarginNotes'] } | null>(null);
  const key = $derived(sheet.focused?.kind === 'item' ? sheet.focused.key : null);
  const here = $derived(`${sheet.view.id}/${key}/${sheet.focused?.code}`);
  // What came for another line stands under none.
  const notes = $derived(found?.line === here ? found.notes : null);
  const about = $derived(`${sheet.view.id}/${key}/${sheet.focused?.code}/${sheet.focused?.quantity}/${sheet.focused?.unit}`);

  // Meets the server, a moment after the focus came to rest on a line.
  $effect(() => {
    if (!about || key === null) return;
    const [line, asked] = [key, here];
    let overtaken = false;
    const timer = setTimeout(() => {
      ask(api.GET('/api/sheets/{id}/lines/{key}/notes', { params: { path: { id: sheet.view.id, key: line } } })).then(
        (notes) => !overtaken && (found = { line: asked, notes }),
        () => !overtaken && (found = null),
      );
    }, 120);
    return () => {
      overtaken = true;
      clearTimeout(timer);
    };
  });
</script>

<aside class="w-52 shrink-0 border-l border-dashed border-strong px-3.5 py-4 max-lg:hidden" aria-label="notes to the focused line">
  {#if notes && sheet.focused}
    <h2 class="font-semibold">{sheet.focused.code ?? 'This line'}, this buyer</h2>
    {#each notes.toThisBuyer as sale, i (i)}
      <div class="grid grid-cols-[1fr_auto_auto] gap-3 text-second" title={sale.document}>
        <span>{day(sale.day)}</span><span>{plain(sale.quantity)} {sale.unitWord}</span><span class="text-right">{sale.currency} {fixed(sale.netPrice, 4)}</span>
      </div>
    {:else}
      <p class="text-second">never bought it</p>
    {/each}
    {#if notes.freeNow !== null}
      <h2 class="mt-3 font-semibold">Stock</h2>
      <p class="text-second">
        {plain(notes.freeNow)}
        {notes.unitWord} free here{#if notes.nextIncoming}; {plain(notes.nextIncomingQuantity ?? 0)} {notes.unitWord} more on {day(notes.nextIncoming)}{/if}
      </p>
    {/if}
    {#if notes.break}
      <h2 class="mt-3 font-semibold">From {plain(notes.break.from)} {notes.break.unitWord}</h2>
      <p class="text-second">{fixed(notes.break.price, 4)} {sheet.focused.unitWord ? `per ${sheet.focused.unitWord}` : 'each'}</p>
    {/if}
    {#if notes.theyWrote}
      <h2 class="mt-3 font-semibold">They asked for</h2>
      <p class="font-serif text-[15px] leading-snug text-second italic">“{notes.theyWrote}”</p>
    {/if}
  {/if}
</aside>
