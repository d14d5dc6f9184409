<script lang="ts">
  import type { Snippet } from 'svelte';
  import { goto } from '$app/navigation';
  import { useKeys } from '$lib/keys';
  import { isNumber, show, showFoot } from './cells';
  import type { Field, ListState, Row } from './list.svelte';

  interface Props {
    list: ListState;
    /** Where a row opens. */
    path: (row: Row) => string;
    empty: string;
    /** Draws a cell where its text alone would not do. */
    cell?: Snippet<[Field, string, Row]>;
    /** Columns that a narrow screen shows too; without it, all of them. */
    narrow?: readonly string[];
  }
  let { list, path, empty, cell, narrow }: Props = $props();

  const height = 32;
  let box = $state<HTMLElement>();
  let top = $state(0);
  let room = $state(600);
  const from = $derived(Math.max(0, Math.floor(top / height) - 12));
  const to = $derived(Math.min((list.total ?? 0) - 1, Math.ceil((top + room) / height) + 12));
  const indexes = $derived(Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i));
  const hidden = (field: Field) => (narrow && !narrow.includes(field.name) ? 'max-md:hidden' : '');

  // Meets the server: what comes into view is fetched.
  $effect(() => {
    if (to >= from) list.show(from, to);
  });

  function go(step: number) {
    list.go(step);
    const y = list.at * height;
    if (!box) return;
    if (y < box.scrollTop) box.scrollTop = y;
    else if (y + height * 2 > box.scrollTop + room) box.scrollTop = y + height * 2 - room;
  }

  function open() {
    const row = list.row(list.at);
    if (row) void goto(path(row));
  }

  function pick() {
    const row = list.row(list.at);
    if (row) list.pick(row.id);
  }

  useKeys(() => [
    { key: 'j', words: 'next row', run: () => go(1) },
    { key: 'k', words: 'row before', run: () => go(-1) },
    { key: 'ArrowDown', words: 'next row', run: () => go(1) },
    { key: 'ArrowUp', words: 'row before', run: () => go(-1) },
    { key: 'PageDown', words: 'a page on', run: () => go(Math.floor(room / height) - 2) },
    { key: 'PageUp', words: 'a page back', run: () => go(2 - Math.floor(room / height)) },
    { key: 'Enter', words: 'open', run: open },
    ...(list.mayChoose ? [{ key: 'x', words: 'choose the row', run: pick }] : []),
  ]);
</script>

<div class="min-h-0 flex-1 overflow-auto" bind:this={box} bind:clientHeight={room} onscroll={(e) => (top = e.currentTarget.scrollTop)}>
  <table class="w-full border-collapse" aria-label={list.kind.title} aria-rowcount={list.total ?? undefined}>
    <thead>
      <tr class="sticky top-0 z-10 bg-ground text-left text-[11.5px] text-second">
        {#each list.fields as field (field.name)}
          <th
            class="border-b border-ink px-2 py-1.5 font-normal whitespace-nowrap {isNumber(field.type) ? 'text-right' : ''} {hidden(field)}"
            aria-sort={list.sort === field.name ? (list.down ? 'descending' : 'ascending') : undefined}
          >
            {#if field.canSort}<button class="hover:text-ink" onclick={() => list.sortBy(field.name)}
                >{field.label}{list.sort === field.name ? (list.down ? ' ↓' : ' ↑') : ''}</button
              >{:else}{field.label}{/if}
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#if from > 0}<tr style:height="{from * height}px" aria-hidden="true"><td colspan={list.fields.length}></td></tr>{/if}
      {#each indexes as index (index)}
        {@const row = list.row(index)}
        {@const here = index === list.at}
        {@const chosen = row !== undefined && (list.all || list.picked.includes(row.id))}
        <tr
          class="h-8 cursor-pointer border-b border-hairline {here ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : 'hover:bg-focus-row'} {chosen
            ? 'bg-focus-row font-semibold'
            : ''}"
          aria-rowindex={index + 1}
          aria-selected={row ? chosen : undefined}
          onclick={(e) => {
            list.at = index;
            if (e.ctrlKey || e.metaKey || e.shiftKey) pick();
            else if (!(e.target as Element).closest('a, button')) open();
          }}
        >
          {#each list.fields as field, c (field.name)}
            {@const text = row?.cells[c] ?? ''}
            <td
              class="max-w-72 truncate px-2 {isNumber(field.type) ? 'text-right' : ''} {field.type === 'code' ? 'font-mono text-[12px]' : ''} {hidden(
                field,
              )} {row ? '' : 'text-third'} {row?.active === false && list.kind.mayChange ? 'text-third line-through' : ''}"
            >
              {#if !row}{c === 0 ? '…' : ''}
              {:else if c === 0}<a href={path(row)}>{show(text, field.type) || 'no ' + field.label}</a>
              {:else if cell}{@render cell(field, text, row)}
              {:else}{show(text, field.type)}{/if}
            </td>
          {/each}
        </tr>
      {/each}
      {#if list.total !== null && to < list.total - 1}
        <tr style:height="{(list.total - 1 - to) * height}px" aria-hidden="true"><td colspan={list.fields.length}></td></tr>
      {/if}
    </tbody>
    {#if list.fields.some((f, c) => f.type !== 'money' && list.foot[c])}
      <tfoot>
        <tr class="sticky bottom-0 z-10 bg-ground text-[11.5px] text-second">
          {#each list.fields as field, c (field.name)}
            <td class="max-w-48 px-2 py-1.5 align-top shadow-[0_-1px_0_var(--ink)] {isNumber(field.type) ? 'text-right' : ''} {hidden(field)}"
              >{field.type === 'money' ? '' : showFoot(list.foot[c] ?? '', field.type)}</td
            >
          {/each}
        </tr>
      </tfoot>
    {/if}
  </table>
  {#if list.total === 0}<p class="px-2 py-6 text-second">{list.filter ? 'Nothing fits this filter.' : empty}</p>{/if}
</div>
