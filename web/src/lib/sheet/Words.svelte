<script lang="ts">
  import { api, ask } from '$lib/api';
  import { formKeys, KeyCap } from '$lib/keys';
  import { DayField } from '$lib/shared';

  /** A small dialog that takes a few words: a reason, a note. */
  interface Props {
    title: string;
    /** What will happen, once. */
    says: string;
    /** What the words are; empty: none are taken, only what will happen is said. */
    label: string;
    button: string;
    start?: string;
    /** Whether it goes without words too. */
    optional?: boolean;
    /** Something to tick beside the words. */
    tick?: string;
    /** Reasons that are often given: for what. */
    reasons?: 'lost' | 'returned' | 'waived' | 'setAside';
    /** A day to say beside the words: what it is. */
    until?: string;
    take: (words: string, ticked: boolean, day: string) => Promise<void>;
  }

  let { title, says, label, button, start = '', optional = false, tick = '', until = '', reasons, take }: Props = $props();
  let often = $state.raw<readonly string[]>([]);
  let dialog = $state<HTMLDialogElement>();
  let words = $state('');
  let ticked = $state(false);
  let day = $state('');
  let problem = $state('');
  let busy = $state(false);

  export function open() {
    [words, problem, ticked, day] = [start, '', false, ''];
    dialog?.showModal();
    // Without them the dialog is as useful: the words can be typed.
    if (reasons)
      void ask(api.GET('/api/setup/reasons', { params: { query: { use: reasons } } })).then(
        (found) => (often = found),
        () => undefined,
      );
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    try {
      await take(words, ticked, day);
      dialog?.close();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not taken; your words are still here.';
    } finally {
      busy = false;
    }
  }
</script>

<dialog bind:this={dialog} class="m-auto w-[min(440px,94vw)] border border-strong bg-sheet p-5 text-ink" aria-label={title}>
  <form onsubmit={submit} {@attach formKeys} class="grid gap-3">
    <h2 class="font-serif text-lg">{title}</h2>
    <p class="text-second">{says}</p>
    {#if label}
      <label class="grid gap-1"
        ><span class="text-second">{label}</span><textarea class="border border-strong bg-sheet p-2" rows="3" bind:value={words} required={!optional}
        ></textarea></label
      >
    {/if}
    {#if often.length}
      <p class="flex flex-wrap gap-x-3 gap-y-1 text-second" role="group" aria-label="often given">
        {#each often as reason (reason)}<button type="button" class="underline decoration-strong" onclick={() => (words = reason)}>{reason}</button>{/each}
      </p>
    {/if}
    {#if tick}<label class="flex items-center gap-2"><input type="checkbox" bind:checked={ticked} /> {tick}</label>{/if}
    {#if until}<p><span class="mr-2 text-second">{until}</span><DayField bind:value={day} label={until} /></p>{/if}
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-2">
      <button class="btn btn-primary btn-sm" disabled={busy}>{button} <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button>
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
