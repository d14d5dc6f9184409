<script lang="ts">
  import { plain } from '$lib/shared';
  import type { ListState } from './list.svelte';

  /** A round over many that goes on by itself: how far it is, and stopping it. */
  let { list }: { list: ListState } = $props();
  const round = $derived(list.round);
  const at = $derived(round ? round.done + round.notDone : 0);
</script>

{#if round}
  <div class="flex flex-wrap items-center gap-3 border-y border-hairline py-1.5" role="status">
    <span>{round.words}: {plain(at)} of {plain(round.total)}{round.notDone ? `, ${plain(round.notDone)} not` : ''}</span>
    <progress class="h-1.5 w-56" max={round.total} value={at} aria-label="how far it is"></progress>
    {#if round.stopped}<span class="text-second">stops after those under way</span>
    {:else}<button class="underline" onclick={() => void list.stopRound()}>stop it</button>{/if}
    <span class="text-second">it goes on if you leave</span>
  </div>
{/if}
