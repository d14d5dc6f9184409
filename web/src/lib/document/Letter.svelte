<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { formKeys, KeyCap } from '$lib/keys';
  import { PrintedQuote } from '$lib/printed';

  let { take }: { take: (letter: Schemas['LetterView']) => Promise<void> } = $props();
  let dialog = $state<HTMLDialogElement>();
  let letter = $state<Schemas['LetterView']>({ by: 'mail', to: '', subject: '', text: '' });
  let print = $state.raw<Schemas['OfferView'] | null>(null);
  let other = '';
  let problem = $state('');
  let busy = $state(false);

  export async function open(number: string) {
    const path = { params: { path: { number } } };
    let proposal: Schemas['LetterProposal'];
    [proposal, print] = await Promise.all([ask(api.GET('/api/quotes/{number}/letter', path)), ask(api.GET('/api/quotes/{number}/preview', path))]);
    [letter, other] = [proposal.letter, proposal.otherTo];
    problem = '';
    dialog?.showModal();
  }

  // Each way has its own address; one that was typed is there again on the way back.
  function go(by: string) {
    [other, letter.to] = [letter.to, other];
    letter.by = by;
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
  <form onsubmit={submit} {@attach formKeys} class="grid gap-5 md:grid-cols-2">
    <div class="grid content-start gap-3">
      <h2 class="font-serif text-lg">Send it</h2>
      <p class="text-second">
        {letter.by === 'paper'
          ? 'The letter and the quote are printed, and posted to the buyer. A copy is kept; after that this revision is fixed.'
          : 'The buyer gets this letter with the quote as a PDF. A copy is kept; after that this revision is fixed.'}
      </p>
      <fieldset class="flex gap-4">
        <legend class="sr-only">how it goes</legend>
        <label class="flex items-baseline gap-1.5"
          ><input type="radio" class="accent-ink" value="mail" checked={letter.by === 'mail'} onchange={() => go('mail')} /> by mail</label
        >
        <label class="flex items-baseline gap-1.5"
          ><input type="radio" class="accent-ink" value="paper" checked={letter.by === 'paper'} onchange={() => go('paper')} /> on paper</label
        >
      </fieldset>
      <label class="grid gap-1"
        ><span class="text-second">{letter.by === 'paper' ? 'to, as on the envelope' : 'to'}</span><input
          class="border border-strong bg-sheet px-2 py-1"
          type={letter.by === 'paper' ? 'text' : 'email'}
          bind:value={letter.to}
          required
        /></label
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
        <button class="btn btn-primary btn-sm" disabled={busy}>Send <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button>
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
