<script lang="ts">
  import { trackOf } from '$lib/document';
  import { ListPage, show } from '$lib/list';
</script>

<ListPage
  name="orders"
  open="that are not done"
  all="all of them"
  example="terms:held total>1000"
  narrow={['number', 'buyer', 'terms', 'total', 'currency']}
  path={(o) => `/orders/${o.calls}`}
  empty={() => 'No order is under way. An accepted quote, or a request that is an order, becomes one with one key.'}
>
  {#snippet cell(field, text)}
    {#if field.type === 'track'}
      {@const track = trackOf(field.name, text)}
      <span class="block text-[11.5px] leading-4 text-second"><span class={text === 'held' ? 'needs text-ink' : ''}>{track.words}</span></span>
      <span class="block h-[3px] w-20 bg-hairline"><span class="block h-[3px] {track.tone}" style:width="{track.share}%"></span></span>
    {:else if field.name === 'buyer'}<span class="font-serif text-[15px]">{text}</span>
    {:else}<span class={field.name === 'channel' || field.name === 'currency' ? 'text-second' : ''}>{show(text, field.type)}</span>{/if}
  {/snippet}
</ListPage>
