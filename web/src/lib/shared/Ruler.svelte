<script lang="ts">
  interface Props {
    /** Left end of the scale. */
    from: number;
    /** Right end of the scale. */
    to: number;
    /** Where the figure stands; the triangle. */
    at: number | null;
    /** The limit; the red tick. */
    limit?: number | null;
    /** Up to here the ground is tinted: what it costs. */
    cost?: number | null;
    /** A figure to compare with; the ring. */
    ring?: number | null;
    /** Whether the figure is on the wrong side of the limit. */
    over?: boolean;
    /** What it says, for those who do not see it. */
    label: string;
  }

  let { from, to, at, limit = null, cost = null, ring = null, over = false, label }: Props = $props();

  const x = (value: number) => {
    const share = to === from ? 0 : (value - from) / (to - from);
    return 6 + Math.min(1, Math.max(0, share)) * 118;
  };
</script>

<svg viewBox="0 0 130 18" class="h-auto w-full max-w-[210px]" role="img" aria-label={label}>
  <line x1="6" x2="124" y1="13" y2="13" class="stroke-strong" vector-effect="non-scaling-stroke" />
  {#if cost !== null}
    <rect x="6" y="11.5" height="3" width={Math.max(0, x(cost) - 6)} class="fill-cost" />
    <line x1={x(cost)} x2={x(cost)} y1="9" y2="17" class="stroke-third" vector-effect="non-scaling-stroke" />
  {/if}
  <line x1="124" x2="124" y1="9" y2="17" class="stroke-third" vector-effect="non-scaling-stroke" />
  {#if limit !== null}<line x1={x(limit)} x2={x(limit)} y1="8" y2="18" class="stroke-stop" stroke-width="1.6" vector-effect="non-scaling-stroke" />{/if}
  {#if ring !== null}<circle cx={x(ring)} cy="13" r="3" class="fill-sheet stroke-second" vector-effect="non-scaling-stroke" />{/if}
  {#if at !== null}<path d="M{x(at) - 5} 2 h10 l-5 8 z" class={over ? 'fill-stop' : 'fill-ink'} />{/if}
</svg>
