<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { formKeys } from '$lib/keys';
  import { day, DayField, fixed, Latest, Problem, readNumber } from '$lib/shared';
  import Standing from './Standing.svelte';

  /** What a buyer owes with an order, opened beside it; and money that came for it. */
  let { number, mayNote, onnoted }: { number: string; mayNote: boolean; onnoted: () => void } = $props();
  const latest = new Latest<Schemas['CreditView']>();
  const view = $derived(latest.value);
  let dialog = $state<HTMLDialogElement>();
  let amount = $state('');
  let reference = $state('');
  let receivedOn = $state('');
  let problem = $state('');
  let busy = $state(false);
  const path = $derived({ params: { path: { number } } });

  export function open() {
    [problem, amount, reference, receivedOn] = ['', '', '', new Date().toISOString().slice(0, 10)];
    dialog?.showModal();
    void latest.ask(() => ask(api.GET('/api/orders/{number}/credit', path)), 'What they owe could not be loaded.');
  }

  async function note(event: SubmitEvent) {
    event.preventDefault();
    const value = readNumber(amount);
    if (value === null) {
      problem = `“${amount}” is not an amount; nothing was noted.`;
      return;
    }
    busy = true;
    try {
      latest.take(await ask(api.POST('/api/orders/{number}/deposits', { ...path, body: { amount: value, receivedOn, reference } })));
      [amount, reference, problem] = ['', '', ''];
      onnoted();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not noted; what you typed is still here.';
    } finally {
      busy = false;
    }
  }
</script>

<dialog
  bind:this={dialog}
  class="m-auto max-h-[92vh] w-[min(560px,96vw)] overflow-y-auto border border-strong bg-sheet p-5 text-ink"
  aria-label="What they owe"
>
  <div class="flex items-baseline justify-between">
    <h2 class="font-serif text-lg">What they owe</h2>
    <button class="text-second" onclick={() => dialog?.close()}>close</button>
  </div>
  <Problem words={latest.problem} />
  {#if view}
    {#if view.stop}<p class="mt-1 text-second">{view.stop}</p>{/if}
    <Standing {view} />
    {#each view.deposits as deposit, i (i)}
      <p class="mt-2">
        {fixed(deposit.amount, 2)} came on {day(deposit.receivedOn)} <span class="text-second">{deposit.reference}, noted by {deposit.by}</span>
      </p>
    {/each}
    {#if mayNote}
      <form class="mt-3 flex flex-wrap items-end gap-3 border-t border-hairline pt-3" onsubmit={note} {@attach formKeys}>
        <label class="grid gap-1"
          ><span class="text-second">a deposit came</span><input
            class="w-28 border border-strong bg-sheet px-2 py-1 text-right"
            inputmode="decimal"
            bind:value={amount}
            required
          /></label
        >
        <span class="grid gap-1"><span class="text-second">on</span><DayField bind:value={receivedOn} label="came on" required /></span>
        <label class="grid flex-1 gap-1"
          ><span class="text-second">the bank’s reference</span><input class="border border-strong bg-sheet px-2 py-1" bind:value={reference} required /></label
        >
        <button class="btn btn-outline btn-sm" disabled={busy}>Note it</button>
      </form>
      {#if problem}<p role="alert" class="mt-1 text-stop">{problem}</p>{/if}
    {/if}
  {/if}
</dialog>
