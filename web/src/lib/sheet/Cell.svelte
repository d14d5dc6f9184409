<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Schemas } from '$lib/api';
  import { fixed } from '$lib/shared';
  import { Nearest } from './nearest.svelte';
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
  // An item is looked for by words, in the cell as in the row where lines are added.
  const nearest = $derived(editing && column === 'item' && line.kind === 'item' ? new Nearest(sheet.view.id) : null);

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
    if (nearest?.chosen) {
      void sheet.set(line.key, 'item', nearest.chosen);
      return;
    }
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
    else if (nearest?.choices.length && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      nearest.move(event.key === 'ArrowDown' ? 1 : -1);
      event.preventDefault();
      return;
    } else if (event.key === 'Enter' || event.key === 'Tab') {
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
    void nearest?.look(line.code ? '' : line.words);
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
      oninput={(e) => void nearest?.look(e.currentTarget.value)}
      onblur={(e) => sheet.editing && take(e.currentTarget)}
    />
    {#if nearest?.choices.length}
      <ul class="fixed z-20 max-h-56 w-[min(520px,90vw)] overflow-auto border border-strong bg-sheet" aria-label="items that may be meant">
        {#each nearest.choices as choice, i (i)}
          <li>
            <button
              tabindex="-1"
              class="flex w-full gap-3 px-3 py-1 text-left {i === nearest.pick ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
              onmousedown={(e) => {
                e.preventDefault();
                sheet.editing = false;
                void sheet.set(line.key, 'item', choice.code ?? '');
              }}
            >
              <span class="w-24 shrink-0 truncate font-mono text-[12px] text-second">{choice.code}</span>
              <span class="truncate">{choice.words}</span>
              <span class="ml-auto shrink-0 text-second">{choice.price === null ? 'no price' : fixed(choice.price, 2)}</span>
            </button>
          </li>
        {/each}
      </ul>
    {/if}
  {:else}
    {@render children()}
  {/if}
</td>
