<script lang="ts">
  import { formKeys, KeyCap } from '$lib/keys';
  import { fixed, plain } from '$lib/shared';
  import type { DocumentState } from './document.svelte';

  /** Closes lines of a confirmed order short: which, and why. */
  let { state: whole }: { state: DocumentState } = $props();
  let dialog = $state<HTMLDialogElement>();
  let chosen = $state<readonly number[]>([]);
  let reason = $state('');
  let problem = $state('');
  let busy = $state(false);
  const lines = $derived(whole.sheet.view.lines.filter((l) => l.counts && l.number));

  export function open() {
    const here = whole.sheet.line;
    [chosen, reason, problem] = [lines.some((l) => l.key === here) && here !== null ? [here] : [], '', ''];
    dialog?.showModal();
  }

  const toggle = (key: number) => (chosen = chosen.includes(key) ? chosen.filter((k) => k !== key) : [...chosen, key]);

  async function close(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    try {
      await whole.closeLines([...chosen], reason);
      dialog?.close();
    } catch (refused) {
      problem = refused instanceof Error ? refused.message : 'Nothing was closed; what you typed is still here.';
    } finally {
      busy = false;
    }
  }
</script>

<dialog bind:this={dialog} class="m-auto w-[min(600px,94vw)] border border-strong bg-sheet p-5 text-ink" aria-label="Close lines short">
  <form onsubmit={close} {@attach formKeys} class="grid gap-3">
    <h2 class="font-serif text-lg">Close lines short</h2>
    <p class="text-second">
      What is left of them is not delivered any more: its stock is free, and the buyer is told by mail what is otherwise. What went, or is being picked, stays.
      While nothing of the order has gone, they can be opened again.
    </p>
    <div class="grid max-h-72 gap-0.5 overflow-y-auto">
      {#each lines as line (line.key)}
        <label class="grid grid-cols-[20px_32px_1fr_auto_auto] items-baseline gap-3 border-b border-hairline py-0.5"
          ><input type="checkbox" checked={chosen.includes(line.key)} onchange={() => toggle(line.key)} /><span class="text-second">{line.number}</span><span
            class="truncate">{line.words}</span
          ><span>{plain(line.quantity)} {line.unitWord}</span><span class="w-24 text-right">{fixed(line.net, whole.sheet.view.decimals)}</span></label
        >
      {/each}
    </div>
    <label class="grid gap-1"
      ><span class="text-second">why? The reason is kept.</span><textarea class="border border-strong bg-sheet p-2" rows="2" bind:value={reason} required
      ></textarea></label
    >
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-2">
      <button class="btn btn-primary btn-sm" disabled={busy || chosen.length === 0}
        >Close them short <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button
      >
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
