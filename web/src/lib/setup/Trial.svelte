<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, fixed } from '$lib/shared';

  /** What a policy would have asked in the last ninety days. */
  let { trial }: { trial: Schemas['TrialView'] } = $props();
  const most = $derived(Math.max(1, ...trial.lookedByWeek));
  let all = $state(false);
  const shown = $derived(all ? trial.documents : trial.documents.slice(0, 6));
</script>

<section aria-label="tried on the past">
  <h2 class="font-serif text-[18px]">Tried on the past: <em class="text-second">{day(trial.from)} to {day(trial.to)}</em></h2>
  {#if trial.untried}<p class="mt-2 border border-hairline bg-sheet p-4">{trial.untried}</p>{:else}<div class="mt-2 border border-hairline bg-sheet p-4">
      <dl class="grid grid-cols-2 gap-4">
        <div>
          <dt class="text-[11.5px] text-second">would have spoken of</dt>
          <dd class="font-serif text-[22px]">{trial.asked} <small class="text-[15px] text-second">of {trial.looked} documents</small></dd>
        </div>
        {#if trial.by.length}<div>
            <dt class="text-[11.5px] text-second">they gave away</dt>
            <dd class="font-serif text-[22px]">{fixed(trial.givenAway, 0)} <small class="text-[15px] text-second">{trial.currency}</small></dd>
          </div>{/if}
      </dl>
      <ol class="mt-3 flex h-14 items-end gap-1" aria-label="by week">
        {#each trial.lookedByWeek as looked, i (i)}
          {@const asked = trial.askedByWeek[i] ?? 0}
          <li class="flex h-full flex-1 flex-col justify-end" title="week {i + 1}: {asked} of {looked}">
            <span class="sr-only">week {i + 1}: {asked} of {looked}</span>
            <span class="block bg-strong" style:height="{((looked - asked) / most) * 100}%" aria-hidden="true"></span>
            <span class="block bg-ink" style:height="{(asked / most) * 100}%" aria-hidden="true"></span>
          </li>
        {/each}
      </ol>
      {#if trial.by.length}
        <p class="mt-2 text-[11.5px] text-second">who would have been asked</p>
        {#each trial.by as by (by.name)}
          <p class="flex justify-between border-b border-hairline py-1 {by.name === 'nobody' ? 'text-stop' : ''}">
            <span>{by.name}</span><span>{by.times}</span>
          </p>
        {/each}
      {/if}
    </div>
    {#if trial.documents.length}
      <table class="mt-3 w-full border-collapse">
        <tbody>
          {#each shown as one (one.number)}
            <tr class="border-b border-hairline">
              <td class="py-1.5 font-mono text-[12px]"><a class="underline" href="/{one.kind}s/{one.number}">{one.number}</a></td>
              <td class="max-w-[170px] truncate px-2">{one.buyer}</td>
              <td class="px-2 text-right whitespace-nowrap text-stop">{one.figure}</td>
              <td class="text-right whitespace-nowrap">{fixed(one.value, 0)} {one.currency}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      {#if trial.documents.length > 6}<button class="mt-1 text-second underline" onclick={() => (all = !all)}
          >{all ? 'fewer' : `${trial.documents.length - 6} more`}</button
        >{/if}
    {/if}{/if}
</section>
