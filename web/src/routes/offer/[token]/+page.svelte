<script lang="ts">
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api';
  import { PrintedQuote } from '$lib/printed';
  import { fill, fixedIn, Latest } from '$lib/shared';

  const latest = new Latest<Schemas['OfferView']>();
  const offer = $derived(latest.value);
  const problem = $derived(latest.problem);
  let answer = $state<'accept' | 'decline' | null>(null);
  let name = $state('');
  let po = $state('');
  let reason = $state('');
  let refused = $state('');
  let busy = $state(false);
  const token = $derived(page.params.token ?? '');
  // Of quotes to choose from: which one, where it is not the link's own.
  const of = $derived(page.url.searchParams.get('of'));

  // Meets the server: the link is all that a buyer has.
  $effect(() => {
    const params = { path: { token }, query: { of: of ?? undefined } };
    void latest.ask(() => ask(api.GET('/api/offers/{token}', { params })), 'The quote could not be opened.');
  });

  async function send(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    refused = '';
    try {
      const path = { params: { path: { token } } };
      latest.take(
        answer === 'accept'
          ? await ask(api.POST('/api/offers/{token}/accept', { ...path, body: { name, poNumber: po || null, chosen, of } }))
          : await ask(api.POST('/api/offers/{token}/decline', { ...path, body: { name: name || null, reason, of } })),
      );
      answer = null;
    } catch (why) {
      refused = why instanceof Error ? why.message : (w['offer.lost'] ?? '');
    } finally {
      busy = false;
    }
  }

  // What they would take is asked for at once: the total under it is what they sign.
  let choosing = 0;
  async function choose(chosen: number[]) {
    const path = { params: { path: { token } } };
    const mine = ++choosing;
    refused = '';
    try {
      const found = await ask(api.POST('/api/offers/{token}/choice', { ...path, body: { chosen, of } }));
      // Of several in a hurry the last one counts.
      if (mine === choosing) latest.take(found);
    } catch (why) {
      refused = why instanceof Error ? why.message : (w['offer.lost'] ?? '');
    }
  }

  const open = $derived((offer?.lines ?? []).filter((l) => l.optional || l.oneOf));
  const chosen = $derived(open.filter((l) => l.counts).map((l) => l.key));
  const w = $derived(offer?.words ?? {});
  const tag = $derived(!offer || offer.language === 'en' ? 'en-IE' : offer.language);
  const total = $derived(offer ? `${fixedIn(tag, offer.totalWithTax, offer.decimals)} ${offer.currency}` : '');
</script>

<svelte:head><title>{offer ? `${w.quote} ${offer.number}` : 'Quote'}</title></svelte:head>
<main class="mx-auto max-w-[820px] p-4 text-[14px] sm:p-8">
  {#if problem}<p role="alert" class="mt-20 text-center font-serif text-[19px]">{problem}</p>{/if}
  {#if offer}
    {#if offer.toChoose.length > 1}
      <nav class="mb-4" lang={offer.language} aria-label={w['offer.oneOfQuotes']}>
        <p class="text-second">{w['offer.oneOfQuotes']}</p>
        <ul class="mt-1 flex flex-wrap gap-5">
          {#each offer.toChoose as q (q.number)}
            <li>
              <a class={q.here ? 'font-semibold' : 'underline'} aria-current={q.here || undefined} href="?of={q.number}"
                ><span class="font-mono text-[13px]">{q.number}</span> {fixedIn(tag, q.total, offer.decimals)} {offer.currency}</a
              >
            </li>
          {/each}
        </ul>
      </nav>
    {/if}
    <PrintedQuote {offer} onchoose={offer.open && answer === null && open.length ? (keys) => void choose(keys) : undefined}>
      {#if offer.open && open.length}<p class="mt-4 text-second">{w['offer.choose']}</p>{/if}
      {#if offer.files.length}
        <ul class="mt-4">
          {#each offer.files as file (file.id)}
            <li><a class="underline" href="/api/offers/{token}/files/{file.id}{of ? `?of=${of}` : ''}" download>{file.name}</a></li>
          {/each}
        </ul>
      {/if}
      <p class="mt-5"><a class="underline" href="/api/offers/{token}/print{of ? `?of=${of}` : ''}" download>{w['offer.save']}</a></p>
    </PrintedQuote>

    <section class="mt-5" aria-live="polite" aria-label={w['offer.yourAnswer']} lang={offer.language}>
      {#if !offer.open}
        <p class="font-serif text-[19px]">{offer.why}</p>
      {:else if answer === null}
        <div class="flex flex-wrap gap-3">
          <button class="btn btn-primary" onclick={() => (answer = 'accept')}>{w['offer.accept']}</button>
          <button class="btn btn-outline" onclick={() => (answer = 'decline')}>{w['offer.decline']}</button>
        </div>
        {#if refused}<p role="alert" class="mt-3 text-stop">{refused}</p>{/if}
        <p class="mt-3 text-second">{fill(w['offer.questions'], offer.sellerPerson)}</p>
      {:else}
        <form onsubmit={send} class="grid gap-3 border border-hairline bg-sheet p-5">
          <h2 class="font-serif text-[19px]">
            {answer === 'accept' ? fill(w['offer.acceptOver'], `${offer.number}·${offer.revision}`, total) : w['offer.declineHead']}
          </h2>
          <label class="grid gap-1"
            ><span class="text-second">{answer === 'accept' ? w['offer.name'] : w['offer.nameIfYouLike']}</span><input
              class="border border-strong bg-sheet px-2 py-1.5"
              bind:value={name}
              autocomplete="name"
              required={answer === 'accept'}
            /></label
          >
          {#if answer === 'accept'}
            <label class="grid gap-1"
              ><span class="text-second">{offer.poNumberRequired ? w['offer.po'] : w['offer.poIfAny']}</span><input
                class="border border-strong bg-sheet px-2 py-1.5"
                bind:value={po}
                required={offer.poNumberRequired}
              /></label
            >
          {:else}
            <label class="grid gap-1"
              ><span class="text-second">{w['offer.why']}</span><textarea class="border border-strong bg-sheet p-2" rows="3" bind:value={reason} required
              ></textarea></label
            >
          {/if}
          {#if refused}<p role="alert" class="text-stop">{refused}</p>{/if}
          <div class="flex gap-3">
            <button class="btn btn-primary" disabled={busy}>{answer === 'accept' ? w['offer.acceptNow'] : w['offer.declineNow']}</button>
            <button type="button" class="btn btn-outline" onclick={() => (answer = null)}>{w['offer.back']}</button>
          </div>
        </form>
      {/if}
    </section>
  {/if}
</main>
