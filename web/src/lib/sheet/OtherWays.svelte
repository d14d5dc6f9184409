<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { day, fixed } from '$lib/shared';
  import type { SheetState } from './sheet.svelte';

  /** Other ways to deliver the line: each with what it would change, and none chosen by itself. */
  let { sheet, key, onclose }: { sheet: SheetState; key: number; onclose: () => void } = $props();
  let ways = $state.raw<readonly Schemas['OtherWay'][] | null>(null);
  let problem = $state('');
  const d = $derived(sheet.view.decimals);

  // Meets the server: another line, or another state of it, has other ways.
  $effect(() => {
    const [id, line, version] = [sheet.view.id, key, sheet.view.version];
    let overtaken = false;
    ways = null;
    ask(api.GET('/api/sheets/{id}/lines/{key}/ways', { params: { path: { id, key: line } } })).then(
      (found) => !overtaken && ([ways, problem] = [found, '']),
      (reason: unknown) => !overtaken && (problem = reason instanceof Error ? reason.message : 'They could not be worked out.'),
    );
    return () => {
      overtaken = true;
      void version;
    };
  });

  const sooner = (days: number | null) =>
    days === null || days === 0 ? '' : days > 0 ? `${days} ${days === 1 ? 'day' : 'days'} sooner` : `${-days} ${days === -1 ? 'day' : 'days'} later`;
  const money = (more: number) => (more === 0 ? '' : more > 0 ? `${fixed(more, d)} more` : `${fixed(-more, d)} less`);
</script>

<section aria-label="other ways to deliver it" aria-live="polite" class="mb-3">
  <h2 class="flex font-semibold">Other ways <button class="ml-auto font-normal text-second hover:underline" onclick={onclose}>less</button></h2>
  {#if problem}<p class="text-stop">{problem}</p>
  {:else if !ways}<p class="text-second">being worked out…</p>
  {:else}
    {#each ways as way (way.field + way.value)}
      <button
        class="block min-h-6 w-full border-b border-hairline py-0.5 text-left hover:bg-focus-row"
        onclick={() => void sheet.set(way.onHead ? null : key, way.field, way.value)}
      >
        {way.words}{way.onHead ? ', the whole' : ''}
        <span class="block text-[12px] text-second"
          >{[way.part, way.arrives && `${way.part ? 'all ' : ''}there ${day(way.arrives)}`, sooner(way.daysSooner), money(way.moreInAll)]
            .filter(Boolean)
            .join(' · ')}</span
        >
      </button>
    {:else}<p class="text-second">none is sooner or cheaper</p>{/each}
  {/if}
  <p class="text-[12px] text-second"><KeyCap>E</KeyCap> shows and hides them</p>
</section>
