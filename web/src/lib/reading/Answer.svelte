<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { formKeys, KeyCap } from '$lib/keys';

  /** Writes to whoever sent a request, beginning with words that are often written. */
  let { request, answered }: { request: Schemas['RequestView']; answered: (now: Schemas['RequestView']) => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  let choices = $state.raw<Schemas['AnswerChoices'] | null>(null);
  let to = $state('');
  let subject = $state('');
  let text = $state('');
  let done = $state(true);
  let problem = $state('');
  let busy = $state(false);
  let area = $state<HTMLTextAreaElement>();
  const byChannel = $derived(request.parts.length > 0 && request.channel !== 'mail' && !to.includes('@') && to.length > 0);

  export async function open() {
    [problem, text, done, choices] = ['', '', true, null];
    dialog?.showModal();
    try {
      choices = await ask(api.GET('/api/requests/{number}/answers', { params: { path: { number: request.number } } }));
      [to, subject] = [choices.to, choices.subject];
      area?.focus();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It could not be loaded.';
    }
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    try {
      const now = await ask(
        api.POST('/api/requests/{number}/answers', {
          params: { path: { number: request.number } },
          body: { version: request.version, to: byChannel ? '' : to, subject, text, done },
        }),
      );
      dialog?.close();
      answered(now);
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not sent; what you typed is still here.';
    } finally {
      busy = false;
    }
  }
</script>

<dialog class="modal" bind:this={dialog} aria-labelledby="answer-title">
  <form class="modal-box grid max-w-2xl gap-2 rounded-none border border-strong bg-sheet" onsubmit={submit} {@attach formKeys}>
    <h2 id="answer-title" class="font-serif text-[21px]">Write to {request.reading?.buyer.value ?? request.from}</h2>
    {#if byChannel}<p class="text-second">It goes back by {to}, to the same conversation.</p>
    {:else}<label class="grid gap-1"
        ><span class="text-second">to</span><input class="border border-strong bg-sheet px-2 py-1" type="email" bind:value={to} required /></label
      >
      <label class="grid gap-1"
        ><span class="text-second">about</span><input class="border border-strong bg-sheet px-2 py-1" bind:value={subject} maxlength="200" /></label
      >{/if}
    {#if choices?.templates.length}
      <div class="flex flex-wrap gap-2">
        {#each choices.templates as t (t.name + t.language)}
          <button type="button" class="btn btn-outline btn-xs" onclick={() => (text = t.words)}>{t.name} <span class="text-second">{t.language}</span></button>
        {/each}
      </div>
    {/if}
    <label class="grid gap-1"
      ><span class="text-second">what you write</span>
      <textarea class="min-h-44 border border-strong bg-sheet px-2 py-1 font-serif text-[15px]" bind:value={text} required maxlength="10000" bind:this={area}
      ></textarea></label
    >
    <label class="flex items-center gap-2"><input type="checkbox" bind:checked={done} /> that is all; it waits for nobody any more</label>
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-3">
      <button class="btn btn-primary btn-sm" disabled={busy}>Send it <KeyCap>Ctrl Enter</KeyCap></button>
      <button type="button" class="btn btn-ghost btn-sm" onclick={() => dialog?.close()}>Not now</button>
    </div>
  </form>
</dialog>
