<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, since } from '$lib/shared';

  /** Who asked whom for what, and what came of it. */
  let { asks }: { asks: Schemas['DocumentView']['asks'] } = $props();
</script>

{#if asks.length}
  <ul class="pb-1">
    {#each asks as round (round.id)}
      <li>
        <span class="text-second">{day(round.askedAt)}</span>
        <a class="underline" href="/asks/{round.id}">{round.askedBy} asked {round.approver}</a>{round.hand === round.askedBy
          ? ''
          : ` about what ${round.hand} typed`}:
        <em class="font-serif text-[15px]">“{round.why}”</em>
        <b
          >{{
            waiting: round.question ? `asks: ${round.question}` : `waits, ${since(round.askedAt)}`,
            granted: round.upTo ? `granted up to ${round.upTo}` : 'granted',
            sentBack: 'sent back',
            withdrawn: 'withdrawn',
          }[round.outcome]}</b
        >{#if round.note}: <em class="font-serif text-[15px]">“{round.note}”</em>{/if}
      </li>
    {/each}
  </ul>
{/if}
