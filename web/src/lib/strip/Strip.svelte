<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, documentPath } from '$lib/shared';
  import { NOW, place } from './place';

  let { marks }: { marks: readonly Schemas['StripMark'][] } = $props();

  // More than so many would only be dots; the oldest and the newest say most, the rest is in the history.
  const most = 8;
  const shown = $derived.by(() => {
    const past = marks.filter((m) => !m.ahead);
    const ahead = marks.filter((m) => m.ahead).slice(0, 5);
    return [...(past.length > most ? [past[0]!, ...past.slice(1 - most)] : past), ...ahead];
  });
  const placed = $derived(
    place(
      shown.map((m) => new Date(m.at).getTime()),
      Date.now(),
    ),
  );
  const hidden = $derived(marks.filter((m) => !m.ahead).length - shown.filter((m) => !m.ahead).length);

  // The day stands with the first mark of it; those behind it on the same day need not say it again.
  function label(i: number) {
    const mark = shown[i]!;
    const before = shown[i - 1];
    return before && !mark.ahead && day(before.at) === day(mark.at) ? mark.words : `${mark.words}, ${day(mark.at)}`;
  }

  // Labels stand centred under their mark; at the ends and beside "now" they turn inwards.
  function anchor(at: number, ahead: boolean) {
    if (ahead && at > 92) return 'right: 0';
    if (at < 7) return 'left: 0';
    if (ahead && at < NOW + 7) return `left: calc(${at}% - 5px)`;
    if (!ahead && at > NOW - 6) return `right: calc(${100 - NOW}% + 8px)`;
    return `left: ${at}%; transform: translateX(-50%)`;
  }
</script>

<div class="relative mx-0 h-[74px] text-[11.5px] max-md:hidden" aria-label="strip of the dossier" role="list">
  <div class="absolute top-9 left-0 h-[3px] bg-ink" style:width="{NOW}%"></div>
  <div class="absolute top-[37px] right-0 h-px bg-strong" style:left="{NOW}%"></div>
  <div class="absolute top-3 h-12 border-l-2 border-ink" style:left="{NOW}%"></div>
  <span class="absolute top-2 font-semibold" style:left="calc({NOW}% + 6px)">now</span>
  {#each shown as mark, i (i)}
    {@const spot = placed[i]!}
    {@const to = mark.document && documentPath(mark.document)}
    <div role="listitem">
      <span
        class="absolute top-[33px] -ml-[4.5px] size-[9px] rounded-full {mark.ahead ? 'border border-second bg-ground' : 'border border-ground bg-ink'}"
        style:left="{spot.at}%"
      ></span>
      <span
        class="absolute w-max truncate leading-6 {spot.above ? (spot.at > NOW && spot.at < NOW + 8 ? 'top-[47px]' : 'top-[9px]') : 'top-[47px]'} {mark.ahead
          ? 'text-second'
          : ''}"
        style="{anchor(spot.at, mark.ahead)}; max-width: min(176px, {spot.wide}%)"
        title="{mark.words}, {day(mark.at)}{mark.who ? `, ${mark.who}` : ''}"
      >
        {#if to}<a href={to} class="inline-block min-h-6 hover:underline">{label(i)}</a>{:else}{label(i)}{/if}
      </span>
    </div>
  {/each}
  {#if hidden > 0}<span class="absolute top-[9px] left-[9%] text-third">{hidden} more in the history</span>{/if}
</div>
