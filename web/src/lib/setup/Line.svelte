<script lang="ts">
  import { KeyCap } from '$lib/keys';
  import type { AuthorityState } from './authority.svelte';

  /** Who reports to whom: dragged, or moved by keys. */
  let { state: all }: { state: AuthorityState } = $props();
  let dragged = $state<number | null>(null);
  const may = $derived(all.view?.mayMove ?? false);
</script>

<section aria-label="who reports to whom">
  <h2 class="font-serif text-[18px]">Who reports to whom</h2>
  <ul class="mt-1">
    {#each all.tree as { row, depth } (row.person)}
      <li
        class="flex items-baseline gap-2 py-1 {all.moving?.person === row.person ? 'border-l-[3px] border-ink bg-sheet' : ''}"
        style:padding-left="{8 + depth * 24}px"
        draggable={may}
        ondragstart={() => (dragged = row.person)}
        ondragover={(e) => may && e.preventDefault()}
        ondrop={(e) => {
          e.preventDefault();
          if (dragged !== null && dragged !== row.person) void all.move(dragged, row.person);
          dragged = null;
        }}
      >
        {#if all.moving && all.moving.person !== row.person}
          <button class="font-semibold underline" onclick={() => void all.move(all.moving!.person!, row.person)}>under {row.name}</button>
        {:else}
          <b class="whitespace-nowrap">{row.name}</b>
        {/if}
        <span class="truncate text-second">{row.does}</span>
        {#if may && !all.moving}
          <button class="ml-auto text-third hover:text-ink" aria-label="move {row.name}" onclick={() => (all.moving = row)}>move</button>
        {/if}
      </li>
    {/each}
  </ul>
  {#if all.moving}
    <p class="mt-1 text-second">
      {all.moving.name} moves under whom? <button class="underline" onclick={() => void all.move(all.moving!.person!, null)}>nobody: to the top</button>
      <button class="ml-2 underline" onclick={() => (all.moving = null)}>leave it <KeyCap>Esc</KeyCap></button>
    </p>
  {:else if may}<p class="mt-1 text-second">Drag a name onto another, or <i>move</i> it.</p>{/if}
</section>
