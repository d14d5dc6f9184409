<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap, useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { day, fixed, Latest, Problem } from '$lib/shared';
  import BeforeInvoice from './BeforeInvoice.svelte';

  /** The money of a confirmed order: its invoices, and what went that none of them has. */
  let { order, onmoved }: { order: string; onmoved: () => void } = $props();
  const latest = new Latest<Schemas['OrderMoneyView']>();
  const load = () => latest.ask(() => ask(api.GET('/api/orders/{number}/money', { params: { path: { number: order } } })), 'Its invoices could not be loaded.');
  const money = $derived(latest.value);
  const may = $derived(!!money?.mayBill && money.toBill.length > 0);
  let dialog = $state<BeforeInvoice>();

  // Meets the server.
  $effect(() => void load());
  usePulse(
    (subject) => subject === order,
    () => void load(),
  );

  async function issued() {
    await load();
    onmoved();
  }
  useKeys(() => (may ? [{ key: 'f', words: 'invoice what went', run: () => void dialog?.open(order) }] : []));
</script>

<Problem words={latest.problem} />
{#if money && (money.invoices.length || money.toBill.length || money.carriage)}
  <section class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hairline py-1" aria-label="its money">
    {#each money.invoices as i (i.number)}
      <span
        ><a class="font-mono text-[12px] hover:underline" href="/ledger/invoices/{i.number}">{i.number}</a>
        {money.currency}
        {fixed(i.isCredit ? -i.total : i.total, 2)}
        <span class="text-second"
          >{i.isCredit
            ? `for ${i.credits}`
            : i.isDeposit
              ? 'for a deposit'
              : i.open > 0
                ? `${i.isCollected ? 'with other orders, ' : ''}${fixed(i.open, 2)} open, due ${day(i.due)}`
                : 'paid'}</span
        ></span
      >
    {/each}
    {#if money.carriage}
      <span class="text-second" title="freight and other charges on its invoices, beside what carriers said"
        >carriers took {money.carriage.currency} {fixed(money.carriage.took, 2)}, charged {fixed(money.carriage.charged, 2)}</span
      >
    {/if}
    {#if money.toBill.length}
      <span class="text-second">to invoice: <span class="font-mono text-[12px]">{money.toBill.join(' ')}</span></span>
      {#if may}<button class="underline" onclick={() => void dialog?.open(order)}>Invoice what went <KeyCap>F</KeyCap></button>{/if}
    {/if}
  </section>
{/if}
<BeforeInvoice bind:this={dialog} onissued={() => void issued()} />
