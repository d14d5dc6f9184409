<script lang="ts">
  import { api, ask } from '$lib/api';
  import { Words } from '$lib/sheet';

  /** What an order will be invoiced for, to be paid ahead: looked at, and sent. */
  let { order, maySend }: { order: string; maySend: boolean } = $props();
  let dialog = $state<Words>();
  let went = $state('');

  async function send() {
    went = (await ask(api.POST('/api/orders/{number}/pro-forma', { params: { path: { number: order } } }))).to;
  }
</script>

<span class="flex gap-2"
  ><a href="/api/orders/{order}/pro-forma" target="_blank" rel="noopener">pro-forma</a>
  {#if maySend}<button onclick={() => dialog?.open()}>send it…</button>{/if}
  <span role="status">{went ? `it went to ${went}` : ''}</span></span
>
<Words
  bind:this={dialog}
  title="Send a pro-forma invoice?"
  says="It says what will be invoiced, so that it can be paid ahead. It is no invoice: it gets no number, and nothing is booked."
  label=""
  button="Send it"
  take={send}
/>
