<script lang="ts">
  import Beside from './Beside.svelte';
  import LeftOvers from './LeftOvers.svelte';
  import ReadHead from './ReadHead.svelte';
  import ReadLine from './ReadLine.svelte';
  import type { RequestState } from './request.svelte';
  import { fixed } from '$lib/shared';

  let { state }: { state: RequestState } = $props();
  const reading = $derived(state.reading);
</script>

<section class="min-h-0 overflow-auto border border-l-0 border-hairline bg-sheet p-5 max-lg:border-l" aria-label="the reading">
  {#if reading}
    <ReadHead {state} {reading} />
    <table class="mt-3 w-full">
      <thead>
        <tr class="border-b border-strong text-[11.5px] text-second">
          <th class="w-6"><span class="sr-only">line</span></th><th class="py-1 text-left font-normal">what</th><th class="text-right font-normal">quantity</th>
          <th class="pl-3 text-right font-normal">their price</th><th class="w-16 text-right font-normal">sure</th>
        </tr>
      </thead>
      <tbody>
        {#each reading.lines as line (line.no)}<ReadLine {state} {line} count={reading.lines.length} />{/each}
      </tbody>
    </table>
    <LeftOvers {state} />
    <Beside {state} {reading} />
    {#each reading.charges as charge (charge.kind)}<p class="mt-2 text-second">{charge.kind} on their order: {fixed(charge.amount, 2)}</p>{/each}
    {#if reading.note}<p class="mt-2 text-second">They say: “{reading.note}”</p>{/if}
    {#each reading.warnings as warning (warning)}<p class="mt-2 text-notice">{warning}</p>{/each}
    {#if reading.lines.length === 0}<p class="mt-4 text-second">No lines could be read out of it. It can be put aside, with a word about what was done.</p>{/if}
  {:else}
    <p class="text-second">There is no reading: {state.view?.reason}</p>
  {/if}
</section>
