<script lang="ts">
  import { typed, type SheetState } from './sheet.svelte';

  /** What was typed and not taken, because somebody else changed the sheet meanwhile. */
  let { sheet }: { sheet: SheetState } = $props();
</script>

{#if sheet.refused}
  <div class="mb-2 border border-strong bg-sheet px-3 py-2" role="group" aria-label="not taken yet">
    {#each sheet.refused.theirs as theirs, i (i)}<p class="text-second">{theirs}</p>{/each}
    <p>
      You typed {sheet.refused.edits.map(typed).join('; ')}.
      <button class="ml-2 underline" onclick={sheet.again}>put it in now</button>
      <button class="ml-2 underline" onclick={sheet.letGo}>let it go</button>
    </p>
  </div>
{/if}
