<script lang="ts">
  import { formKeys, KeyCap } from '$lib/keys';
  import type { RequestState } from './request.svelte';

  /** Picks the lines that become a request of their own. */
  let { state: request, done }: { state: RequestState; done: (number: string) => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  let picked = $state<number[]>([]);
  let problem = $state('');

  export function open() {
    [picked, problem] = [[], ''];
    dialog?.showModal();
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    try {
      const number = await request.divide(picked);
      dialog?.close();
      done(number);
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not divided.';
    }
  }
</script>

<dialog bind:this={dialog} class="m-auto w-[min(560px,94vw)] border border-strong bg-sheet p-5 text-ink" aria-label="Make two requests of it">
  <form onsubmit={submit} {@attach formKeys} class="grid gap-3">
    <h2 class="font-serif text-lg">Make two requests of it</h2>
    <p class="text-second">The lines that you pick become a request of their own, with the same message beside it.</p>
    <ul class="max-h-80 overflow-auto border-y border-hairline">
      {#each request.reading?.lines ?? [] as line (line.no)}
        <li>
          <label class="flex gap-3 py-1"
            ><input type="checkbox" class="checkbox checkbox-sm" value={line.no} bind:group={picked} />
            <span class="min-w-0 truncate">{line.quantity ?? ''} {line.unitWord} {line.itemCode ?? ''} <span class="text-second">{line.words}</span></span
            ></label
          >
        </li>
      {/each}
    </ul>
    {#if problem}<p role="alert">{problem}</p>{/if}
    <div class="flex gap-3">
      <button class="btn btn-primary btn-sm" disabled={!picked.length}>Divide <KeyCap>Ctrl Enter</KeyCap></button>
      <button type="button" class="btn btn-ghost btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
