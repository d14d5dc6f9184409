<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ask, type Schemas } from '$lib/api';
  import { formKeys, KeyCap } from '$lib/keys';
  import { fixed, readNumber } from '$lib/shared';

  /** Asks credit control for another limit of a buyer. */
  let { id }: { id: number } = $props();
  let dialog = $state<HTMLDialogElement>();
  let now = $state.raw<Schemas['CreditView'] | null>(null);
  let limit = $state('');
  let why = $state('');
  let problem = $state('');
  let busy = $state(false);

  export function open(view: Schemas['CreditView']) {
    [now, limit, why, problem] = [view, '', '', ''];
    dialog?.showModal();
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    const value = readNumber(limit);
    if (value === null) {
      problem = `“${limit}” is not an amount; nothing was asked.`;
      return;
    }
    busy = true;
    try {
      const body = { values: { creditLimit: String(value) }, why, urgent: false, id };
      const made = await ask(api.POST('/api/records/{kind}/ask', { params: { path: { kind: 'buyers' } }, body }));
      dialog?.close();
      await goto(`/asks/${made.id}`);
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not asked; what you typed is still here.';
    } finally {
      busy = false;
    }
  }
</script>

<dialog bind:this={dialog} class="m-auto w-[min(440px,94vw)] border border-strong bg-sheet p-5 text-ink" aria-label="Ask for another limit">
  <form onsubmit={submit} {@attach formKeys} class="grid gap-3">
    <h2 class="font-serif text-lg">Ask for another limit</h2>
    {#if now}<p class="text-second">
        {now.limit === null ? 'None is kept' : `It is ${fixed(now.limit, 0)} ${now.currency}`}; they owe and will owe {fixed(now.exposure, 0)}.
      </p>{/if}
    <label class="grid gap-1"
      ><span class="text-second">the limit you ask for, {now?.currency}</span><input
        class="w-40 border border-strong bg-sheet px-2 py-1 text-right"
        inputmode="decimal"
        bind:value={limit}
        required
      /></label
    >
    <label class="grid gap-1"
      ><span class="text-second">why?</span><textarea class="border border-strong bg-sheet p-2" rows="3" bind:value={why} required></textarea></label
    >
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-2">
      <button class="btn btn-primary btn-sm" disabled={busy}>Ask <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button>
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
