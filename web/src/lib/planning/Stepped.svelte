<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, plain } from '$lib/shared';
  import { draw } from './stepped';

  /** An item's stock as one stepped line: what went, what comes, what is free; the steps can be opened. */
  let { outlook }: { outlook: Schemas['OutlookView'] } = $props();
  let width = $state(1200);
  const height = 250;
  const drawn = $derived(draw(outlook, width - 20, height));
  let pointed = $state<number | null>(null);
  const said = (s: Schemas['OutlookStep']) => `${day(s.day)}: ${s.quantity > 0 ? '+' : ''}${plain(s.quantity)} ${s.words}, ${plain(s.level)} since`;
  const month = (iso: string) => new Date(`${iso}T12:00:00`).toLocaleDateString('en-GB', { month: 'short' });
  const here = $derived(pointed === null ? undefined : drawn.marks[pointed]);
</script>

<figure class="relative border border-hairline bg-sheet" bind:clientWidth={width}>
  <svg viewBox="0 0 {width} {height + 20}" class="block w-full" style:height="{height + 20}px" role="group" aria-label="stock over time">
    {#each drawn.levels as l (l.value)}
      <line x1="0" x2={width} y1={l.y} y2={l.y} class={l.value === 0 ? 'stroke-strong' : 'stroke-hairline'} />
      <text x="4" y={l.y - 3} class="fill-third text-[11px]">{plain(l.value)}</text>
    {/each}
    {#each drawn.months as m (m.day)}<text x={m.x + 4} y={height + 14} class="fill-third text-[11px]">{month(m.day)}</text>{/each}
    {#each drawn.short as s, i (i)}<rect x={s.x} y={s.y} width={s.width} height={s.height} class="fill-stop opacity-20" />{/each}
    <path d={drawn.free} fill="none" class="stroke-clear" stroke-width="1.5" />
    <path d={drawn.past} fill="none" class="stroke-ink" stroke-width="2" />
    <path d={drawn.ahead} fill="none" class="stroke-ink" stroke-width="2" stroke-dasharray="5 4" />
    <line x1={drawn.now} x2={drawn.now} y1="0" y2={height} class="stroke-ink" stroke-width="2" />
    <text x={drawn.now + 6} y="13" class="fill-ink text-[11px] font-semibold">now</text>
    {#each drawn.marks as m, i (i)}
      <!-- Read on hover and by Tab; it does nothing, so it is no control. -->
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <circle
        cx={m.x}
        cy={m.y}
        r={pointed === i ? 5 : 3.5}
        class={m.step.quantity > 0 ? 'fill-clear' : m.step.level < 0 ? 'fill-stop' : 'fill-ink'}
        role="img"
        tabindex="0"
        aria-label={said(m.step)}
        onpointerenter={() => (pointed = i)}
        onpointerleave={() => (pointed = null)}
        onfocus={() => (pointed = i)}
        onblur={() => (pointed = null)}
      />
    {/each}
  </svg>
  {#if here}
    <p
      class="pointer-events-none absolute border border-strong bg-sheet px-2 py-0.5 text-[12px] whitespace-nowrap"
      style:top="{Math.max(2, here.y - 28)}px"
      style:left="{here.x > width - 320 ? here.x - 300 : here.x + 8}px"
    >
      {said(here.step)}{outlook.unit ? ` ${outlook.unit}` : ''}
    </p>
  {/if}
  <figcaption class="flex flex-wrap gap-x-5 px-3 pb-2 text-[11.5px] text-second">
    <span>line: what lies there · dashed: with what is promised and what comes</span><span class="text-clear">green: free to promise</span>
    <details class="ml-auto">
      <summary class="cursor-pointer underline">as a table</summary>
      <table class="mt-1 text-ink">
        <thead class="text-left text-second"
          ><tr
            ><th class="pr-6 font-normal">day</th><th class="pr-6 font-normal">what</th><th class="pr-6 text-right font-normal">moved</th><th
              class="text-right font-normal">since</th
            ></tr
          ></thead
        >
        <tbody>
          {#each drawn.marks as m, i (i)}
            <tr class="border-t border-hairline"
              ><td class="pr-6">{day(m.step.day)}</td><td class="pr-6"
                >{m.step.words}{#if m.step.order && m.step.order !== m.step.words}&nbsp;<span class="font-mono">{m.step.order}</span>{/if}</td
              ><td class="pr-6 text-right">{plain(m.step.quantity)}</td><td class="text-right {m.step.level < 0 ? 'text-stop' : ''}">{plain(m.step.level)}</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
    </details>
  </figcaption>
</figure>
