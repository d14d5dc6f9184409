<script lang="ts">
  import type { Schemas } from '$lib/api';

  /** The working day as a line: now, and when each carrier comes. */
  let { now, carriers }: { now: string; carriers: readonly Schemas['CarrierBrief'][] } = $props();
  const [FROM, TO] = [7 * 60, 18 * 60];
  const minutes = (time: string) => {
    const [hours = 0, rest = 0] = time.split(':').map(Number);
    return hours * 60 + rest;
  };
  const place = (time: string) => `${Math.max(0, Math.min(100, (100 * (minutes(time) - FROM)) / (TO - FROM)))}%`;
  const left = (time: string) => {
    const rest = minutes(time) - minutes(now);
    return rest < 0 ? 'has come' : rest < 60 ? `in ${rest} min` : `in ${Math.floor(rest / 60)} h ${rest % 60 ? `${rest % 60} min` : ''}`.trim();
  };
</script>

<ol class="relative mt-1 h-9 list-none border-b border-strong" aria-label="the day">
  <li class="absolute bottom-0 h-3 border-l-2 border-ink" style:left={place(now)}><b class="absolute bottom-3 left-1 whitespace-nowrap">now, {now}</b></li>
  {#each carriers as carrier (carrier.code)}
    <li class="absolute bottom-0 h-2 border-l-2 border-ink" style:left={place(carrier.cutOff)}>
      <span class="absolute bottom-2.5 {minutes(carrier.cutOff) > TO - 150 ? 'right-1' : 'left-1'} whitespace-nowrap text-second"
        >{carrier.cutOff} {carrier.carries || carrier.code}, {left(carrier.cutOff)}</span
      >
    </li>
  {/each}
</ol>
