<script lang="ts">
  import { tick } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { formKeys, KeyCap } from '$lib/keys';
  import { readNumber } from '$lib/shared';

  /** What is missing until a prospect is a customer, asked for at once. */
  let { onmade }: { onmade: (words: string, terms: Readonly<Record<string, string>>) => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  let view = $state.raw<Schemas['ProspectView'] | null>(null);
  let body = $state({ taxNumber: '', days: '', incoterm: '', incotermPlace: '', mail: '', documentsBy: 'mail', address: '', limit: '', why: '', notThem: '' });
  let problem = $state('');
  let busy = $state(false);

  export async function open(buyer: number) {
    [view, problem] = [null, ''];
    dialog?.showModal();
    try {
      const found = await ask(api.GET('/api/buyers/{id}/prospect', { params: { path: { id: buyer } } }));
      const { taxNumber, incoterm, incotermPlace, mail, documentsBy, address } = found;
      body = { taxNumber, days: String(found.paymentDays ?? ''), incoterm, incotermPlace, mail, documentsBy, address, limit: '', why: '', notThem: '' };
      view = found;
      await tick();
      dialog?.querySelector('input')?.focus();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'What is on file of them could not be loaded.';
    }
  }

  async function make(event: SubmitEvent) {
    event.preventDefault();
    if (!view) return;
    const limit = body.limit.trim() ? readNumber(body.limit) : 0;
    const paymentDays = readNumber(body.days);
    if (limit === null || paymentDays === null) {
      problem = `“${limit === null ? body.limit : body.days}” is no number; nothing was kept.`;
      return;
    }
    busy = true;
    try {
      const { taxNumber, incoterm, incotermPlace, mail, documentsBy, address, why, notThem } = body;
      const made = await ask(
        api.POST('/api/buyers/{id}/customer', {
          params: { path: { id: view.id } },
          body: { taxNumber, paymentDays, incoterm, incotermPlace, mail, documentsBy, address, limit, why, notThem },
        }),
      );
      dialog?.close();
      onmade(made.words, { paymentDays: String(paymentDays), incoterm, incotermPlace, documentsBy });
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'Nothing was kept; what you typed is still here.';
    } finally {
      busy = false;
    }
  }
</script>

{#snippet field(name: 'taxNumber' | 'days' | 'incoterm' | 'incotermPlace' | 'mail' | 'address' | 'limit' | 'why', label: string, hint = '', required = false)}
  <label class="grid grid-cols-[150px_1fr] items-baseline gap-3"
    ><span class="text-second">{label}</span><span
      ><input class="w-full border border-strong bg-sheet px-2 py-1" bind:value={body[name]} {required} autocomplete="off" />
      {#if hint}<span class="block text-[12px] text-second">{hint}</span>{/if}</span
    ></label
  >
{/snippet}

<dialog bind:this={dialog} class="m-auto w-[min(600px,94vw)] border border-strong bg-sheet p-5 text-ink" aria-label="Make them a customer">
  <form onsubmit={make} {@attach formKeys} class="grid gap-2.5">
    <h2 class="font-serif text-lg">Make {view?.name ?? 'them'} a customer</h2>
    {#if view?.restricted}
      <p class="text-stop" role="alert">
        {view.isSame ? 'On the list of what we may not deliver to:' : 'Much like one on the list of what we may not deliver to:'}
        {view.restricted}
      </p>
    {:else if view}<p class="text-second">Neither they nor their country are on the list of what we may not deliver to.</p>{/if}
    {#if view && !view.isSame}
      {@render field('taxNumber', 'tax number', 'its form and check digit are looked at; empty where they have none')}
      {@render field('days', 'days to pay', `up to ${view.usualDays} are the house’s usual ones`, true)}
      {@render field('incoterm', 'Incoterm', '', true)}
      {@render field('incotermPlace', 'named place', '', true)}
      {@render field('mail', 'mail for documents', '', true)}
      <label class="grid grid-cols-[150px_1fr] items-baseline gap-3"
        ><span class="text-second">documents go by</span><select class="w-32 bg-transparent" bind:value={body.documentsBy}
          >{#each view.waysOut as way (way)}<option>{way}</option>{/each}</select
        ></label
      >
      {@render field('address', 'address for invoices', '', true)}
      {@render field('limit', `credit limit, ${view.currency}`, 'credit control is asked for it, where it is not yours to keep')}
      {@render field('why', 'why so much?')}
      {#if view.restricted}
        <label class="grid grid-cols-[150px_1fr] items-baseline gap-3"
          ><span class="text-second">why they are not they</span><textarea class="border border-strong bg-sheet p-2" rows="2" bind:value={body.notThem} required
          ></textarea></label
        >
      {/if}
    {/if}
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-2">
      {#if view && !view.isSame}<button class="btn btn-primary btn-sm" disabled={busy}
          >Make them a customer <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button
        >{/if}
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
