<script lang="ts">
  import { day, fixed, plain } from '$lib/shared';
  import type { GoodsState } from './goods.svelte';

  let { goods }: { goods: GoodsState } = $props();
  const may = $derived(goods.view?.mayShip ?? false);
  const kilos = (kg: number | null) => (kg === null ? 'not weighed' : `${fixed(kg, kg < 100 ? 1 : 0)} kg`);
</script>

{#each goods.groups as group, g (group.carrier)}
  {@const chosen = group.rows.filter(goods.isChosen)}
  <section class="mt-4" aria-label={group.carrier || group.carries}>
    <div class="flex items-baseline justify-between border-b border-strong pb-1 text-second">
      <h2>
        {#if group.carrier}<b class="text-ink">{group.carrier}</b>, {group.carries}, by {group.cutOff}{:else}{group.carries}{/if}{chosen.length
          ? ` · ${plain(chosen.length)} chosen, ${kilos(chosen.reduce((sum, r) => sum + (r.weightKg ?? 0), 0))}`
          : ''}
      </h2>
      <span
        >{plain(group.rows.length)}
        {group.rows.length === 1 ? 'order' : 'orders'}{#if group.carrier && may}<a
            class="ml-3 underline"
            href="/api/carriers/{encodeURIComponent(group.carrier)}/file"
            download
            title="what is packed for them and what left today">their file</a
          >{/if}</span
      >
    </div>
    <table class="w-full border-collapse">
      <thead class={g ? 'sr-only' : 'text-left text-[11.5px] text-second'}>
        <tr>
          <th class="font-normal"><span class="sr-only">chosen</span></th>
          <th class="font-normal">order</th>
          <th class="font-normal">to</th>
          <th class="pr-2 text-right font-normal max-sm:hidden">lines</th>
          <th class="pr-3 text-right font-normal max-sm:hidden">weight</th>
          <th class="font-normal">goods</th>
          <th class="font-normal max-md:hidden">promised</th>
        </tr>
      </thead>
      <tbody>
        {#each group.rows as row (row.id)}
          {@const here = goods.current?.id === row.id}
          <tr
            class="border-b border-hairline {here ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
            aria-current={here ? 'true' : undefined}
            onclick={() => (goods.at = goods.rows.findIndex((r) => r.id === row.id))}
          >
            <td class="w-8 py-1.5 pl-2"
              >{#if row.mayGo && may}<input
                  type="checkbox"
                  class="checkbox checkbox-xs"
                  aria-label="pick {row.order}"
                  checked={goods.isChosen(row)}
                  onchange={() => goods.choose(row)}
                />{:else}<span class="text-second" aria-hidden="true">–</span>{/if}</td
            >
            <td class="w-28 pr-2"><a class="font-mono text-[12px] hover:underline" href="/orders/{row.order}">{row.order}</a></td>
            <td class="max-w-0 truncate pr-2" title="{row.buyer}, {row.to}"
              >{row.buyer}{#if row.to !== row.buyer}<span class="ml-1 text-second">{row.to}</span>{/if}</td
            >
            <td class="w-12 pr-2 text-right max-sm:hidden">{plain(row.lines)}</td>
            <td class="w-20 pr-3 text-right whitespace-nowrap max-sm:hidden {row.weightKg === null ? 'text-second' : ''}">{kilos(row.weightKg)}</td>
            <td class="w-44 pr-2 max-sm:w-28"
              >{#if row.why.startsWith('held')}<span class="block truncate text-stop" title={row.why}>{row.why}</span>
              {:else if row.here === row.lines}all here
              {:else}<span class="needs">{row.here} of {row.lines} here</span>{/if}</td
            >
            <td class="w-24 pr-2 whitespace-nowrap text-second max-md:hidden">{row.promised ? day(row.promised) : ''}</td>
          </tr>
          {#if here && row.here < row.lines && row.could && !row.why.startsWith('held')}
            <tr class="border-b border-hairline bg-focus-row"
              ><td></td><td colspan="6" class="py-1.5"
                >{#if row.mayGo}What lies there goes with <em>pick</em>; the rest follows, {row.rule} is how they want it.{:else}They want it {row.rule}.
                  {#if may}<button class="underline" onclick={() => void goods.releasePart(row)}>Let go what lies there all the same</button>{/if}{/if}</td
              ></tr
            >
          {/if}
        {/each}
      </tbody>
    </table>
  </section>
{:else}
  <p class="mt-6 text-second">Nothing waits here to be picked today.</p>
{/each}
{#if goods.ahead}
  <button class="mt-4 text-second underline" onclick={() => (goods.later = !goods.later)}
    >{goods.later ? 'only what leaves on the day' : `${plain(goods.ahead)} more leave on later days`}</button
  >
{/if}
