<script lang="ts">
  import { tick } from 'svelte';
  import { KeyCap } from '$lib/keys';
  import { DayField, readNumber } from '$lib/shared';
  import type { OutlookState } from './planning.svelte';

  /** More is asked for, or what lies there is counted: one small form at a time. */
  let { state: outlook }: { state: OutlookState } = $props();
  const view = $derived(outlook.view);
  let asking = $state<'more' | 'counted' | null>(null);
  let quantity = $state('');
  let wanted = $state('');
  let reason = $state('');
  let field = $state<HTMLInputElement>();
  // How often it was opened: what was sent from one opening does not close the next.
  let opened = 0;

  export async function open(what: 'more' | 'counted') {
    if (!view) return;
    asking = what;
    opened++;
    quantity = String(what === 'more' ? view.row.propose || '' : view.row.onHand);
    [wanted, reason] = [view.row.proposeFor, ''];
    await tick();
    field?.focus();
    field?.select();
  }

  async function send(event: SubmitEvent) {
    event.preventDefault();
    const number = readNumber(quantity);
    if (number === null) {
      outlook.problem = `“${quantity}” is no number; nothing was changed.`;
      return;
    }
    const from = opened;
    const done = asking === 'more' ? await outlook.askFor(number, wanted) : await outlook.count(number, reason);
    if (done && from === opened) asking = null;
  }
</script>

<svelte:window onkeydown={(e) => e.key === 'Escape' && (asking = null)} />
{#if asking && view}
  <form
    class="flex flex-wrap items-baseline gap-3 border-l-[3px] border-ink bg-sheet px-4 py-2"
    onsubmit={send}
    aria-label={asking === 'more' ? 'ask for more' : 'count'}
  >
    <span>{asking === 'more' ? 'Ask for' : 'There lie'}</span>
    <input
      bind:this={field}
      class="w-24 border-b border-ink bg-transparent text-right"
      bind:value={quantity}
      aria-label="how much"
      inputmode="decimal"
      required
    />
    <span>{view.unit} in {view.warehouse}{asking === 'more' ? ', wanted by' : ', since'}</span>
    {#if asking === 'more'}<DayField bind:value={wanted} label="wanted by" required />
    {:else}<input
        class="w-64 border-b border-ink bg-transparent"
        bind:value={reason}
        placeholder="counted after the storm"
        aria-label="why it was counted"
        required
      />{/if}
    <button class="btn btn-primary btn-sm">{asking === 'more' ? 'Write it out' : 'Keep what was counted'}</button>
    <button type="button" class="underline" onclick={() => (asking = null)}>not now <KeyCap>Esc</KeyCap></button>
    {#if asking === 'more' && view.row.asked}<span class="text-second">{view.row.asked} asked for already, not answered yet</span>{/if}
  </form>
{/if}
