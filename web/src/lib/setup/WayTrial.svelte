<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { plain } from '$lib/shared';
  import { triedWords } from './ways.svelte';

  let { trial, draft }: { trial: Schemas['WayTrial']; draft: Schemas['WaySaid'] | null } = $props();
  const went = $derived(trial.kinds.some((k) => k.through));
</script>

<section class="mt-5 border border-hairline bg-sheet p-4" aria-label="tried on the past">
  {#if trial.kinds.length}
    <p class="text-second">by these rules, of the last thirty days</p>
    {#each trial.kinds as kind (kind.kind)}
      {@const words = triedWords(kind, draft)}
      <p class="font-serif text-[22px]">{plain(kind.through)} <small class="text-[16px] text-second">{words}</small></p>
    {/each}
    {#if went}
      <p class="text-second">
        {#if trial.corrected.length}Corrected by hand afterwards:
          {#each trial.corrected as c, i (c.number)}{i ? ', ' : ' '}<a class="underline" href="/requests/{c.number}" title={c.words}>{c.number}</a
            >{/each}.{:else}None of them was corrected afterwards.{/if}
      </p>
    {/if}
    {#if trial.held.length}
      <p class="mt-2 text-second">what holds the others</p>
      {#each trial.held as held (held.name)}
        <p class="flex justify-between border-b border-hairline py-0.5"><span>{held.name}</span><span>{plain(held.times)}</span></p>
      {/each}
    {/if}
  {:else}<p class="text-second">Nothing came by it in the last thirty days; there is nothing to try the rules on.</p>{/if}
</section>
