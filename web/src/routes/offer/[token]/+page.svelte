<script lang="ts">
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api';
  import { fixed, plain } from '$lib/shared';

  let offer = $state.raw<Schemas['OfferView'] | null>(null);
  let problem = $state('');
  let answer = $state<'accept' | 'decline' | null>(null);
  let name = $state('');
  let po = $state('');
  let reason = $state('');
  let refused = $state('');
  let busy = $state(false);
  const token = $derived(page.params.token ?? '');

  // Meets the server: the link is all that a buyer has.
  $effect(() => {
    ask(api.GET('/api/offers/{token}', { params: { path: { token } } })).then(
      (found) => (offer = found),
      (why: unknown) => (problem = why instanceof Error ? why.message : 'The quote could not be opened.'),
    );
  });

  async function send(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    refused = '';
    try {
      const path = { params: { path: { token } } };
      offer =
        answer === 'accept'
          ? await ask(api.POST('/api/offers/{token}/accept', { ...path, body: { name, poNumber: po || null } }))
          : await ask(api.POST('/api/offers/{token}/decline', { ...path, body: { name: name || null, reason } }));
      answer = null;
    } catch (why) {
      refused = why instanceof Error ? why.message : 'That did not arrive; what you typed is still here.';
    } finally {
      busy = false;
    }
  }

  const long = (iso: string) => new Date(`${iso}T12:00:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
  const d = $derived(offer?.decimals ?? 2);
  const numbers = $derived.by(() => {
    let n = 0;
    return (offer?.lines ?? []).map((l) => (l.isHeading ? 0 : ++n));
  });
</script>

<svelte:head><title>{offer ? `Quote ${offer.number}` : 'Quote'}</title></svelte:head>
<main class="mx-auto max-w-[820px] p-4 text-[14px] sm:p-8">
  {#if problem}<p role="alert" class="mt-20 text-center font-serif text-[19px]">{problem}</p>{/if}
  {#if offer}
    <article class="border border-hairline bg-sheet p-5 sm:p-10">
      <header class="flex flex-wrap items-end justify-between gap-3 border-b border-ink pb-3">
        <p class="font-serif text-[24px] leading-tight">{offer.seller}</p>
        <p class="text-right text-[12px] text-second">
          {#each offer.sellerLines as line (line)}{line}<br />{/each}
        </p>
      </header>
      <div class="mt-5 flex flex-wrap justify-between gap-6">
        <p>
          <b>{offer.buyer}</b><br />{#if offer.contact}for {offer.contact}{/if}
        </p>
        <dl class="grid grid-cols-[auto_1fr] gap-x-4">
          <dt class="text-second">date</dt>
          <dd>{long(offer.date)}</dd>
          <dt class="text-second">holds until</dt>
          <dd>{long(offer.validUntil)}</dd>
          {#if offer.paymentDays !== null}<dt class="text-second">payment</dt>
            <dd>{offer.paymentDays} days net</dd>{/if}
          {#if offer.incoterm}<dt class="text-second">delivery</dt>
            <dd>{offer.incoterm} {offer.incotermPlace ?? ''}</dd>{/if}
          {#if offer.deliverTo}<dt class="text-second">deliver to</dt>
            <dd>{offer.deliverTo}</dd>{/if}
        </dl>
      </div>
      <h1 class="mt-7 font-serif text-[21px]">
        Quote <span class="font-mono text-[14px]">{offer.number}·{offer.revision}</span> <em class="text-second">{offer.matter}</em>
      </h1>
      <div class="overflow-x-auto">
        <table class="mt-3 w-full">
          <thead>
            <tr class="border-b border-ink text-[12px] text-second">
              <th class="w-7 text-left font-normal"><span class="sr-only">line</span></th><th class="py-1 text-left font-normal">what</th><th
                class="px-2 text-right font-normal">quantity</th
              >
              <th class="px-2 text-right font-normal max-sm:hidden">price</th><th class="px-2 text-right font-normal max-sm:hidden">less</th><th
                class="text-right font-normal">{offer.currency}</th
              >
            </tr>
          </thead>
          <tbody>
            {#each offer.lines as line, i (i)}
              {#if line.isHeading}
                <tr><td colspan="6" class="pt-3 font-serif text-[16px] italic">{line.words}</td></tr>
              {:else}
                <tr class="border-b border-hairline align-top {line.optional ? 'text-second' : ''}">
                  <td class="py-1.5 text-second">{numbers[i]}</td>
                  <td class="py-1.5"
                    >{line.optional ? 'if wanted: ' : ''}{line.words}<br /><span class="font-mono text-[11.5px] text-second">{line.code}</span
                    >{#if line.note}<span class="text-second"> · {line.note}</span>{/if}</td
                  >
                  <td class="px-2 py-1.5 text-right whitespace-nowrap">{plain(line.quantity)} {line.unitWord}</td>
                  <td class="px-2 py-1.5 text-right max-sm:hidden"
                    >{line.price === null ? '' : fixed(line.price, 4)}{line.priceBase === 1 ? '' : ` / ${plain(line.priceBase)}`}</td
                  >
                  <td class="px-2 py-1.5 text-right max-sm:hidden">{line.discountPercent ? `${plain(line.discountPercent)} %` : ''}</td>
                  <td class="py-1.5 text-right">{line.optional ? `(${fixed(line.amount, d)})` : fixed(line.amount, d)}</td>
                </tr>
              {/if}
            {/each}
          </tbody>
        </table>
      </div>
      <dl class="mt-4 ml-auto grid w-full max-w-80 grid-cols-[1fr_auto] gap-y-0.5">
        <dt class="text-second">goods</dt>
        <dd class="text-right">{fixed(offer.goods, d)}</dd>
        {#if offer.sheetDiscount}<dt class="text-second">less</dt>
          <dd class="text-right">{fixed(-offer.sheetDiscount, d)}</dd>{/if}
        {#each offer.charges as charge (charge.kind)}<dt class="text-second">{charge.kind}</dt>
          <dd class="text-right">{fixed(charge.amount, d)}</dd>{/each}
        <dt class="text-second">without tax</dt>
        <dd class="text-right">{fixed(offer.totalWithoutTax, d)}</dd>
        {#each offer.taxes as tax (tax.words)}<dt class="text-second">tax, {tax.words}, on {fixed(tax.basis, d)}</dt>
          <dd class="text-right">{fixed(tax.tax, d)}</dd>{/each}
        <dt class="mt-1 border-t border-ink pt-1 font-semibold">in all, {offer.currency}</dt>
        <dd class="mt-1 border-t border-ink pt-1 text-right font-semibold">{fixed(offer.totalWithTax, d)}</dd>
      </dl>
      {#if offer.note}<p class="mt-5">{offer.note}</p>{/if}
      <p class="mt-5"><a class="underline" href="/api/offers/{token}/print" download>Save it as a PDF</a></p>
    </article>

    <section class="mt-5" aria-live="polite" aria-label="your answer">
      {#if !offer.open}
        <p class="font-serif text-[19px]">{offer.why}</p>
      {:else if answer === null}
        <div class="flex flex-wrap gap-3">
          <button class="btn btn-primary" onclick={() => (answer = 'accept')}>Accept this quote…</button>
          <button class="btn btn-outline" onclick={() => (answer = 'decline')}>Decline…</button>
        </div>
        <p class="mt-3 text-second">Questions? Answer the letter that brought you here; it reaches {offer.sellerPerson}.</p>
      {:else}
        <form onsubmit={send} class="grid gap-3 border border-hairline bg-sheet p-5">
          <h2 class="font-serif text-[19px]">
            {answer === 'accept'
              ? `Accept quote ${offer.number}·${offer.revision} over ${fixed(offer.totalWithTax, d)} ${offer.currency}`
              : 'Decline the quote'}
          </h2>
          <label class="grid gap-1"
            ><span class="text-second">your name{answer === 'accept' ? '' : ' (if you like)'}</span><input
              class="border border-strong bg-sheet px-2 py-1.5"
              bind:value={name}
              autocomplete="name"
              required={answer === 'accept'}
            /></label
          >
          {#if answer === 'accept'}
            <label class="grid gap-1"
              ><span class="text-second">your PO number{offer.poNumberRequired ? '' : ' (if you have one)'}</span><input
                class="border border-strong bg-sheet px-2 py-1.5"
                bind:value={po}
                required={offer.poNumberRequired}
              /></label
            >
          {:else}
            <label class="grid gap-1"
              ><span class="text-second">why? It helps us do better</span><textarea
                class="border border-strong bg-sheet p-2"
                rows="3"
                bind:value={reason}
                required></textarea></label
            >
          {/if}
          {#if refused}<p role="alert" class="text-stop">{refused}</p>{/if}
          <div class="flex gap-3">
            <button class="btn btn-primary" disabled={busy}>{answer === 'accept' ? 'Accept' : 'Decline'}</button>
            <button type="button" class="btn btn-outline" onclick={() => (answer = null)}>Back</button>
          </div>
        </form>
      {/if}
    </section>
  {/if}
</main>
