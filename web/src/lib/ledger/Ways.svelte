<script lang="ts">
  import { page } from '$app/state';
  import { useSession } from '$lib/session';

  /** From one page of money to the next. */
  const session = useSession();
  const ways = $derived([
    { path: '/ledger', name: 'to invoice' },
    { path: '/ledger/invoices', name: 'invoices' },
    ...(session.person?.seesLedger
      ? [
          { path: '/ledger/bank', name: 'money that came' },
          { path: '/ledger/owed', name: 'owed' },
          { path: '/ledger/entries', name: 'entries' },
          { path: '/ledger/balance', name: 'accounts' },
        ]
      : []),
    ...(session.person?.seesCommissions ? [{ path: '/ledger/commissions', name: 'commissions' }] : []),
  ]);
</script>

<nav class="flex flex-wrap gap-x-4 text-second" aria-label="money">
  {#each ways as way (way.path)}
    {#if page.url.pathname === way.path}<span class="text-ink" aria-current="page">{way.name}</span>{:else}<a class="underline" href={way.path}>{way.name}</a
      >{/if}
  {/each}
</nav>
