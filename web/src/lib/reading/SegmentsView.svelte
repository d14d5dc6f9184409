<script lang="ts">
  import type { Span } from './pieces';
  import type { Shown } from './parts';
  import TextView from './TextView.svelte';

  /** An interchange made legible: each segment by its name. */
  let { shown, spans, lit, onlight }: { shown: Shown; spans: readonly Span[]; lit: string | null; onlight: (of: string | null) => void } = $props();
  const MOST = 1_000;
  const inSegment = (s: { start: number; length: number }) => spans.filter((x) => x.start < s.start + s.length && x.start + x.length > s.start);
</script>

<table class="w-full">
  <tbody>
    {#each shown.segments.slice(0, MOST) as segment, i (i)}
      {@const about = inSegment(segment)}
      {@const of = [...new Set(about.map((a) => a.of))]}
      <tr class="border-b border-hairline align-top {lit !== null && of.includes(lit) ? 'bg-sheet' : ''}" data-evidence={of.join(' ')}>
        <td class="w-8 py-1 pr-2 text-right text-[11px] text-third">{i + 1}</td>
        <td class="w-28 py-1 pr-3 text-second">{segment.name}</td>
        <td class="py-1 font-mono text-[11.5px] break-all"
          ><TextView text={shown.part.text.slice(segment.start, segment.start + segment.length)} from={segment.start} spans={about} {lit} {onlight} /></td
        >
      </tr>
    {/each}
  </tbody>
</table>
{#if shown.segments.length > MOST}<p class="py-2 text-second">{shown.segments.length - MOST} more segments stand in the original.</p>{/if}
