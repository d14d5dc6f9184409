<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, fixed, plain } from '$lib/shared';

  interface Props {
    line: Schemas['LineView'];
    /** Rules that did not make the price. */
    lost: Schemas['LostRule'][];
    /** What may be given on it without asking; null where nothing is said. */
    room: number | null;
  }

  let { line, lost, room }: Props = $props();
  const below = $derived(line.floor !== null && line.netPrice !== null && line.netPrice < line.floor);
</script>

{#if line.build.length > 0}
  <ol class="flex flex-wrap items-start gap-x-2 gap-y-1" aria-label="price build">
    {#each line.build as step, i (i)}
      {#if i > 0}<li class="pt-1 text-second" aria-hidden="true">→</li>{/if}
      <li>
        <div class="font-semibold">{fixed(step.price, 4)}</div>
        <div class="text-[12px] text-second">
          {step.words}{#if step.to}, to {day(step.to)}{/if}
        </div>
      </li>
    {/each}
    {#each lost as rule (rule.kind + rule.rule)}
      <li class="pl-3 text-[12px] text-second">
        <div>
          {#if rule.price !== null}<s class="mr-1">{fixed(rule.price, 4)}</s>{/if}{rule.words}
        </div>
        <div>not taken: {rule.why}</div>
      </li>
    {/each}
    {#if line.marginPercent !== null}
      <li class="pt-1 pl-1 text-second" aria-hidden="true">→</li>
      <li>
        <div class="font-semibold {below ? 'text-stop' : ''}">{line.netPrice === 0 ? 'given away' : `${fixed(line.marginPercent, 1)} % margin`}</div>
        <div class="text-[12px] text-second">
          floor {line.floor === null ? 'none' : fixed(line.floor, 4)},
          {#if line.says.cost !== null}cost typed {fixed(line.says.cost, 4)}{line.says.costWhy ? `, ${line.says.costWhy}` : ''}{#if line.cost !== null}; ours {fixed(
                line.cost,
                4,
              )}{/if}{:else}cost {line.cost === null ? 'unknown' : fixed(line.cost, 4)}{/if}
        </div>
      </li>
    {/if}
    {#if room !== null}
      <li class="ml-auto pt-1 text-[12px] text-second">up to {plain(room)} % without asking</li>
    {/if}
  </ol>
{/if}
