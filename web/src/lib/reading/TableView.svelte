<script lang="ts">
  import type { Span } from './pieces';
  import { rowsOf, type Shown } from './parts';

  /** Rows of cells. What is evidence is lit both ways; the heads can be told what they mean. */
  interface Props {
    shown: Shown;
    spans: readonly Span[];
    lit: string | null;
    open: boolean;
    onlight: (of: string | null) => void;
    oncolumns: (row: number, columns: Record<number, string>) => void;
  }

  let { shown, spans, lit, open, onlight, oncolumns }: Props = $props();
  const MOST = 500;
  const meanings: Record<string, string> = {
    code: 'our code',
    buyersCode: 'their code',
    gtin: 'GTIN',
    words: 'what it is',
    quantity: 'how much',
    unit: 'unit',
    price: 'price',
    priceBase: 'price is for',
    discount: 'discount',
    amount: 'amount',
    wanted: 'wanted',
    note: 'note',
    number: 'line number',
  };
  const rows = $derived(rowsOf(shown.part));
  const width = $derived(Math.max(0, ...rows.slice(0, MOST).map((r) => r.length)));
  let saying = $state(false);
  let head = $state(0);
  let said = $state<Record<number, string>>({});
  // Spans by where they begin, so that a long table does not look through all of them for each cell.
  const sorted = $derived([...spans].sort((a, b) => a.start - b.start));
  const about = (cell: { start: number; length: number }) => sorted.filter((s) => s.start < cell.start + cell.length && s.start + s.length > cell.start);
</script>

<div class="overflow-x-auto">
  <table class="w-full border-collapse text-[13px]" aria-label={shown.part.name}>
    {#if saying}
      <thead>
        <tr
          ><th class="pr-2 text-left font-normal text-second"
            ><label
              >head is row <input
                class="w-10 border-b border-strong bg-transparent"
                type="number"
                min="1"
                max={rows.length}
                value={head + 1}
                oninput={(e) => (head = Number(e.currentTarget.value) - 1)}
                onkeydown={(e) => e.stopPropagation()}
              /></label
            ></th
          >
          {#each Array.from({ length: width }, (_, i) => i) as c (c)}
            <th class="font-normal"
              ><select
                class="w-full bg-transparent"
                aria-label="column {c + 1} means"
                value={said[c] ?? ''}
                onchange={(e) => (said = { ...said, [c]: e.currentTarget.value })}
                ><option value="">–</option>{#each Object.entries(meanings) as [value, words] (value)}<option {value}>{words}</option>{/each}</select
              ></th
            >
          {/each}</tr
        >
      </thead>
    {/if}
    <tbody>
      {#each rows.slice(0, MOST) as row, r (r)}
        {@const of = [...new Set(row.flatMap((c) => about(c).map((a) => a.of)))]}
        <tr
          class="border-b border-hairline {lit !== null && of.includes(lit) ? 'bg-(--hairline)' : ''} {saying && r === head ? 'font-semibold' : ''}"
          data-evidence={of.join(' ')}
          onmouseenter={() => onlight(of.find((o) => /^\d+$/.test(o)) ?? null)}
          onmouseleave={() => onlight(null)}
        >
          <td class="w-8 py-0.5 pr-2 text-right text-[11px] text-third">{r + 1}</td>
          {#each row as cell, c (c)}
            {@const here = about(cell)}
            <td class="max-w-64 px-1.5 py-0.5 align-top {/^[-\d.,\s]+$/.test(cell.text) ? 'text-right' : ''}"
              ><span
                data-start={cell.start}
                class="{here.length ? 'underline decoration-(--third) underline-offset-4' : ''} {here.some((a) => a.needsYou) ? 'needs' : ''}">{cell.text}</span
              ></td
            >
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
  {#if rows.length > MOST}<p class="py-2 text-second">{rows.length - MOST} more rows stand in the original.</p>{/if}
</div>
{#if open}
  <p class="mt-2 flex flex-wrap items-center gap-3">
    {#if saying}
      <button class="btn btn-outline btn-sm" onclick={() => ((saying = false), oncolumns(head, Object.fromEntries(Object.entries(said).filter(([, v]) => v))))}
        >Read it so</button
      >
      <button class="text-second underline" onclick={() => (saying = false)}>leave it</button>
      <span class="text-second">It is remembered for this sender's tables with the same heads.</span>
    {:else}<button class="underline decoration-strong" onclick={() => (saying = true)}>say what the columns mean…</button>{/if}
  </p>
{/if}
