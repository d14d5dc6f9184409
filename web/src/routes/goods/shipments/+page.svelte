<script lang="ts">
  import { ListPage, show } from '$lib/list';
</script>

<ListPage
  name="shipments"
  open="that are being picked"
  all="all of them"
  example="carrier:post went>2026-01-01"
  narrow={['number', 'buyer', 'state']}
  path={(s) => `/goods?shipment=${encodeURIComponent(s.calls)}`}
  empty={() => 'Nothing is being picked. Goods are released on the page of what may go today.'}
>
  {#snippet cell(field, text)}
    {#if field.name === 'buyer'}<span class="font-serif text-[15px]">{text}</span>
    {:else}{show(text, field.type)}{/if}
  {/snippet}
</ListPage>
