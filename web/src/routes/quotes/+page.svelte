<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { ListPage, type Column } from '$lib/list';
  import { day, fixed } from '$lib/shared';

  type Row = Schemas['QuoteListRow'];
  const columns: Column<Row>[] = [
    { id: 'number', head: 'quote', sort: (q) => q.number },
    { id: 'buyer', head: 'buyer', sort: (q) => q.buyer },
    { id: 'matter', head: 'matter', sort: (q) => q.matter, hide: 'max-md:hidden' },
    { id: 'seller', head: 'seller', sort: (q) => q.seller, hide: 'max-md:hidden' },
    { id: 'state', head: 'where it stands', sort: (q) => words[q.state!] },
    { id: 'until', head: 'holds until', right: true, sort: (q) => q.validUntil, hide: 'max-md:hidden' },
    { id: 'total', head: 'with tax', right: true, sort: (q) => q.total },
    { id: 'currency', head: 'in', sort: (q) => q.currency },
  ];
  const load = (open: boolean) => ask(api.GET('/api/quotes', { params: { query: { open } } }));
  const words = {
    drafting: 'drafting',
    inApproval: 'asked',
    cleared: 'granted',
    withCustomer: 'with the buyer',
    accepted: 'accepted',
    declined: 'declined',
    lapsed: 'lapsed',
    replaced: 'replaced',
    withdrawn: 'withdrawn',
  };
  const today = new Date().toISOString().slice(0, 10);
</script>

<ListPage
  title="Quotes"
  open="that are open"
  all="all of them"
  {columns}
  {load}
  words={(q) => `${q.number} ${q.buyer} ${q.matter} ${q.seller} ${words[q.state!]} ${q.currency}`}
  path={(q) => `/quotes/${q.number}`}
  key={(q) => q.number}
  empty="No quote is open. Turn a request into one, or find a buyer with / and begin."
>
  {#snippet cell(q, c)}
    {#if c.id === 'number'}{q.number}<span class="text-second">·{q.revision}</span>
    {:else if c.id === 'buyer'}<span class="font-serif text-[15px]">{q.buyer}</span>
    {:else if c.id === 'matter'}<span class="text-second">{q.matter}</span>
    {:else if c.id === 'seller'}{q.seller}
    {:else if c.id === 'state'}{words[q.state!]}
    {:else if c.id === 'until'}<span class:text-stop={q.state === 'withCustomer' && q.validUntil <= today}>{day(q.validUntil)}</span>
    {:else if c.id === 'total'}{fixed(q.total, 2)}
    {:else}<span class="text-second">{q.currency}</span>{/if}
  {/snippet}
</ListPage>
