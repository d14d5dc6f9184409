<script lang="ts">
  import type { SheetState } from './sheet.svelte';

  /** Which further columns this person's sheets show. */
  let { sheet }: { sheet: SheetState } = $props();
  let open = $state(false);
  const flip = (name: string, on: boolean) => void sheet.choose(on ? [...sheet.chosen, name] : sheet.chosen.filter((c) => c !== name));
</script>

<span class="flex gap-3 max-md:hidden">
  <button class="hover:underline" aria-expanded={open} onclick={() => (open = !open)}>columns</button>
  {#if open}
    {#each sheet.moreColumns as name (name)}
      <label
        ><input
          type="checkbox"
          class="mr-1 align-[-2px] accent-(--ink)"
          checked={sheet.chosen.includes(name)}
          onchange={(e) => flip(name, e.currentTarget.checked)}
        />{name}</label
      >
    {/each}
  {/if}
</span>
