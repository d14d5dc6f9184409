<script lang="ts" generics="Row">
  import type { Snippet } from 'svelte';
  import { goto } from '$app/navigation';
  import { useKeys } from '$lib/keys';
  import type { Column } from './types';

  interface Props {
    /** What the list holds, for those who do not see it. */
    label: string;
    columns: readonly Column<Row>[];
    rows: readonly Row[];
    /** Where a row opens. */
    path: (row: Row) => string;
    key: (row: Row) => string;
    /** Draws one cell. */
    cell: Snippet<[Row, Column<Row>]>;
    /** What will come here, and how to begin. */
    empty: string;
  }

  let { label, columns, rows, path, key, cell, empty }: Props = $props();
  // Which one is chosen is remembered by its key: the list moves by itself.
  let focused = $state<string | null>(null);
  let sortBy = $state<string | null>(null);
  let down = $state(false);
  let shown = $state(120);
  let body = $state<HTMLElement>();

  const sorted = $derived.by(() => {
    const column = columns.find((c) => c.id === sortBy);
    if (!column?.sort) return rows;
    const by = column.sort;
    return [...rows].sort((a, b) => {
      const [x, y] = [by(a), by(b)];
      return (x < y ? -1 : x > y ? 1 : 0) * (down ? -1 : 1);
    });
  });
  // Rows are drawn as far as somebody has gone, so that long lists open at once.
  const drawn = $derived(sorted.slice(0, shown));

  const at = $derived(
    Math.max(
      0,
      sorted.findIndex((r) => key(r) === focused),
    ),
  );

  function go(step: number) {
    const to = Math.min(Math.max(0, at + step), sorted.length - 1);
    const row = sorted[to];
    if (row !== undefined) focused = key(row);
    if (to > shown - 20) shown += 120;
    body?.querySelectorAll('tr')[to]?.scrollIntoView({ block: 'nearest' });
  }

  function open() {
    const row = sorted[at];
    if (row !== undefined) void goto(path(row));
  }

  useKeys(() => [
    { key: 'j', words: 'next row', run: () => go(1) },
    { key: 'k', words: 'row before', run: () => go(-1) },
    { key: 'ArrowDown', words: 'next row', run: () => go(1) },
    { key: 'ArrowUp', words: 'row before', run: () => go(-1) },
    { key: 'Enter', words: 'open', run: open },
  ]);

  function sort(column: Column<Row>) {
    if (!column.sort) return;
    if (sortBy === column.id) down = !down;
    else [sortBy, down] = [column.id, false];
  }
</script>

<div
  class="min-h-0 flex-1 overflow-auto"
  onscroll={(e) => e.currentTarget.scrollTop + e.currentTarget.clientHeight > e.currentTarget.scrollHeight - 400 && shown < rows.length && (shown += 120)}
>
  <table class="w-full border-collapse" aria-label={label}>
    <thead>
      <tr class="sticky top-0 z-10 border-ink bg-ground text-left text-[11.5px] text-second">
        {#each columns as column (column.id)}
          <th
            class="border-b border-ink px-2 py-1.5 font-normal {column.right ? 'text-right' : ''} {column.hide ?? ''}"
            aria-sort={sortBy === column.id ? (down ? 'descending' : 'ascending') : undefined}
          >
            {#if column.sort}<button class="hover:text-ink" onclick={() => sort(column)}>{column.head}{sortBy === column.id ? (down ? ' ↓' : ' ↑') : ''}</button
              >{:else}{column.head}{/if}
          </th>
        {/each}
      </tr>
    </thead>
    <tbody bind:this={body}>
      {#each drawn as row, i (key(row))}
        <tr
          class="h-8 cursor-pointer border-b border-hairline {i === at ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : 'hover:bg-focus-row'}"
          onclick={(e) => {
            focused = key(row);
            if (!(e.target as Element).closest('a, button')) open();
          }}
        >
          {#each columns as column, c (column.id)}
            <td class="px-2 py-1 align-baseline {column.right ? 'text-right' : ''} {column.hide ?? ''}">
              {#if c === 0}<a href={path(row)} class="font-mono text-[12px]">{@render cell(row, column)}</a>{:else}{@render cell(row, column)}{/if}
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
  {#if rows.length === 0}<p class="p-6 text-second">{empty}</p>{/if}
</div>
