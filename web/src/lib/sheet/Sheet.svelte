<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { useKeys } from '$lib/keys';
  import { moreColumns } from './columns';
  import EntryRow from './EntryRow.svelte';
  import Find from './Find.svelte';
  import LineRow from './LineRow.svelte';
  import MarginNotes from './MarginNotes.svelte';
  import { LineNotes } from './notes.svelte';
  import Picked from './Picked.svelte';
  import type { SheetState } from './sheet.svelte';
  import Sources from './Sources.svelte';
  import { drawn } from './window';
  import Words from './Words.svelte';

  interface Props {
    sheet: SheetState;
    /** Others who have it open, with the line that they are on. */
    others?: readonly { name: string; line: number | null }[];
    oncure: (cure: Schemas['CureView'], finding: Schemas['FindingView']) => void;
    onwaive: (finding: Schemas['FindingView']) => void;
  }

  let { sheet, others = [], oncure, onwaive }: Props = $props();
  const lines = $derived(sheet.view.lines);
  const theirs = $derived(lines.some((l) => l.asked?.priceInOurs != null));
  const more = $derived(moreColumns(sheet.chosen));
  const next = $derived(1 + lines.reduce((last, l) => Math.max(last, parseInt(l.number) || 0), 0));
  // svelte-ignore state_referenced_locally
  const notes = new LineNotes(sheet);
  let finding = $state(false);
  let sources = $state<Sources>();
  let keep = $state<Words>();
  let forAll = $state(false);

  const ROW = 31;
  // So many rows are drawn whole; a longer sheet is drawn as far as it is seen.
  const WHOLE = 60;
  let top = $state(0);
  let height = $state(600);
  let width = $state(1280);
  const window = $derived(
    lines.length <= WHOLE || width < 640
      ? { rows: lines.map((_, at) => ({ at, gap: 0 })), rest: 0 }
      : drawn(lines.length, top, height, ROW, [lines.findIndex((l) => l.key === sheet.line)]),
  );

  const nobody: readonly string[] = [];
  const at = (key: number) => (others.some((o) => o.line === key) ? others.filter((o) => o.line === key).map((o) => o.name) : nobody);

  useKeys(() => [
    { key: 'Ctrl+f', words: 'find in the sheet', run: () => (finding = true) },
    ...(sheet.editable
      ? [
          { key: 'x', words: 'pick the line, Shift with an arrow picks on', run: sheet.pick },
          { key: 'Ctrl+a', words: 'pick all lines', run: sheet.pickAll },
          { key: 'o', words: 'an alternative to the line above', run: sheet.toggleAlternative },
          { key: '.', words: 'what else the line says', run: () => (sheet.saying = !sheet.saying) },
          { key: 'g', words: 'lines from elsewhere', run: () => sources?.open() },
        ]
      : []),
    ...(sheet.picks.length ? [{ key: 'Escape', words: 'let the picked lines go', run: () => sheet.picked.clear() }] : []),
  ]);
</script>

{#if sheet.said}
  <p class="mb-2 border border-hairline bg-sheet px-3 py-1.5" role="status">
    {sheet.said} <button class="ml-2 underline" onclick={() => (sheet.said = '')}>seen</button>
  </p>
{/if}
{#if finding}<Find {sheet} onclose={() => (finding = false)} />{/if}
<section class="flex min-h-0 flex-1 border border-hairline bg-sheet" aria-label="sheet" data-sheet bind:clientWidth={width}>
  <div class="min-w-0 flex-1 overflow-auto" bind:clientHeight={height} onscroll={(e) => (top = e.currentTarget.scrollTop)}>
    <table
      class="w-full table-fixed border-collapse max-sm:block"
      style:min-width={width < 700 ? undefined : `${810 + 80 * (more.length + (theirs ? 1 : 0))}px`}
      aria-rowcount={lines.length}
    >
      <thead class="max-sm:sr-only">
        <tr class="sticky top-0 z-10 bg-sheet text-[11.5px] text-second">
          <th class="w-7 border-b border-(--strong)"><span class="sr-only">check</span></th>
          <th class="w-9 border-b border-(--strong)"><span class="sr-only">line</span></th>
          <th class="border-b border-(--strong) py-1.5 pl-3 text-left font-normal">what</th>
          <th class="w-20 border-b border-(--strong) text-right font-normal">quantity</th>
          <th class="w-24 border-b border-(--strong) text-right font-normal max-sm:hidden">price</th>
          <th class="w-16 border-b border-(--strong) text-right font-normal max-sm:hidden">less</th>
          <th class="w-[130px] border-b border-(--strong) pl-3 text-left font-normal max-md:hidden">cost · floor · list</th>
          {#each more as column (column.name)}<th class="w-20 border-b border-(--strong) pl-3 text-right font-normal max-md:hidden">{column.name}</th>{/each}
          <th class="border-b border-(--strong) text-right font-normal {theirs ? 'w-24' : 'w-0'} max-md:hidden"
            >{#if theirs}theirs{:else}<span class="sr-only">their price</span>{/if}</th
          >
          <th class="w-24 border-b border-(--strong) pr-3 text-right font-normal">{sheet.view.currency}</th>
          <th class="w-20 border-b border-(--strong) pr-3 text-right font-normal max-md:hidden">there by</th>
        </tr>
      </thead>
      <tbody class="max-sm:block">
        {#each window.rows as { at: place, gap } (lines[place]!.key)}
          {#if gap}<tr aria-hidden="true"><td style="height:{gap}px" class="p-0"></td></tr>{/if}
          <LineRow {sheet} {notes} {more} line={lines[place]!} others={at(lines[place]!.key)} {oncure} {onwaive} />
        {/each}
        {#if window.rest}<tr aria-hidden="true"><td style="height:{window.rest}px" class="p-0"></td></tr>{/if}
        {#if sheet.editable}<EntryRow {sheet} number={next} columns={8 + more.length} />{/if}
      </tbody>
    </table>
    {#if lines.length === 0}
      <p class="p-6 text-second">
        Nothing on it yet. Type an item’s code or a few words of its name, a quantity, and Enter; or paste rows from a spreadsheet; or take lines from
        <button class="underline" onclick={() => sources?.open()}>elsewhere</button>.
      </p>
    {/if}
  </div>
  <MarginNotes {sheet} {notes} />
</section>
{#if sheet.picks.length && sheet.editable}<Picked {sheet} onkeep={(all) => ((forAll = all), keep?.open())} />{/if}
<Sources bind:this={sources} {sheet} />
<Words
  bind:this={keep}
  title="Keep these lines"
  says="As an assortment {forAll ? 'of the house, for everybody' : 'of yours'}, to be put on other sheets: items and quantities, without prices."
  label="by which name?"
  button="Keep"
  take={(name) => sheet.keep(name, forAll)}
/>
