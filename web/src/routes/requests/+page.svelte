<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { ListPage, type Column } from '$lib/list';
  import { since } from '$lib/shared';

  type Row = Schemas['RequestListRow'];
  const columns: Column<Row>[] = [
    { id: 'number', head: 'request', sort: (r) => r.number },
    { id: 'buyer', head: 'buyer', sort: (r) => r.buyer || r.from },
    { id: 'subject', head: 'what about', sort: (r) => r.subject, hide: 'max-md:hidden' },
    { id: 'state', head: 'where it stands', sort: (r) => r.state },
    { id: 'channel', head: 'via', sort: (r) => r.channel, hide: 'max-md:hidden' },
    { id: 'age', head: 'waits', right: true, sort: (r) => r.receivedAt },
  ];
  const load = (open: boolean) => ask(api.GET('/api/requests', { params: { query: { open } } }));
  const words = { new: 'read, ready', reading: 'being read', needsYou: 'needs you', turned: 'turned', answered: 'answered', setAside: 'set aside' };
</script>

<ListPage
  title="Requests"
  open="that wait"
  all="all of them"
  {columns}
  {load}
  words={(r) => `${r.number} ${r.buyer} ${r.from} ${r.subject} ${r.reason} ${r.channel} ${words[r.state]}`}
  path={(r) => `/requests/${r.number}`}
  key={(r) => r.number}
  empty="Nothing waits. What comes by mail, EDI or the machine door appears here by itself."
>
  {#snippet cell(r, c)}
    {#if c.id === 'number'}{r.number}
    {:else if c.id === 'buyer'}<span class="font-serif text-[15px]">{r.buyer || r.from || 'unknown'}</span>
    {:else if c.id === 'subject'}{r.subject}
    {:else if c.id === 'state'}<span class:needs={r.state === 'needsYou'}>{r.reason || words[r.state]}</span>
    {:else if c.id === 'channel'}<span class="text-second">{r.channel}</span>
    {:else}{since(r.receivedAt)}{/if}
  {/snippet}
</ListPage>
