<script lang="ts">
  import { KeyCap } from '$lib/keys';
  import type { SheetState } from './sheet.svelte';

  /** Finds a line of the sheet by words; the sheet goes there. */
  let { sheet, onclose }: { sheet: SheetState; onclose: () => void } = $props();
  let none = $state(false);

  function keys(event: KeyboardEvent & { currentTarget: HTMLInputElement }) {
    event.stopPropagation();
    if (event.key === 'Escape') onclose();
    else if (event.key === 'Enter') none = !sheet.find(event.currentTarget.value, event.shiftKey ? -1 : 1);
    else return;
    event.preventDefault();
  }
</script>

<p class="mb-1 flex items-center gap-2">
  <input
    class="h-7 w-64 border border-ink bg-sheet px-2"
    placeholder="find in the sheet"
    aria-label="find in the sheet"
    autocomplete="off"
    {@attach (input: HTMLInputElement) => input.focus()}
    onkeydown={keys}
    onfocusout={() => (none = false)}
  />
  <span class="text-second" role="status"
    >{#if none}no line has that{:else}<KeyCap>↵</KeyCap> next, <KeyCap>⇧ ↵</KeyCap> before, <KeyCap>Esc</KeyCap>{/if}</span
  >
</p>
