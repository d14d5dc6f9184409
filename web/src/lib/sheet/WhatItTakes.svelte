<script lang="ts">
  import { KeyCap } from '$lib/keys';
  import { day, fixed, plain } from '$lib/shared';
  import { Reach } from './reach.svelte';
  import type { SheetState } from './sheet.svelte';

  /** What a wish would mean, before it is done. */
  let { sheet }: { sheet: SheetState } = $props();
  // The panel is made anew with its sheet.
  // svelte-ignore state_referenced_locally
  const reach = new Reach(sheet);
  const d = $derived(sheet.view.decimals);
  const now = $derived(reach.now);
  const wish = $derived(now?.wish ?? null);

  const hands = $derived(new Set(sheet.view.approvals.map((a) => a.hand)).size);

  function keys(event: KeyboardEvent) {
    if (event.key === 'Escape') sheet.reaching = false;
    else if (event.key === 'Enter') void reach.take();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<section aria-label="what would it take" class="mb-4">
  <h2 class="flex justify-between font-semibold">
    <span>What would it take</span><button onclick={() => (sheet.reaching = false)} aria-label="close"><KeyCap>Esc</KeyCap></button>
  </h2>
  <label class="mt-2 block text-second"
    >to end at
    <input
      class="w-24 border-b border-dashed border-strong bg-transparent px-1 font-semibold text-ink outline-none focus:border-ink"
      placeholder="30000, or 28 %"
      bind:value={reach.wish}
      aria-label="wished total, or margin"
      autocomplete="off"
      {@attach (input: HTMLInputElement) => input.focus()}
      onkeydown={keys}
    />
    {wish && !wish.whyNot && wish.lessPercent === null ? 'margin' : 'in all'}</label
  >
  {#if reach.problem}<p role="alert" class="mt-1 text-stop">{reach.problem}</p>{/if}
  <div aria-live="polite" class="mt-1 leading-relaxed text-second">
    {#if wish?.whyNot}
      <p>{wish.whyNot}</p>
    {:else if wish}
      <p>
        {#if wish.lessPercent !== null}less {plain(wish.lessPercent)} % on all,{/if} <b class="text-ink">{fixed(wish.total, d)}</b> in all{#if wish.marginAfter !== null},
          margin {wish.marginBefore === null ? '–' : fixed(wish.marginBefore, 1)} → <b class="text-ink">{fixed(wish.marginAfter, 1)} %</b>{/if}
      </p>
      {#if wish.asks}
        <p>
          {#if wish.approvers.length}<b class="text-ink">{wish.approvers.join(' and ')}</b> must agree:&#32;{/if}{wish.why.join('; ')}
        </p>
      {:else}<p>nobody has to agree</p>{/if}
      <button class="mt-1 text-ink" onclick={() => void reach.take()}><KeyCap>↵</KeyCap> do it</button>
    {/if}
    {#if sheet.view.approvals.length}
      <ul class="mt-1" aria-label="needs approval as it stands">
        {#each sheet.view.approvals as need (need.policy + need.hand)}
          <li>
            {need.words}{#if hands > 1}, typed by {need.hand}{/if}:&#32;{#each need.route as name, i (i)}{i ? ', then ' : ''}{#if name}<b class="text-ink"
                  >{name}</b
                >{:else}<span class="text-stop">nobody may decide it</span>{/if}{/each}
          </li>
        {/each}
      </ul>
    {/if}
    {#if now}
      {#if now.freePercent !== null && now.freeTotal !== null}
        <p class="mt-1">
          yours alone: down to <b class="text-ink">{fixed(now.freeTotal, d)}</b> ({plain(now.freePercent)} %){#if now.nextApprover}, beyond it {now.nextApprover}{/if}
        </p>
      {/if}
      {#if now.there}
        <p>
          all there by <b class="text-ink">{day(now.there.day)}</b>{#if now.there.without}, by {day(now.there.without)} without {now.there.line}{/if}
        </p>
      {/if}
      <p>
        {plain(Number(now.kilograms.toFixed(1)))} kg{#if now.dm3}, {plain(Number(now.dm3.toFixed(0)))} dm³{/if}
      </p>
    {/if}
  </div>
</section>
