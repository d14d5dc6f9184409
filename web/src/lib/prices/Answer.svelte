<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day as shown, fixed, plain } from '$lib/shared';

  /** What somebody would pay, how the price was built, and how it falls with the quantity. */
  let { answer }: { answer: Schemas['PriceAnswer'] } = $props();

  const chart = $derived.by(() => {
    const points = answer.breaks;
    if (points.length === 0) return null;
    const last = Math.max(points.at(-1)!.from * 1.25, answer.quantity * 1.1, 1);
    const high = Math.max(...points.map((p) => p.price));
    const low = Math.min(...points.map((p) => p.price));
    const x = (q: number) => (q / last) * 560;
    const y = (p: number) => 14 + (high === low ? 20 : ((high - p) / (high - low)) * 60);
    const steps = points.map((p, i) => ({ ...p, x: x(p.from), end: x(points[i + 1]?.from ?? last), y: y(p.price) }));
    return { steps, at: x(answer.quantity) };
  });
</script>

<div class="mt-4 border border-hairline bg-sheet px-4 py-4" aria-live="polite" aria-label="the answer">
  {#if answer.price === null}
    <p class="text-stop">{answer.says}</p>
  {:else}
    <p class="font-serif text-[21px] leading-snug">
      {answer.buyer} would pay {fixed(answer.price, 4)}
      {answer.currency}
      {answer.unitWord
        ? `per ${answer.priceBase === 1 ? '' : `${plain(answer.priceBase)} `}${answer.unitWord}`
        : answer.priceBase === 1
          ? 'each'
          : `for ${plain(answer.priceBase)}`}.
    </p>
    <p class="text-second">
      {plain(answer.quantity)}
      {answer.unitWord} of {answer.words} on {shown(answer.day)}: <b class="text-ink">{fixed(answer.total ?? 0, 2)} {answer.currency}</b>
      {#if answer.marginPercent !== null}
        · margin {fixed(answer.marginPercent, 1)} %{/if}{#if answer.floor !== null}
        · floor {fixed(answer.floor, 4)}{/if}
    </p>
    <ol class="mt-3 flex flex-wrap items-start gap-x-2 gap-y-1" aria-label="price build">
      {#each answer.build as step, i (i)}
        {#if i > 0}<li class="pt-1 text-second" aria-hidden="true">→</li>{/if}
        <li>
          <div class="font-semibold">{fixed(step.price, 4)}</div>
          <div class="text-[12px] text-second">
            {step.words}<br />{step.from ? `from ${shown(step.from)}` : ''}{step.to ? ` to ${shown(step.to)}` : ''}
          </div>
        </li>
      {/each}
    </ol>
    {#if chart}
      <svg
        viewBox="-4 0 640 104"
        class="mt-4 w-full max-w-[640px]"
        role="img"
        aria-label="prices by quantity: {answer.breaks.map((b) => `from ${plain(b.from)} ${fixed(b.price, 4)}`).join('; ')}"
      >
        <line x1="0" x2="560" y1="88" y2="88" stroke="var(--strong)" />
        {#each chart.steps as s, i (s.from)}
          <line x1={s.x} x2={s.end} y1={s.y} y2={s.y} stroke="var(--ink)" stroke-width="2" />
          {#if i > 0}<line x1={s.x} x2={s.x} y1={chart.steps[i - 1]!.y} y2={s.y} stroke="var(--strong)" />{/if}
          <text x={s.x + 3} y={s.y - 4} font-size="11.5" fill="var(--ink)">{fixed(s.price, 4)}</text>
          <text x={s.x} y="101" font-size="11" fill="var(--second)">{plain(s.from)}</text>
        {/each}
        <path d="M {chart.at - 5} 97 l 10 0 l -5 -8 z" fill="var(--ink)" />
      </svg>
    {/if}
  {/if}
</div>
