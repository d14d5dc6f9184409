<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { Ruler } from '$lib/shared';

  /** The figures asked against the limits, as rulers. */
  let { rulers, first }: { rulers: readonly Schemas['AskRuler'][]; first: string } = $props();

  const over = (r: Schemas['AskRuler']) => r.asked && (r.handsLimit === null ? r.moreIsWorse : r.moreIsWorse ? r.value > r.handsLimit : r.value < r.handsLimit);
</script>

{#each rulers as r (r.figure)}
  <div class="grid grid-cols-[112px_1fr_76px] items-center gap-3 py-0.5">
    <span class="text-second">{r.words}</span>
    <Ruler
      from={r.from}
      to={r.to}
      at={r.value}
      limit={r.handsLimit}
      cost={r.moreIsWorse ? null : r.from}
      ring={r.before}
      over={over(r)}
      label="{r.words}: {r.said}; {first} may go to {r.handsLimit ?? 'nothing'}, before {r.before ?? 'unknown'}"
    />
    <b class="text-right whitespace-nowrap {over(r) ? 'text-stop' : ''}">{r.said}</b>
  </div>
{/each}
{#if rulers.length}<p class="text-[11.5px] text-second">red tick: where {first} ends · ring: before anything was given</p>{/if}
