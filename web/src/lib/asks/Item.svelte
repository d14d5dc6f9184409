<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, fixed } from '$lib/shared';

  /** What an item was sold for in two years: a dot a sale, and the latest as a table. */
  let { item, currency }: { item: Schemas['AskItem']; currency: string } = $props();

  const width = 460;
  const height = 172;
  const [left, right, top, bottom] = [46, 12, 12, 22];
  const prices = $derived([...item.sales.map((s) => s.price), item.price, item.base, item.floor].filter((p): p is number => p !== null && p > 0));
  const low = $derived(Math.min(...prices) * 0.97);
  const high = $derived(Math.max(...prices) * 1.02);
  const now = Date.now();
  const begin = $derived(Math.min(now - 300 * 86_400_000, ...item.sales.map((s) => Date.parse(s.day))));
  const x = (at: number) => left + ((at - begin) / Math.max(1, now - begin)) * (width - left - right);
  const y = (price: number) => top + ((high - price) / Math.max(0.0001, high - low)) * (height - top - bottom);
  const scale = $derived([0.15, 0.5, 0.85].map((share) => low + (high - low) * share));
  const latest = $derived([...item.sales].reverse().slice(0, 4));
  let all = $state(false);
</script>

<section class="border border-hairline bg-sheet p-4" aria-label="line {item.code}">
  <h2 class="font-serif text-[17px] leading-snug">
    What {item.words || item.code} was sold for <em class="text-second">two years, {item.per}, {currency}</em>
  </h2>
  {#if item.sales.length}
    <svg viewBox="0 0 {width} {height}" class="mt-1 h-auto w-full" role="img" aria-label="{item.sales.length} sales, from {fixed(low, 2)} to {fixed(high, 2)}">
      {#each scale as price (price)}<text x={left - 8} y={y(price) + 4} text-anchor="end" class="fill-third text-[11px]">{fixed(price, 2)}</text>{/each}
      <line x1={left} x2={left} y1={top} y2={height - bottom} class="stroke-strong" />
      <line x1={left} x2={width - right} y1={height - bottom} y2={height - bottom} class="stroke-strong" />
      {#if item.base !== null}
        <line x1={left} x2={width - right} y1={y(item.base)} y2={y(item.base)} class="stroke-strong" />
        <text x={width - right} y={y(item.base) - 4} text-anchor="end" class="fill-second text-[11px]">base {fixed(item.base, 4)}</text>
      {/if}
      {#if item.floor !== null}
        <line x1={left} x2={width - right} y1={y(item.floor)} y2={y(item.floor)} class="stroke-stop" />
        <text x={width - right} y={y(item.floor) - 4} text-anchor="end" class="fill-stop text-[11px]">floor {fixed(item.floor, 4)}</text>
      {/if}
      {#each item.sales as sale (sale.document + sale.day + sale.price)}
        <circle cx={x(Date.parse(sale.day))} cy={y(sale.price)} r="4" class={sale.theirs ? 'fill-ink stroke-ink' : 'fill-sheet stroke-second'}
          ><title>{day(sale.day)} {sale.buyer}: {sale.quantity} at {fixed(sale.price, 4)}</title></circle
        >
      {/each}
      {#if item.price !== null}<circle cx={width - right - 4} cy={y(item.price)} r="5.5" class="fill-marker stroke-ink"
          ><title>asked: {fixed(item.price, 4)}</title></circle
        >{/if}
      <text x={left} y={height - 6} class="fill-third text-[11px]">{new Date(begin).toLocaleDateString('en-GB', { month: 'short', year: 'numeric' })}</text>
      <text x={width / 2} y={height - 6} text-anchor="middle" class="fill-second text-[11px]">● this buyer ○ others</text>
      <text x={width - right} y={height - 6} text-anchor="end" class="fill-third text-[11px]">today</text>
    </svg>
    <table class="mt-1 w-full border-collapse">
      <thead class="text-left text-[11.5px] text-second">
        <tr class="border-b border-strong">
          <th class="py-1 font-normal">latest</th><th class="font-normal">to</th><th class="text-right font-normal">quantity</th><th
            class="text-right font-normal">price</th
          >
        </tr>
      </thead>
      <tbody>
        {#each all ? [...item.sales].reverse() : latest as sale, i (i)}
          <tr class="border-b border-hairline">
            <td class="py-1.5 whitespace-nowrap">{day(sale.day)}</td>
            <td class="max-w-[170px] truncate {sale.theirs ? 'font-semibold' : ''}">{sale.buyer}</td>
            <td class="text-right whitespace-nowrap">{sale.quantity}</td>
            <td class="text-right">{fixed(sale.price, 4)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if item.sales.length > latest.length}<button class="mt-1 text-second underline" onclick={() => (all = !all)}
        >{all ? 'the latest alone' : `all ${item.sales.length}`}</button
      >{/if}
  {:else}<p class="text-second">Never sold in this unit and currency.</p>{/if}
  <dl class="mt-2">
    {#each [['in stock', item.stock], ['it costs us', item.paid]] as [label, words] (label)}
      {#if words}<div class="flex justify-between gap-3 py-0.5">
          <dt class="text-second">{label}</dt>
          <dd class="text-right">{words}</dd>
        </div>{/if}
    {/each}
  </dl>
</section>
