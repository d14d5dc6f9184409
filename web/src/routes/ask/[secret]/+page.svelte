<script lang="ts">
  import { page } from '$app/state';
  import { api, ask, send as post, type Schemas } from '$lib/api';
  import { Latest } from '$lib/shared';

  const latest = new Latest<Schemas['PortalView']>();
  const secret = $derived(page.params.secret ?? '');
  let kind = $state<'order' | 'quote'>('quote');
  let sent = $state('');
  let refused = $state('');
  let busy = $state(false);
  let form = $state<HTMLFormElement>();

  // Meets the server: the address is all that a buyer has.
  $effect(() => void latest.ask(() => ask(api.GET('/api/portal/{secret}', { params: { path: { secret } } })), 'The page could not be opened.'));

  async function send(event: SubmitEvent) {
    event.preventDefault();
    [busy, refused] = [true, ''];
    try {
      sent = (await post<Schemas['PortalSent']>(`/api/portal/${encodeURIComponent(secret)}`, new FormData(form))).number;
      form?.reset();
    } catch (why) {
      refused = why instanceof Error ? why.message : 'It could not be sent; what you wrote is still here.';
    } finally {
      busy = false;
    }
  }
</script>

<svelte:head><title>Write to us</title></svelte:head>
<main class="mx-auto w-full max-w-[720px] px-5 py-8">
  {#if latest.value}
    {@const view = latest.value}
    <p class="text-second">{view.seller}</p>
    <h1 class="font-serif text-[30px] leading-tight">{view.buyer} <em class="text-second">what would you like?</em></h1>
    {#if sent}
      <p class="mt-4 border-l-4 border-ink bg-sheet px-4 py-3" role="status">
        Thank you: it is with us as <b>{sent}</b>. Somebody looks at it and answers by mail; nothing is ordered or delivered before that.
      </p>
    {/if}
    <form bind:this={form} class="mt-5 grid gap-4" onsubmit={send}>
      <fieldset class="flex flex-wrap gap-5">
        <legend class="sr-only">what it is</legend>
        <label><input type="radio" class="radio radio-sm" name="kind" value="quote" bind:group={kind} /> we ask for a price</label>
        <label><input type="radio" class="radio radio-sm" name="kind" value="order" bind:group={kind} /> we order</label>
      </fieldset>
      <label class="grid"
        ><span class="text-second">what and how much, a line each; your own item codes are fine</span>
        <textarea
          name="text"
          required
          maxlength="20000"
          class="textarea h-56 w-full font-serif text-[16px]"
          placeholder="20 bow shackles 10 mm, 200 m black rope 16 mm"></textarea></label
      >
      <div class="grid gap-4 sm:grid-cols-2">
        <label class="grid"
          ><span class="text-second">your PO number{kind === 'order' && view.needsPoNumber ? ', which we need' : ''}</span><input
            name="poNumber"
            class="input w-full"
            maxlength="100"
            required={kind === 'order' && view.needsPoNumber}
          /></label
        >
        <label class="grid"><span class="text-second">wanted by</span><input name="wanted" type="date" class="input w-full" /></label>
        <label class="grid"
          ><span class="text-second">your name</span><input name="who" required class="input w-full" maxlength="100" autocomplete="name" /></label
        >
        <label class="grid"
          ><span class="text-second">where we answer</span><input
            name="mail"
            type="email"
            required
            class="input w-full"
            maxlength="100"
            autocomplete="email"
          /></label
        >
      </div>
      <label class="grid"
        ><span class="text-second">papers or pictures, up to 24 MB together</span><input name="files" type="file" multiple class="file-input w-full" /></label
      >
      <!-- Nobody sees it; programs fill it in. -->
      <div class="hidden" aria-hidden="true"><input name="website" tabindex="-1" autocomplete="off" /></div>
      {#if refused}<p role="alert" class="border-l-4 border-stop px-3 py-1">{refused}</p>{/if}
      <button class="btn justify-self-start btn-primary" disabled={busy}>{busy ? 'Being sent…' : 'Send it'}</button>
    </form>
  {:else if latest.problem}
    <h1 class="font-serif text-[26px]">This page is not open</h1>
    <p class="mt-2 text-second" role="alert">{latest.problem}</p>
  {/if}
</main>
