<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Schemas } from '$lib/api';
  import { fieldOf, textOf, type ColumnId, type SheetState } from './sheet.svelte';

  interface Props {
    sheet: SheetState;
    line: Schemas['LineView'];
    column: ColumnId;
    class?: string;
    colspan?: number;
    children: Snippet;
  }

  let { sheet, line, column, class: extra = '', colspan, children }: Props = $props();
  const here = $derived(sheet.line === line.key && sheet.column === column);
  const editing = $derived(here && sheet.editing);
  let cell = $state<HTMLTableCellElement>();
  let first = $state<string | null>(null);

  // Meets the browser: the focus follows the keys, while it is in the sheet.
  $effect(() => {
    if (here && !editing && document.activeElement?.closest('[data-sheet]') && !document.activeElement.closest('dialog')) cell?.focus({ preventScroll: false });
  });

  function begin(text: string | null) {
    if (!sheet.editable) return;
    first = text;
    sheet.editing = true;
  }

  function take(input: HTMLInputElement) {
    sheet.editing = false;
    if (input.value.trim() !== (first === null ? textOf(line, column) : null)) void sheet.set(line.key, fieldOf(line, column), input.value);
  }

  function cellKeys(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey) return;
    if (!sheet.editable && (event.altKey || event.key === 'Delete')) return;
    const moves: Record<string, () => void> = {
      ArrowDown: () => sheet.move(1),
      ArrowUp: () => sheet.move(-1),
      ArrowRight: () => sheet.moveColumn(1),
      ArrowLeft: () => sheet.moveColumn(-1),
      Enter: () => begin(null),
      F2: () => begin(null),
      Delete: sheet.remove,
    };
    if (event.shiftKey && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) sheet.pickOn(event.key === 'ArrowUp' ? -1 : 1);
    else if (event.altKey && event.key.startsWith('Arrow')) sheet.shift(event.key === 'ArrowUp' ? -1 : 1);
    else if (moves[event.key] && !event.altKey) moves[event.key]!();
    // Digits begin a figure; letters are keys of the screen.
    else if (column !== 'item' && /^[\d.,−-]$/.test(event.key)) begin(event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  function inputKeys(event: KeyboardEvent & { currentTarget: HTMLInputElement }) {
    event.stopPropagation();
    if (event.key === 'Escape') sheet.editing = false;
    else if (event.key === 'Enter' || event.key === 'Tab') {
      take(event.currentTarget);
      if (event.key === 'Enter') sheet.move(1);
      else sheet.moveColumn(event.shiftKey ? -1 : 1);
    } else return;
    event.preventDefault();
    // The focus goes back to the sheet, so that the keys go on there.
    cell?.focus();
  }

  function ready(input: HTMLInputElement) {
    input.focus();
    if (first === null) input.select();
  }
</script>

<td
  bind:this={cell}
  {colspan}
  class="{extra} {here ? '-outline-offset-1 outline-ink focus:outline focus:outline-1' : ''}"
  tabindex={here ? 0 : -1}
  onclick={() => {
    if (here && !editing) begin(null);
    else if (!here) [sheet.line, sheet.column, sheet.editing] = [line.key, column, false];
    if (!editing) cell?.focus();
  }}
  onkeydown={editing ? undefined : cellKeys}
>
  {#if editing}
    <input
      class="h-6 w-full min-w-16 border border-ink bg-sheet px-1 {column === 'item' ? '' : 'text-right'}"
      value={first ?? textOf(line, column)}
      aria-label="{column} of line"
      {@attach ready}
      onkeydown={inputKeys}
      onblur={(e) => sheet.editing && take(e.currentTarget)}
    />
  {:else}
    {@render children()}
  {/if}
</td>
