<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { day, fixed, Latest } from '$lib/shared';
  import { SURE } from './parts';
  import type { RequestState } from './request.svelte';

  /** What was read for the head: who, what for, when and where. */
  let { state: request, reading }: { state: RequestState; reading: Schemas['ReadingView'] } = $props();
  let editing = $state<string | null>(null);
  const buyers = new Latest<Schemas['Found'][]>();

  const kinds: Record<Schemas['MessageKind'], string> = {
    unclear: 'unclear',
    requestForQuotation: 'a request for a quote',
    order: 'an order',
    change: 'a change of an order',
    cancellation: 'a cancellation',
    question: 'a question',
    answerToQuote: 'an answer to our quote',
    return: 'a return',
    reminder: 'a reminder',
    complaint: 'a complaint',
    notForUs: 'not for us',
  };
  const rows = $derived(
    [
      { id: 'contact', label: 'person', field: reading.contact, show: reading.contact.value },
      { id: 'poNumber', label: 'their PO', field: reading.poNumber, show: reading.poNumber.value },
      { id: 'reference', label: 'their ref.', field: reading.reference, show: reading.reference?.value ?? null },
      { id: 'quoteNumber', label: 'our quote', field: reading.quoteNumber, show: reading.quoteNumber?.value ?? null },
      { id: 'wanted', label: 'there by', field: reading.wanted, show: reading.wanted.value ? day(reading.wanted.value) : null },
      { id: 'deliverTo', label: 'where to', field: reading.deliverTo, show: reading.deliverTo.value },
      {
        id: 'incoterm',
        label: 'terms',
        field: reading.incoterm,
        show: [reading.incoterm.value, reading.incotermPlace.value].filter(Boolean).join(' ') || null,
      },
      { id: 'currency', label: 'currency', field: reading.currency, show: reading.currency.value },
      { id: 'paymentDays', label: 'pays in', field: reading.paymentDays, show: reading.paymentDays.value ? `${reading.paymentDays.value} days` : null },
      { id: 'goods', label: 'lines make', field: reading.goods, show: reading.goods?.value ? fixed(Number(reading.goods.value), 2) : null },
    ].filter((r) => r.show || (r.id === 'poNumber' && reading.kind !== 'requestForQuotation') || r.id === 'wanted' || r.id === 'deliverTo'),
  );
  /** A day or a number of theirs that a person decides on. */
  const isOpen = (row: { id: string; field?: Schemas['FieldView'] }) =>
    !!row.field?.value && ((row.id === 'wanted' && row.field.sure < 0.55) || (row.id === 'poNumber' && row.field.sure < SURE));
  const editable = ['contact', 'poNumber', 'reference', 'wanted', 'deliverTo', 'incoterm', 'currency', 'paymentDays'];

  const lookBuyer = (text: string) =>
    text.trim().length > 1
      ? buyers.ask(async () => (await ask(api.GET('/api/find', { params: { query: { q: text } } }))).filter((f) => f.kind === 'buyer'))
      : buyers.take(null);
</script>

<dl>
  <div class="grid grid-cols-[110px_1fr_auto] gap-2 border-b border-hairline py-1">
    <dt class="text-second">it is</dt>
    <dd class="font-semibold" class:needs={(reading.kindSure ?? 1) < SURE}>
      {#if request.open}
        <select class="-ml-1 bg-transparent" aria-label="it is" value={reading.kind} onchange={(e) => void request.correct('kind', e.currentTarget.value)}>
          {#each Object.entries(kinds) as [value, words] (value)}<option {value}>{words}</option>{/each}
        </select>
        {#if (reading.kindSure ?? 1) < SURE && reading.kind !== 'unclear'}
          <button class="ml-2 font-normal underline" onclick={() => void request.correct('kind', reading.kind)}>yes, it is</button>
        {/if}
      {:else}{kinds[reading.kind]}{/if}
    </dd>
  </div>
  <div class="grid grid-cols-[110px_1fr_auto] gap-2 border-b border-hairline py-1 {request.lit === 'buyer' ? 'bg-focus-row' : ''}">
    <dt class="text-second">buyer</dt>
    <dd class="font-semibold">
      {#if editing === 'buyer'}
        <input
          class="w-full border border-ink bg-sheet px-1"
          aria-label="buyer"
          placeholder="part of the name"
          {@attach (i: HTMLInputElement) => i.focus()}
          oninput={(e) => lookBuyer(e.currentTarget.value)}
          onkeydown={(e) => e.key === 'Escape' && (editing = null)}
        />
        {#each buyers.value ?? [] as b (b.id)}<button
            class="block w-full py-0.5 text-left hover:bg-focus-row"
            onclick={() => ((editing = null), void request.correct('buyer', String(b.id)))}>{b.words}</button
          >{/each}
      {:else}
        <button disabled={!request.open} class:needs={reading.buyerId === null} onclick={() => (editing = 'buyer')}
          >{reading.buyer.value ?? 'who is it?'}</button
        >
      {/if}
    </dd>
    <dd class="text-[12px] text-second">{reading.buyer.how}</dd>
  </div>
  {#each (reading.buyerCandidates?.length ?? 0) > 1 ? (reading.buyerCandidates ?? []) : [] as candidate (candidate.id)}
    <div class="grid grid-cols-[110px_1fr_auto] gap-2 border-b border-hairline py-0.5">
      <dt></dt>
      <dd>
        <button class="needs" disabled={!request.open} onclick={() => void request.correct('buyer', String(candidate.id))}>it is {candidate.name}</button>
      </dd>
      <dd class="text-[12px] text-second">{candidate.how}</dd>
    </div>
  {/each}
  {#each rows as row (row.id)}
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <div
      class="grid grid-cols-[110px_1fr_auto] gap-2 border-b border-hairline py-1 {request.lit === row.id ? 'bg-focus-row' : ''}"
      data-reads={row.id}
      onmouseenter={() => (request.lit = row.id)}
      onmouseleave={() => (request.lit = null)}
    >
      <dt class="text-second">{row.label}</dt>
      <dd>
        {#if editing === row.id}
          <input
            class="border border-ink bg-sheet px-1"
            type={row.id === 'wanted' ? 'date' : 'text'}
            aria-label={row.label}
            value={row.field?.value ?? ''}
            {@attach (i: HTMLInputElement) => i.focus()}
            onkeydown={(e) => {
              if (e.key === 'Enter') void request.correct(row.id, e.currentTarget.value);
              if (e.key === 'Enter' || e.key === 'Escape') editing = null;
            }}
          />
        {:else if editable.includes(row.id) && request.open}
          <button class:needs={isOpen(row)} onclick={() => (editing = row.id)}>{row.show ?? '–'}</button>
        {:else}{row.show}{/if}
      </dd>
      <dd class="text-right text-[12px] {isOpen(row) ? 'text-stop' : 'text-second'}">
        {row.field?.value ? row.field.how : ''}
      </dd>
    </div>
  {/each}
</dl>
