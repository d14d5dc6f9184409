<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { tracks } from '$lib/document';
  import { ListPage, type Column } from '$lib/list';
  import { day, fixed } from '$lib/shared';

  type Row = Schemas['OrderListRow'];
  const columns: Column<Row>[] = [
    { id: 'number', head: 'order', sort: (o) => o.number },
    { id: 'buyer', head: 'buyer', sort: (o) => o.buyer },
    { id: 'po', head: 'their PO', sort: (o) => o.poNumber, hide: 'max-md:hidden' },
    { id: 'wanted', head: 'wanted', right: true, sort: (o) => o.wanted ?? '', hide: 'max-md:hidden' },
    { id: 'Terms', head: 'terms', sort: (o) => o.terms },
    { id: 'Goods', head: 'goods', sort: (o) => o.goods, hide: 'max-md:hidden' },
    { id: 'Money', head: 'money', sort: (o) => o.money, hide: 'max-md:hidden' },
    { id: 'total', head: 'with tax', right: true, sort: (o) => o.total },
    { id: 'currency', head: 'in', sort: (o) => o.currency },
    { id: 'via', head: 'via', sort: (o) => o.channel, hide: 'max-md:hidden' },
  ];
  const load = (open: boolean) => ask(api.GET('/api/orders', { params: { query: { open } } }));

  function sums(rows: readonly Row[]) {
    const by = new Map<string, number>();
    for (const o of rows) by.set(o.currency, (by.get(o.currency) ?? 0) + o.total);
    return [...by].sort(([, a], [, b]) => b - a);
  }
</script>

<ListPage
  title="Orders"
  open="that are not done"
  all="all of them, the newest 2,000"
  {columns}
  {load}
  words={(o) => `${o.number} ${o.buyer} ${o.poNumber} ${o.matter} ${o.channel} ${o.terms} ${o.goods} ${o.money} ${o.currency}`}
  path={(o) => `/orders/${o.number}`}
  key={(o) => o.number}
  empty="No order is under way. An accepted quote, or a request that is an order, becomes one with one key."
>
  {#snippet cell(o, c)}
    {@const track = tracks(o).find((t) => t.name === c.id)}
    {#if track}
      {@const held = c.id === 'Terms' && o.stops > 0}
      <span class="block text-[11.5px] leading-4 text-second" title={held ? o.firstStop : undefined}
        ><span class={held ? 'needs text-ink' : ''}>{track.words}</span></span
      >
      <span class="block h-[3px] w-20 bg-hairline"><span class="block h-[3px] {track.tone}" style:width="{track.share}%"></span></span>
    {:else if c.id === 'number'}{o.number}
    {:else if c.id === 'buyer'}<span class="font-serif text-[15px]">{o.buyer}</span>
    {:else if c.id === 'po'}<span class="font-mono text-[12px]">{o.poNumber}</span>
    {:else if c.id === 'wanted'}{o.wanted ? day(o.wanted) : ''}
    {:else if c.id === 'total'}{fixed(o.total, 2)}
    {:else if c.id === 'currency'}<span class="text-second">{o.currency}</span>
    {:else}<span class="text-second">{o.channel}</span>{/if}
  {/snippet}
  {#snippet foot(rows)}
    <span class="text-second">{rows.length} orders</span>
    <span class="ml-auto flex gap-5 font-semibold"
      >{#each sums(rows) as [currency, sum] (currency)}<span>{currency} {fixed(sum, 2)}</span>{/each}</span
    >
  {/snippet}
</ListPage>
