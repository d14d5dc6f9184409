<script lang="ts">
  import type { Schemas } from '$lib/api';

  /** Facts beside their labels, on one sheet. */
  let { title, facts, href }: { title: string; facts: readonly Schemas['AskFact'][]; href?: string } = $props();
</script>

<section class="border border-hairline bg-sheet p-4" aria-label={title}>
  <h2 class="mb-1 font-serif text-[17px] leading-snug">
    {#if href}<a class="hover:underline" {href}>{title}</a>{:else}{title}{/if}
  </h2>
  <dl>
    {#each facts as fact (fact.label)}
      <div class="flex justify-between gap-3 py-0.5">
        <dt class="shrink-0 text-second">{fact.label}</dt>
        <dd class="text-right {fact.bad ? 'font-semibold text-stop' : ''}">{fact.words}</dd>
      </div>
    {/each}
  </dl>
</section>
