<script lang="ts">
  import type { Schemas } from '$lib/api';
  import EntryRow from './EntryRow.svelte';
  import LineRow from './LineRow.svelte';
  import MarginNotes from './MarginNotes.svelte';
  import type { SheetState } from './sheet.svelte';

  interface Props {
    sheet: SheetState;
    oncure: (cure: Schemas['CureView'], finding: Schemas['FindingView']) => void;
    onwaive: (finding: Schemas['FindingView']) => void;
  }

  let { sheet, oncure, onwaive }: Props = $props();
  const lines = $derived(sheet.view.lines);
  const theirs = $derived(lines.some((l) => l.asked?.priceInOurs != null));
  const numbers = $derived.by(() => {
    let n = 0;
    return lines.map((l) => (l.kind === 'heading' ? 0 : ++n));
  });
  // The sum under each heading, of server figures that are rounded already.
  const sums = $derived(
    lines.map((l, at) => {
      if (l.kind !== 'heading') return 0;
      const end = lines.findIndex((x, i) => i > at && x.kind === 'heading');
      return lines.slice(at + 1, end < 0 ? undefined : end).reduce((sum, x) => sum + (x.optional ? 0 : x.net), 0);
    }),
  );
</script>

{#if sheet.said}
  <p class="mb-2 border border-hairline bg-sheet px-3 py-1.5" role="status">
    {sheet.said} <button class="ml-2 underline" onclick={() => (sheet.said = '')}>seen</button>
  </p>
{/if}
<section class="flex min-h-0 flex-1 border border-hairline bg-sheet" aria-label="sheet" data-sheet>
  <div class="min-w-0 flex-1 overflow-auto">
    <table class="w-full border-collapse max-sm:block">
      <thead class="max-sm:sr-only">
        <tr class="sticky top-0 z-10 bg-sheet text-[11.5px] text-second">
          <th class="w-7 border-b border-(--strong)"><span class="sr-only">check</span></th>
          <th class="w-8 border-b border-(--strong)"><span class="sr-only">line</span></th>
          <th class="border-b border-(--strong) py-1.5 pl-3 text-left font-normal">what</th>
          <th class="w-20 border-b border-(--strong) text-right font-normal">quantity</th>
          <th class="w-24 border-b border-(--strong) text-right font-normal max-sm:hidden">price</th>
          <th class="w-16 border-b border-(--strong) text-right font-normal max-sm:hidden">less</th>
          <th class="w-[130px] border-b border-(--strong) pl-3 text-left font-normal max-md:hidden">cost · floor · list</th>
          <th class="border-b border-(--strong) text-right font-normal {theirs ? 'w-24' : 'w-0'} max-md:hidden"
            >{#if theirs}theirs{:else}<span class="sr-only">their price</span>{/if}</th
          >
          <th class="w-24 border-b border-(--strong) pr-3 text-right font-normal">{sheet.view.currency}</th>
          <th class="w-20 border-b border-(--strong) pr-3 text-right font-normal max-md:hidden">there by</th>
        </tr>
      </thead>
      <tbody class="max-sm:block">
        {#each lines as line, i (line.key)}
          <LineRow {sheet} {line} number={numbers[i]!} sum={sums[i]!} {oncure} {onwaive} />
        {/each}
        {#if sheet.editable}<EntryRow {sheet} number={numbers.reduce((a, b) => Math.max(a, b), 0) + 1} />{/if}
      </tbody>
    </table>
    {#if lines.length === 0}
      <p class="p-6 text-second">Nothing on it yet. Type an item’s code or a few words of its name, a quantity, and Enter; or paste rows from a spreadsheet.</p>
    {/if}
  </div>
  <MarginNotes {sheet} />
</section>
