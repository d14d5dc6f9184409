<script lang="ts">
  import type { Schemas } from '$lib/api';
  import type { WaysState } from './ways.svelte';

  /** What may go through by itself, as sentences that are written in place. */
  let { ways, view }: { ways: WaysState; view: Schemas['WayView'] } = $props();
  const off = $derived(!view.mayChange);
  const bare = 'border-b border-dashed border-ink bg-transparent font-semibold';
  let said = $state('');
  const retry = () => void ways.tryIt();
</script>

{#if ways.draft}
  <div class="font-serif text-[17px] leading-[1.9]">
    <p>
      It is <select class={bare} bind:value={ways.draft.open} disabled={off || ways.whose !== null} aria-label="open or closed"
        ><option value={true}>open</option><option value={false}>closed: nothing is taken</option></select
      >. Of orders
      <select class={bare} bind:value={ways.draft.through} disabled={off} onchange={retry} aria-label="what goes through"
        ><option value={false}>none goes through by itself</option><option value={true}>those go through by themselves</option></select
      >
      in which nothing is left over, every value is at least
      <input
        class="w-14 border border-ink bg-sheet px-1 text-right"
        type="number"
        min="70"
        max="100"
        bind:value={ways.draft.leastSurePercent}
        disabled={off}
        onchange={retry}
        aria-label="how sure, in percent"
      />
      % sure, and no check says a word{ways.draft.passes.length ? ' but' : ''}{#each ways.draft.passes as check, i (check)}{i ? ', ' : ' '}<button
          class={bare}
          disabled={off}
          title="take it out"
          onclick={() => {
            ways.draft!.passes = ways.draft!.passes.filter((p) => p !== check);
            retry();
          }}>{view.checks.find((c) => c.code === check)?.words ?? check}</button
        >{/each}{#if !off}
        <select
          class="max-w-40 bg-transparent font-sans text-[13px] text-second"
          bind:value={said}
          aria-label="a notice that does not hold it"
          onchange={() => {
            if (said) ways.draft!.passes = [...ways.draft!.passes, said];
            said = '';
            retry();
          }}
          ><option value="">let a notice pass…</option>{#each view.checks.filter((c) => !ways.draft!.passes.includes(c.code)) as check (check.code)}<option
              value={check.code}>{check.words}</option
            >{/each}</select
        >{/if}. A stop always holds. An item that nobody knows holds an order; an address that is not on file
      <select class={bare} bind:value={ways.draft.newAddresses} disabled={off} onchange={retry} aria-label="new addresses"
        ><option value={false}>waits too</option><option value={true}>is taken, and kept with the order</option></select
      >.
    </p>
    <p>
      Who asks for a price
      <select class={bare} bind:value={ways.draft.quotes} disabled={off} aria-label="quotes by themselves"
        ><option value={false}>waits for somebody</option><option value={true}>has a quote begun, for somebody to look at and send</option></select
      >; a change of an order
      <select class={bare} bind:value={ways.draft.changes} disabled={off} aria-label="changes by themselves"
        ><option value={false}>waits for somebody</option><option value={true}>is put onto its order, to be confirmed anew</option></select
      >. Who takes a whole order back always waits.
    </p>
    {#if ways.draft.quotes}
      <p>
        An item that nobody knows
        <select class={bare} bind:value={ways.draft.freeLines} disabled={off} aria-label="unknown items on quotes"
          ><option value={false}>holds a quote up</option><option value={true}>stands on a quote as they wrote it</option></select
        >.
      </p>
    {/if}
    <p>
      <select class={bare} bind:value={ways.draft.keeper} disabled={off} aria-label="who answers for it"
        ><option value={null}>Nobody</option>{#each view.keepers as k (k.code)}<option value={Number(k.code)}>{k.words}</option>{/each}</select
      > answers for what goes through, with their authority.
    </p>
  </div>
  {#if view.mayChange && ways.changed}
    <div class="mt-3 flex gap-3">
      <button class="btn btn-primary btn-sm" onclick={() => void ways.save()}>From now on so</button>
      <button class="btn btn-outline btn-sm" onclick={() => ways.pick(ways.whose)}>As it was</button>
    </div>
  {/if}
{/if}
