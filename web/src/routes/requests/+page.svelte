<script lang="ts">
  import { ListPage, show } from '$lib/list';
</script>

<ListPage
  name="requests"
  open="that wait"
  all="all of them"
  example="state:&quot;needs you&quot; via:edi"
  narrow={['number', 'buyer', 'state', 'received']}
  path={(r) => `/requests/${r.calls}`}
  empty={() => 'Nothing waits. What comes by mail, EDI or the machine door appears here by itself.'}
>
  {#snippet cell(field, text)}
    {#if field.name === 'buyer'}<span class="font-serif text-[15px]">{text || 'unknown'}</span>
    {:else if field.name === 'state'}<span class:needs={text === 'needs you'}>{text}</span>
    {:else}<span class={field.name === 'channel' ? 'text-second' : ''}>{show(text, field.type)}</span>{/if}
  {/snippet}
</ListPage>
