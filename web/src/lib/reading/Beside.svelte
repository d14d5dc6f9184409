<script lang="ts">
  import type { Schemas } from '$lib/api';
  import type { RequestState } from './request.svelte';

  /** What goes along beside the lines, and what was not used. */
  let { state: request, reading }: { state: RequestState; reading: Schemas['ReadingView'] } = $props();

  const kinds: Record<Schemas['RemarkKind'], string> = {
    delivery: 'for the delivery',
    printed: 'for papers and parcels',
    certificate: 'papers with it',
    question: 'they ask',
  };
  const remarks = $derived(reading.remarks ?? []);
  const unused = $derived(reading.unused ?? []);
</script>

{#if remarks.length}
  <dl class="mt-3" aria-label="goes along">
    {#each remarks as remark, i (i)}
      <!-- svelte-ignore a11y_no_static_element_interactions -->
      <div
        class="grid grid-cols-[110px_1fr] gap-2 border-b border-hairline py-1 {request.lit === `remark${i}` ? 'bg-focus-row' : ''}"
        data-reads="remark{i}"
        onmouseenter={() => (request.lit = `remark${i}`)}
        onmouseleave={() => (request.lit = null)}
      >
        <dt class="text-second">{kinds[remark.kind]}</dt>
        <dd class="font-serif text-[15px]">{remark.words}</dd>
      </div>
    {/each}
  </dl>
{/if}
{#if unused.length}
  <details class="mt-3 text-second">
    <summary class="cursor-pointer">{unused.length === 1 ? 'one thing was' : `${unused.length} things were`} not used</summary>
    <ul class="mt-1">
      {#each unused as u, i (i)}
        <li class="grid grid-cols-[minmax(0,1fr)_auto] gap-3 border-b border-hairline py-0.5 text-[12px]">
          <span class="truncate font-mono" title={u.words}>{u.words}</span><span>{u.why}</span>
        </li>
      {/each}
    </ul>
  </details>
{/if}
