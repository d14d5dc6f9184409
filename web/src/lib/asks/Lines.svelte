<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { fixed } from '$lib/shared';

  /** The lines of the sheet, what is asked about first. */
  let { lines, more }: { lines: readonly Schemas['AskLine'][]; more: Schemas['AskMore'] } = $props();
  const earns = (value: number | null) => (value === null ? '–' : fixed(value, 2).replace('-', '\u2212'));
</script>

<table class="w-full border-collapse">
  <thead class="text-left text-[11.5px] text-second">
    <tr class="border-b border-strong">
      <th class="py-1 font-normal">line</th>
      <th class="px-1 text-right font-normal">quantity</th>
      <th class="px-1 text-right font-normal">price</th>
      <th class="px-1 text-right font-normal">less</th>
      <th class="pl-1 text-right font-normal">earns</th>
    </tr>
  </thead>
  <tbody>
    {#each lines as line (line.key)}
      <tr class="border-b border-hairline align-top {line.cause ? 'bg-focus-row' : ''}" title={line.words}>
        <td class="max-w-[120px] truncate py-1.5">{line.code || line.words}</td>
        <td class="px-1 py-1.5 text-right whitespace-nowrap">{line.quantity}</td>
        <td class="px-1 py-1.5 text-right">{line.netPrice === null ? '–' : fixed(line.netPrice, 4)}</td>
        <td class="px-1 py-1.5 text-right whitespace-nowrap"
          >{#if line.discountPercent !== 0}<span class={line.cause ? 'bg-marker px-0.5' : ''}
              >{fixed(line.discountPercent, 1).replace(/\.0$/, '').replace('-', '\u2212')} %</span
            >{/if}</td
        >
        <td class="py-1.5 pl-1 text-right {line.cause || (line.earns ?? 0) < 0 ? 'text-stop' : ''}">{earns(line.earns)}</td>
      </tr>
    {/each}
    {#if more.lines}
      <tr class="text-second"><td class="py-1.5" colspan="4">{more.lines} more</td><td class="text-right">{earns(more.earns)}</td></tr>
    {/if}
  </tbody>
</table>
