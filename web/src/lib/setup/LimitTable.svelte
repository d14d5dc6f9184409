<script lang="ts">
  import { KeyCap } from '$lib/keys';
  import { DayField, fixed } from '$lib/shared';
  import type { AuthorityState } from './authority.svelte';

  /** What each may decide alone: a cell is typed in, tried on the past, and set from a day on. */
  let { state: all }: { state: AuthorityState } = $props();
  const view = $derived(all.view!);
  const at = $derived(all.at);
  const hours = (minutes: number) => (minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60}`);
  let input = $state<HTMLInputElement>();
  let timer: ReturnType<typeof setTimeout> | undefined;

  // Meets the field: whoever opens a cell types in it.
  $effect(() => {
    if (at) {
      input?.focus();
      input?.select();
    }
  });

  function typed() {
    clearTimeout(timer);
    timer = setTimeout(() => void all.tryIt(), 250);
  }
</script>

<div class="overflow-x-auto">
  <table class="w-full min-w-[760px] border-collapse" aria-label="what each may decide alone">
    <thead class="text-[11.5px] text-second">
      <tr class="border-b border-strong">
        <th class="py-1 text-left font-normal">who</th>
        {#each view.columns as column (column.kind)}<th class="px-1 py-1 text-right font-normal">{column.label}</th>{/each}
        <th class="py-1 pl-2 text-right font-normal">sees cost</th>
      </tr>
    </thead>
    <tbody>
      {#each view.lines as row (row.person ?? `k${row.key}`)}
        <tr class="border-b border-hairline {at?.row === row ? 'bg-sheet' : ''}">
          <td class="py-1.5 pr-2 whitespace-nowrap {at?.row === row ? 'border-l-[3px] border-ink pl-2 font-semibold' : ''}">
            {row.name}{#if row.key}<span class="text-second"> · a key</span>{/if}
          </td>
          {#each view.columns as column (column.kind)}
            {@const cell = row.cells.find((c) => c.kind === column.kind)!}
            <td class="px-1 text-right">
              {#if at?.row === row && at.column.kind === column.kind}
                <input
                  bind:this={input}
                  bind:value={all.typed}
                  oninput={typed}
                  class="w-20 border border-ink bg-sheet px-1 text-right"
                  aria-label="{row.name}, {column.label}"
                  onkeydown={(e) => {
                    if (e.key === 'Enter') void all.set();
                    if (e.key === 'Escape') all.leave();
                  }}
                />
              {:else if view.maySet}
                <button
                  class="w-full py-1.5 text-right hover:bg-sheet {cell.said === 'none' ? 'text-third' : ''}"
                  aria-label="{row.name}, {column.label}: {cell.said}"
                  onclick={() => all.pick(row, column)}>{cell.said === 'none' ? '–' : cell.said}</button
                >
              {:else}<span class="py-1.5 {cell.said === 'none' ? 'text-third' : ''}">{cell.said === 'none' ? '–' : cell.said}</span>{/if}
              {#if cell.later}<span class="block text-[11px] text-second">{cell.later}</span>{/if}
              {#if cell.proposal !== null}
                <span class="block text-[11px] {cell.mayAgree ? '' : 'text-second'}"><span class={cell.mayAgree ? 'bg-marker' : ''}>{cell.proposed}</span></span
                >
                {#if cell.mayAgree}<button class="text-[11.5px] underline" onclick={() => void all.agree(cell.proposal!, true)}>agree</button>{/if}
                <button class="text-[11.5px] underline" onclick={() => void all.agree(cell.proposal!, false)}>no</button>
              {/if}
            </td>
          {/each}
          <td class="pl-2 text-right">{row.seesCost ? '✓' : '–'}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
{#if at}
  <section class="mt-3 border border-hairline bg-sheet p-4" aria-label="tried on the past">
    <h3 class="font-serif text-[17px]">
      If {at.row.name} may go to {all.typed || 'nothing'} <em class="text-second">instead of {all.cell?.said}</em>
    </h3>
    {#if at.row.person && all.tried.value && all.limit !== undefined}
      {@const t = all.tried.value}
      <dl class="mt-2 grid grid-cols-2 gap-x-6 gap-y-1 sm:grid-cols-4">
        <div>
          <dt class="text-[11.5px] text-second">asks in 90 days</dt>
          <dd class="font-serif text-[20px]">{t.asks} → {t.asks - t.spared}</dd>
        </div>
        <div>
          <dt class="text-[11.5px] text-second">of those spared, granted</dt>
          <dd class="font-serif text-[20px]">{t.granted}</dd>
        </div>
        <div>
          <dt class="text-[11.5px] text-second">given away in them</dt>
          <dd class="font-serif text-[20px]">{fixed(t.givenAway, 0)}</dd>
        </div>
        <div>
          <dt class="text-[11.5px] text-second">answered in, the middle one</dt>
          <dd class="font-serif text-[20px]">{t.answerMinutes === null ? '–' : hours(t.answerMinutes)}</dd>
        </div>
      </dl>
    {/if}
    {#if all.problem}<p role="alert" class="mt-2 text-stop">{all.problem}</p>{/if}
    <div class="mt-3 flex flex-wrap items-center gap-3">
      <button class="btn btn-primary btn-sm" onclick={() => void all.set()}>Let it hold <KeyCap>↵</KeyCap></button>
      <span class="flex items-center gap-2">from <DayField bind:value={all.from} label="from when" /></span>
      <span class="text-second">nothing there: from today. Nobody gives more than they have; what you do not have, somebody who has it must agree to.</span>
      <button class="ml-auto underline" onclick={all.leave}>leave it</button>
    </div>
  </section>
{/if}
