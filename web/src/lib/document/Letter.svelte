<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { PrintedQuote } from '$lib/printed';

  let { take }: { take: (letter: Schemas['LetterView']) => Promise<void> } = $props();
  let dialog = $state<HTMLDialogElement>();
  let letter = $state<Schemas['LetterView']>({ to: '', subject: '', text: '' });
  let print = $state.raw<Schemas['OfferView'] | null>(null);
  let problem = $state('');
  let busy = $state(false);

  export async function open(number: string) {
    const path = { params: { path: { number } } };
    [letter, print] = await Promise.all([ask(api.GET('/api/quotes/{number}/letter', path)), ask(api.GET('/api/quotes/{number}/preview', path))]);
    problem = '';
    dialog?.showModal();
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    try {
      await take(letter);
      dialog?.close();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not sent; your letter is still here.';
    } finally {
      busy = false;
    }
  }
</script>

<dialog bind:this={dialog} class="m-auto w-[min(1100px,96vw)] border border-strong bg-sheet p-5 text-ink" aria-label="send the quote">
  <form onsubmit={submit} class="grid gap-5 md:grid-cols-2">
    <div class="grid content-start gap-3">
      <h2 class="font-serif text-lg">Send it</h2>
      <p class="text-second">The buyer gets this letter with the quote as a PDF. A copy is kept; after that this revision is fixed.</p>
      <label class="grid gap-1"
        ><span class="text-second">to</span><input class="border border-strong bg-sheet px-2 py-1" type="email" bind:value={letter.to} required /></label
      >
      <label class="grid gap-1"
        ><span class="text-second">subject</span><input class="border border-strong bg-sheet px-2 py-1" bind:value={letter.subject} required /></label
      >
      <label class="grid gap-1"
        ><span class="text-second">letter; {'{link}'} becomes the buyer’s link</span><textarea
          class="border border-strong bg-sheet p-2 font-serif text-[15px]"
          rows="12"
          bind:value={letter.text}
          required></textarea></label
      >
      {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
      <div class="flex gap-2">
        <button class="btn btn-primary btn-sm" disabled={busy}>Send</button>
        <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Not yet</button>
      </div>
    </div>
    {#if print}
      <section
        class="h-[82vh] [zoom:0.8] overflow-auto border border-hairline bg-ground p-3 max-md:hidden"
        aria-label="the quote as the buyer will see it"
        tabindex="-1"
      >
        <PrintedQuote offer={print} />
      </section>
    {/if}
  </form>
</dialog>
