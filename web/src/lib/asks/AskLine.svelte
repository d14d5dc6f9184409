<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, fixed, plain } from '$lib/shared';

  /** One line of an ask: what it is sold at, and what it was sold at before. */
  let { line, currency }: { line: Schemas['AskView']['lines'][number]; currency: string } = $props();
</script>

<section class="mb-3 break-inside-avoid border border-hairline bg-sheet p-4" aria-label="line {line.code}">
  <h2 class="font-semibold"><span class="font-mono text-[12px] font-normal text-second">{line.code}</span> {line.words}</h2>
  <p class="text-second">
    {line.quantity} at {line.netPrice === null ? '–' : fixed(line.netPrice, 4)}, was {line.basePrice === null ? '–' : fixed(line.basePrice, 4)}; floor {line.floor ===
    null
      ? 'none'
      : fixed(line.floor, 4)}, margin
    {line.marginPercent === null ? 'unknown' : `${fixed(line.marginPercent, 1)} %`}
  </p>
  <h3 class="mt-2 font-semibold">Sold before</h3>
  {#each [...line.toThisBuyer, ...line.toOthers] as sale, i (i)}
    <div class="grid grid-cols-[64px_1fr_auto_minmax(76px,auto)] gap-2 text-second">
      <span>{day(sale.day)}</span><span class="truncate">{sale.buyer}</span><span>{plain(sale.quantity)} {sale.unitWord}</span><span class="text-right"
        >{fixed(sale.netPrice, 4)}{sale.currency === currency ? '' : ` ${sale.currency}`}</span
      >
    </div>
  {:else}<p class="text-second">never</p>{/each}
  {#if line.stock !== null}<p class="mt-2 flex justify-between">
      <span class="text-second">in stock</span><span
        >{`${plain(line.stock)} ${line.unitWord}`.trim()}{line.monthsOfStock !== null ? `, ${plain(line.monthsOfStock)} months’ worth` : ''}</span
      >
    </p>{/if}
</section>
