<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, since } from '$lib/shared';

  /** What was said about it, and done with it, one after the other; and who is asked in turn. */
  let { said, steps }: { said: readonly Schemas['AskSaid'][]; steps: readonly Schemas['AskStep'][] } = $props();
</script>

{#if steps.length}
  <ol class="mb-2 flex flex-wrap gap-x-2" aria-label="asked in turn">
    {#each steps as step, i (i)}
      <li class={step.now ? 'font-semibold' : 'text-second'} aria-current={step.now ? 'step' : undefined}>
        {i > 0 ? '→ ' : ''}{step.names}{step.done ? ' ✓' : ''}
      </li>
    {/each}
  </ol>
{/if}
{#if said.length > 1}
  <ul class="grid gap-1">
    {#each said as one, i (i)}
      <li>
        <span class="text-second" title={one.at}>{day(one.at)}, {since(one.at)}</span>
        {one.who}
        <span class="text-second">{one.what}</span>
        {#if one.words}<em class="font-serif text-[15px]">“{one.words}”</em>{/if}
      </li>
    {/each}
  </ul>
{/if}
