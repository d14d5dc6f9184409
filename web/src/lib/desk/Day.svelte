<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { HOURS, hourOf, isDay, placed, top } from './day';

  let { marks, came }: { marks: readonly Schemas['DayMark'][]; came: readonly Schemas['WayCount'][] } = $props();
  const day = $derived(placed(marks));
  // Moves on with what comes anew.
  const now = $derived(marks ? hourOf(new Date().toISOString()) : 0);
  const clock = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
</script>

<section aria-label="the day" class="max-lg:hidden">
  <h2 class="font-serif text-[19px]">The day</h2>
  {#if came.length}
    <dl class="mt-2 grid grid-cols-[1fr_auto_auto] gap-x-3 border-y border-hairline py-1 text-[12px]" aria-label="what came today">
      {#each came as one (one.channel)}
        <dt class="truncate">{one.channel}</dt>
        <dd class="text-right text-second">{one.came} came{one.through ? `, ${one.through} through` : ''}</dd>
        <dd class="text-right {one.waits ? '' : 'text-third'}">{one.waits ? `${one.waits} wait` : 'none waits'}</dd>
      {/each}
    </dl>
  {/if}
  <div class="relative mt-4 h-[560px]">
    <div class="absolute top-0 bottom-0 left-11 w-px bg-strong"></div>
    {#each HOURS as hour (hour)}
      <span class="absolute -translate-y-1/2 text-[11.5px] text-third" style:top="{top(hour)}%">{String(hour).padStart(2, '0')}</span>
      <span class="absolute left-10 h-px w-2.5 bg-strong" style:top="{top(hour)}%"></span>
    {/each}
    {#if isDay(now)}<div class="absolute right-0 left-10 h-0.5 bg-ink" style:top="{top(now)}%" role="img" aria-label="now"></div>{/if}
    {#each day as mark, i (i)}
      <span class="absolute left-[40px] size-[9px] -translate-y-1/2 rounded-full border border-second bg-ground" style:top="{mark.top}%"></span>
      <p class="absolute right-0 left-16 -translate-y-1/2 leading-snug" style:top="{mark.top}%">
        {#if mark.path}<a href={mark.path} class="hover:underline">{clock(mark.at)} {mark.words}</a>{:else}{clock(mark.at)} {mark.words}{/if}
        <span class="text-second">{mark.rest}</span>
      </p>
    {/each}
  </div>
</section>
