<script lang="ts">
  import { KeyCap } from '$lib/keys';
  import type { RequestState } from './request.svelte';

  /** Words that nothing explains, and figures that others contradict: each is taken up, or said to mean nothing. */
  let { state: request }: { state: RequestState } = $props();
  const overs = $derived(request.overs);
</script>

{#if overs.length}
  <section class="mt-3" aria-label="left over">
    {#each overs as over (`${over.where.part}/${over.where.start}/${over.words}`)}
      {@const here = request.over === over}
      <!-- svelte-ignore a11y_no_static_element_interactions -->
      <div
        class="flex flex-wrap items-baseline gap-x-3 border-b border-hairline px-3 py-1.5 {here ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
        onmouseenter={() => (request.lit = 'over')}
        onmouseleave={() => (request.lit = null)}
      >
        {#if over.why}
          <span><b>Does not agree:</b> <span class="needs">{over.words}</span> <span class="text-second">{over.why}</span></span>
        {:else}<span><b>Left over:</b> <span class="needs">“{over.words}”</span></span>{/if}
        {#if request.open}
          {#if !over.why}
            <button class="ml-auto" onclick={() => void request.takeUp(over)}
              >{#if here}<KeyCap>1</KeyCap>{/if} a line of its own</button
            >
          {/if}
          <button class={over.why ? 'ml-auto' : ''} onclick={() => void request.dismiss(over)}
            >{#if here}<KeyCap>L</KeyCap>{/if}
            {over.why ? 'seen; go on with what was read' : 'it means nothing here'}</button
          >
        {/if}
      </div>
    {/each}
  </section>
{/if}
