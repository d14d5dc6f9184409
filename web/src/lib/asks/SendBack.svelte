<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { formKeys, KeyCap } from '$lib/keys';

  /** Sends an ask back with a note, and marks on the lines that it is about. */
  interface Props {
    first: string;
    lines: readonly Schemas['AskLine'][];
    take: (note: string, marks: number[]) => Promise<void>;
  }

  let { first, lines, take }: Props = $props();
  let dialog = $state<HTMLDialogElement>();
  let note = $state('');
  let marks = $state<number[]>([]);
  let problem = $state('');
  let busy = $state(false);

  export function open() {
    const causes = lines.filter((l) => l.cause);
    [note, problem, marks] = ['', '', causes.length === 1 ? [causes[0]!.key] : []];
    dialog?.showModal();
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    try {
      await take(note, marks);
      dialog?.close();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not sent back; your words are still here.';
    } finally {
      busy = false;
    }
  }
</script>

<dialog bind:this={dialog} class="m-auto w-[min(460px,94vw)] border border-strong bg-sheet p-5 text-ink" aria-label="Send it back">
  <form onsubmit={submit} {@attach formKeys} class="grid gap-3">
    <h2 class="font-serif text-lg">Send it back</h2>
    <p class="text-second">{first} changes it and asks again; each round stays in the history.</p>
    <label class="grid gap-1"
      ><span class="text-second">what should change?</span><textarea class="border border-strong bg-sheet p-2" rows="3" bind:value={note} required
      ></textarea></label
    >
    {#if lines.length}
      <fieldset class="max-h-40 overflow-y-auto">
        <legend class="text-second">mark the lines that it is about</legend>
        {#each lines as line (line.key)}
          <label class="flex items-baseline gap-2 py-0.5">
            <input type="checkbox" class="translate-y-0.5" value={line.key} bind:group={marks} />
            <span class="truncate">{line.code ? `${line.code}  ` : ''}{line.words}</span>
          </label>
        {/each}
      </fieldset>
    {/if}
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-2">
      <button class="btn btn-primary btn-sm" disabled={busy}>Send back <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button>
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
