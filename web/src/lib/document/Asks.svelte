<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day } from '$lib/shared';

  /** Who asked whom for what, and what came of it. */
  let { asks }: { asks: Schemas['DocumentView']['asks'] } = $props();
</script>

{#if asks.length}
  <ul class="pb-1">
    {#each asks as round (round.id)}
      <li>
        <span class="text-second">{day(round.askedAt)}</span>
        {round.askedBy} asked {round.approver}{round.hand === round.askedBy ? '' : ` about what ${round.hand} typed`}:
        <em class="font-serif text-[15px]">“{round.why}”</em>
        <b>{{ waiting: 'waits', granted: 'granted', sentBack: 'sent back', withdrawn: 'withdrawn' }[round.outcome]}</b>{#if round.note}: <em
            class="font-serif text-[15px]">“{round.note}”</em
          >{/if}
      </li>
    {/each}
  </ul>
{/if}
