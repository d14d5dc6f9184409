<script lang="ts">
  import { Ways } from '$lib/ledger';
  import { ListPage, show } from '$lib/list';
</script>

<div class="flex justify-end px-5 pt-3"><Ways /></div>
<ListPage
  name="invoices"
  open="of which something is open"
  all="all of them"
  example="buyer:tressel due<2026-12-01"
  narrow={['number', 'buyer', 'open']}
  path={(i) => `/ledger/invoices/${encodeURIComponent(i.calls)}`}
  empty={() => 'No invoice is open.'}
>
  {#snippet cell(field, text)}
    {#if field.name === 'buyer'}<span class="font-serif text-[15px]">{text}</span>
    {:else}{show(text, field.type)}{/if}
  {/snippet}
</ListPage>
