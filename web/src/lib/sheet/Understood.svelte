<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, fixed, plain } from '$lib/shared';

  /** How the line that is being typed is understood, piece by piece, and what is worth knowing of it. */
  let { choice, currency }: { choice: Schemas['EntryChoiceView']; currency: string } = $props();

  const isFree = $derived(choice.code === null);
  const last = $derived(choice.last);
</script>

{#snippet chip(words: string)}<span class="border border-strong px-1.5">{words}</span>{/snippet}

<div class="flex flex-wrap items-center gap-1.5 px-3 pt-2" aria-label="understood as">
  <span class="border border-strong px-1.5">
    {#if choice.code}<span class="font-mono text-[12px]">{choice.code}</span>{/if}
    {choice.words}
  </span>
  {#if choice.text.startsWith('?')}{@render chip('if wanted')}{/if}
  {#if /^(\? )?or /.test(choice.text)}{@render chip('or the line above')}{/if}
  {#if choice.quantity !== null}{@render chip(`${plain(choice.quantity)} ${choice.unitWord || (choice.quantity === 1 ? 'piece' : 'pieces')}`)}{/if}
  {#if choice.net !== null && choice.discountPercent !== 100}
    {@render chip(choice.discountPercent ? `at ${fixed(choice.net / (1 - choice.discountPercent / 100), 2)}` : `at ${fixed(choice.net, 2)}`)}
  {/if}
  {#if choice.discountPercent}
    {@render chip(
      `${choice.discountPercent < 0 ? 'more' : 'less'} ${plain(Math.abs(choice.discountPercent))} %${choice.net === null ? '' : ` = ${fixed(choice.net, 2)}`}`,
    )}
  {/if}
  {#if choice.wanted}{@render chip(`by ${day(choice.wanted)}`)}{/if}
  {#if choice.note}{@render chip(`“${choice.note}”`)}{/if}
</div>
<p class="px-3 pt-1 pb-2 text-[12px] text-second" role="status">
  {#if isFree}
    <b class="text-ink">not in the catalogue</b> · the words stay{choice.net === null ? ', to be priced or matched' : ' with their price'}
  {:else if choice.unsaid.length > 0}
    <span class="text-stop">not in its name: {choice.unsaid.join(', ')}</span>
  {:else}
    ✓ all of it is understood
  {/if}
  {#if !isFree && choice.price === null}· <span class="text-stop">no price</span>{/if}
  {#if choice.price !== null && choice.net === null}
    · {fixed(choice.price, 4)}
    {currency}{choice.priceBase === 1 ? '' : ` for ${plain(choice.priceBase)}`}
  {/if}
  {#if last}· they paid {fixed(last.price, 4)}
    {last.currency === currency ? '' : last.currency} for {plain(last.quantity)}
    {last.unitWord} on {day(last.day)}{/if}
  {#if choice.freeHere !== null}· {plain(choice.freeHere)} free{/if}
</p>
