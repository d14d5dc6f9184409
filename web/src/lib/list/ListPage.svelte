<script lang="ts" generics="Row">
  import type { Snippet } from 'svelte';
  import { Problem } from '$lib/shared';
  import { Refusal } from '$lib/api';
  import List from './List.svelte';
  import type { Column } from './types';

  interface Props {
    /** "Orders" */
    title: string;
    /** The question that the list answers, in italics, when only the open ones are shown. */
    open: string;
    /** The same for all. */
    all: string;
    columns: readonly Column<Row>[];
    load: (onlyOpen: boolean) => Promise<Row[]>;
    /** Everything that the words of the filter are sought in. */
    words: (row: Row) => string;
    path: (row: Row) => string;
    key: (row: Row) => string;
    cell: Snippet<[Row, Column<Row>]>;
    foot?: Snippet<[readonly Row[]]>;
    empty: string;
  }

  let { title, open, all, columns, load, words, path, key, cell, foot, empty }: Props = $props();
  let onlyOpen = $state(true);
  let filter = $state('');
  let rows = $state.raw<Row[] | null>(null);
  let problem = $state('');

  // Meets the server; the newest answer counts.
  $effect(() => {
    let current = true;
    load(onlyOpen).then(
      (found) => {
        if (current) rows = found;
      },
      (reason: unknown) => {
        problem = reason instanceof Refusal ? reason.message : 'The list could not be loaded.';
      },
    );
    return () => (current = false);
  });

  const shown = $derived.by(() => {
    const parts = filter.toLowerCase().split(/\s+/).filter(Boolean);
    return (rows ?? []).filter((row) => {
      const text = words(row).toLowerCase();
      return parts.every((p) => text.includes(p));
    });
  });
</script>

<svelte:head><title>{title} · Solvenda</title></svelte:head>

<div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-3">
    <h1 class="font-serif text-[25px] leading-tight">{title} <em class="text-second">{onlyOpen ? open : all}</em></h1>
    <span class="ml-auto text-second">{rows ? `${shown.length} of ${rows.length}` : ''}</span>
  </div>
  <div class="flex items-center gap-3 pb-2">
    <span class="text-second">show</span>
    <button class="rounded-full border border-strong px-3 py-0.5 {onlyOpen ? 'bg-sheet' : ''}" aria-pressed={onlyOpen} onclick={() => (onlyOpen = !onlyOpen)}
      >{open}</button
    >
    <input class="w-64 border-b border-hairline bg-transparent px-1 py-0.5" placeholder="and these words…" bind:value={filter} aria-label="filter by words" />
  </div>
  <Problem words={problem} />
  {#if rows}
    <List label={title} {columns} rows={shown} {path} {key} {cell} empty={filter ? 'Nothing has these words.' : empty} />
    {#if foot}<div class="flex items-center gap-4 border-t-2 border-ink py-2">{@render foot(shown)}</div>{/if}
  {/if}
</div>
