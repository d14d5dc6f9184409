<script lang="ts">
  import { formKeys, KeyCap } from '$lib/keys';
  import { DayField, fixed, readNumber } from '$lib/shared';
  import type { AccountState } from './owed.svelte';

  /** Money that no statement shows: noted by hand, and taken for what is due first. */
  let { account }: { account: AccountState } = $props();
  let dialog = $state<HTMLDialogElement>();
  let [amount, currency, day, how, words] = $state(['', '', '', 'cash', '']);
  let onAccount = $state(false);
  let [problem, busy] = $state(['', false]) as [string, boolean];
  const number = $derived(readNumber(amount));
  const takes = $derived(number && !onAccount ? account.takes(number, currency) : []);
  const rest = $derived(number ? number - takes.reduce((sum, t) => sum + t.amount, 0) : 0);

  export function open() {
    const view = account.view;
    if (!view) return;
    [amount, currency, day, words, problem, onAccount] = ['', view.items.find((i) => i.open > 0)?.currency ?? view.currency, view.today, '', '', false];
    dialog?.showModal();
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    if (!number) return void (problem = 'Say how much it is.');
    busy = true;
    try {
      await account.receive(number, currency, day, how, words, onAccount);
      dialog?.close();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not noted; what you typed is still here.';
    } finally {
      busy = false;
    }
  }
</script>

<dialog bind:this={dialog} class="m-auto w-[min(440px,94vw)] border border-strong bg-sheet p-5 text-ink" aria-label="note money">
  <form onsubmit={submit} {@attach formKeys} class="grid gap-3">
    <h2 class="font-serif text-lg">Note money of {account.view?.name}</h2>
    <div class="grid grid-cols-[1fr_80px_130px] gap-3">
      <label class="grid gap-1"
        ><span class="text-second">how much</span>
        <!-- svelte-ignore a11y_autofocus -->
        <input class="w-full min-w-0 border-b border-ink bg-transparent text-right" bind:value={amount} inputmode="decimal" autofocus required /></label
      >
      <label class="grid gap-1"
        ><span class="text-second">in</span> <input class="w-full min-w-0 border-b border-ink bg-transparent" bind:value={currency} required /></label
      >
      <span class="grid gap-1"><span class="text-second">came on</span> <DayField bind:value={day} label="came on" required /></span>
    </div>
    <div class="grid grid-cols-[120px_1fr] gap-3">
      <label class="grid gap-1"
        ><span class="text-second">by</span>
        <select class="w-full min-w-0 border-b border-ink bg-transparent" bind:value={how}
          >{#each account.view?.hows ?? [] as h (h)}<option>{h}</option>{/each}</select
        ></label
      >
      <label class="grid gap-1"
        ><span class="text-second">number, or what they say</span> <input class="w-full min-w-0 border-b border-ink bg-transparent" bind:value={words} /></label
      >
    </div>
    <label class="flex items-center gap-2"
      ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={onAccount} /> all of it stays on their account</label
    >
    {#if number}
      <ul class="text-second">
        {#each takes as t (t.number)}<li class="flex justify-between">
            <span class="font-mono text-[12px]">{t.number}</span><span>{fixed(t.amount, 2)}</span>
          </li>{/each}
        {#if rest > 0}<li class="flex justify-between"><span>on account</span><span>{fixed(rest, 2)}</span></li>{/if}
      </ul>
    {/if}
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-2">
      <button class="btn btn-primary btn-sm" disabled={busy}>Note it <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button>
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
