<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day } from '$lib/shared';

  /** What was changed here lately, and by whom. */
  let { changes }: { changes: readonly Schemas['SetupChange'][] } = $props();
</script>

{#if changes.length}
  <section class="mt-6" aria-label="changed lately">
    <h2 class="border-b border-strong pb-1 text-[11.5px] text-second">changed lately</h2>
    <ul>
      {#each changes as change, i (i)}
        <li class="border-b border-hairline py-1"><span class="text-second">{day(change.at)} {change.who}</span> {change.words}</li>
      {/each}
    </ul>
  </section>
{/if}
