<script lang="ts">
  import { ListPage, show } from '$lib/list';
</script>

<ListPage
  name="asks"
  open="that wait"
  all="all of them"
  example="open:no by:paz"
  narrow={['number', 'buyer', 'outcome', 'with']}
  path={(a) => `/asks/${a.calls}`}
  empty={() => 'No ask waits. open:no shows what was decided.'}
>
  {#snippet cell(field, text)}
    {#if field.name === 'buyer'}<span class="font-serif text-[15px]">{text}</span>
    {:else}<span class={field.name === 'why' || field.name === 'note' ? 'text-second' : ''}>{show(text, field.type)}</span>{/if}
  {/snippet}
</ListPage>
