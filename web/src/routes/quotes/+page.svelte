<script lang="ts">
  import { ListPage, show } from '$lib/list';

  const today = new Date().toISOString().slice(0, 10);
</script>

<ListPage
  name="quotes"
  open="that are open"
  all="all of them"
  example="state:asked validUntil<2026-12-31"
  narrow={['number', 'buyer', 'state', 'total', 'currency']}
  path={(q) => `/quotes/${q.calls}`}
  empty={() => 'No quote is open. Turn a request into one, or find a buyer with / and begin.'}
>
  {#snippet cell(field, text)}
    {#if field.name === 'buyer'}<span class="font-serif text-[15px]">{text}</span>
    {:else if field.name === 'validUntil'}<span class:text-stop={text <= today}>{show(text, field.type)}</span>
    {:else}<span class={field.name === 'matter' || field.name === 'currency' ? 'text-second' : ''}>{show(text, field.type)}</span>{/if}
  {/snippet}
</ListPage>
