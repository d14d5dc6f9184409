<script lang="ts">
  import { documentPath, fixed } from '$lib/shared';
  import type { DocumentState } from './document.svelte';

  /** How an accepted quote becomes an order: with others of the buyer, or as a frame of which parts are called off. */
  let { state: whole }: { state: DocumentState } = $props();
  const others = $derived(whole.doc.turnWith);

  function toggle(number: string) {
    whole.turnWith = whole.turnWith.includes(number) ? whole.turnWith.filter((n) => n !== number) : [...whole.turnWith, number];
  }
</script>

<fieldset class="mt-1 flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-hairline pb-1.5">
  <legend class="sr-only">how it becomes an order</legend>
  <span class="text-second">Making the order uses the quote up.</span>
  <label class="flex items-baseline gap-1.5"><input type="checkbox" bind:checked={whole.onCall} /> as a call-off order: parts of it now, the rest later</label>
  {#if others.length}
    <span class="text-second">in one order with</span>
    {#each others as other (other.number)}
      <label class="flex items-baseline gap-1.5"
        ><input type="checkbox" checked={whole.turnWith.includes(other.number)} onchange={() => toggle(other.number)} />
        <a class="font-mono text-[12px] underline" href={documentPath({ kind: 'quote', number: other.number })}>{other.number}</a>
        <span class="max-w-48 truncate font-serif italic">{other.matter}</span>
        {fixed(other.total, whole.sheet.view.decimals)}</label
      >
    {/each}
  {/if}
</fieldset>
