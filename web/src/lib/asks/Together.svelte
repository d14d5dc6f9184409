<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { formKeys, KeyCap } from '$lib/keys';
  import { fixed } from '$lib/shared';

  /** Several asks granted together, with the sum of what is given away. */
  interface Props {
    asks: readonly Schemas['AskBeside'][];
    take: (asks: number[], note: string) => Promise<void>;
  }

  let { asks, take }: Props = $props();
  let dialog = $state<HTMLDialogElement>();
  let picked = $state<number[]>([]);
  let note = $state('');
  let problem = $state('');
  let busy = $state(false);
  const able = $derived(asks.filter((a) => a.mayBeGranted));
  const away = $derived(able.filter((a) => picked.includes(a.id)).reduce((sum, a) => sum + a.givenAway, 0));

  export function open() {
    [picked, note, problem] = [able.map((a) => a.id), '', ''];
    dialog?.showModal();
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    try {
      await take(picked, note);
      dialog?.close();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'None was granted; try again.';
    } finally {
      busy = false;
    }
  }
</script>

<dialog bind:this={dialog} class="m-auto w-[min(620px,96vw)] border border-strong bg-sheet p-5 text-ink" aria-label="Grant several">
  <form onsubmit={submit} {@attach formKeys} class="grid gap-3">
    <h2 class="font-serif text-lg">Grant several</h2>
    <p class="text-second">All that are ticked are granted as they were asked, or none of them.</p>
    <ul class="max-h-72 overflow-y-auto">
      {#each able as one (one.id)}
        <li class="border-b border-hairline">
          <label class="flex items-baseline gap-2 py-1.5">
            <input type="checkbox" class="translate-y-0.5" value={one.id} bind:group={picked} />
            <span class="min-w-0 flex-1">
              <span class="font-mono text-[12px]">{one.subject}</span> <span class="font-serif text-[15px]">{one.buyer}</span>
              <span class="text-second">{one.asker}: {one.words}</span>
            </span>
            <span class="text-right">{fixed(one.givenAway, 2)}</span>
          </label>
        </li>
      {/each}
    </ul>
    <p class="flex justify-between font-semibold"><span>given away, home currency</span><span>{fixed(away, 2)}</span></p>
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-2">
      <!-- svelte-ignore a11y_autofocus -->
      <button class="btn btn-primary btn-sm" autofocus disabled={busy || picked.length === 0}
        >Grant {picked.length} <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button
      >
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
