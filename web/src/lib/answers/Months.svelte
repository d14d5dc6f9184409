<script lang="ts">
  import { plain } from '$lib/shared';

  /** A bar a month, the tallest as high as the row; the figures are read out and shown on hover. */
  let { months, unit }: { months: readonly { month: string; value: number }[]; unit: string } = $props();
  const most = $derived(Math.max(1, ...months.map((m) => m.value)));
  const name = (iso: string) => new Date(`${iso}T12:00:00`).toLocaleDateString('en-GB', { month: 'short' });
</script>

<ol class="flex h-16 items-end gap-[3px]" aria-label="by month">
  {#each months as m, i (m.month)}
    <li class="flex h-full flex-1 flex-col justify-end" title="{name(m.month)} {m.month.slice(0, 4)}: {plain(Math.round(m.value))} {unit}">
      <span class="sr-only">{name(m.month)} {m.month.slice(0, 4)}: {plain(Math.round(m.value))} {unit}</span>
      <span class="block {m.value > 0 ? 'bg-ink' : 'bg-hairline'}" style:height="{m.value > 0 ? Math.max(2, (m.value / most) * 44) : 1}px" aria-hidden="true"
      ></span>
      <span class="text-center text-[11px] text-third" aria-hidden="true">{months.length <= 12 || i % 3 === 0 ? name(m.month) : ''}&nbsp;</span>
    </li>
  {/each}
</ol>
