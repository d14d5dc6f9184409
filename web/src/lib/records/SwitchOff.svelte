<script lang="ts">
  import type { Schemas } from '$lib/api';
  import Reference from './Reference.svelte';

  /** Asks why a record is switched off, and what follows it where such a record can have a successor. */
  interface Props {
    kind: Schemas['KindView'];
    record: Schemas['RecordView'];
    take: (why: string, values: Record<string, string>) => Promise<void>;
  }

  let { kind, record, take }: Props = $props();
  let dialog = $state<HTMLDialogElement>();
  let why = $state('');
  let successor = $state('');
  let problem = $state('');
  const follows = $derived(kind.fields.find((f) => f.name === 'successor' && f.mayChange));

  export function open() {
    [why, successor, problem] = ['', record.values.successor ?? '', ''];
    dialog?.showModal();
  }

  async function submit(event: SubmitEvent) {
    event.preventDefault();
    try {
      await take(why, follows && successor !== (record.values.successor ?? '') ? { successor } : {});
      dialog?.close();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It is still on; your words are here.';
    }
  }
</script>

<dialog bind:this={dialog} class="m-auto w-[min(480px,94vw)] overflow-visible border border-strong bg-sheet p-5 text-ink" aria-label="Switch it off?">
  <form onsubmit={submit} class="grid gap-3">
    <h2 class="font-serif text-lg">Switch it off?</h2>
    <p class="text-second">It stays on what it stands on, and is offered no more. It can be switched on again.</p>
    {#if follows}
      <label class="grid gap-1" for="successor"><span class="text-second">what follows it, if anything does</span></label>
      <div class="-mt-2 border-b border-strong">
        <Reference id="successor" of="items" value={successor} set={(code) => (successor = code)} placeholder="code or words" />
      </div>
    {/if}
    <label class="grid gap-1"
      ><span class="text-second">why?</span><textarea
        class="border border-strong bg-sheet p-2"
        rows="3"
        bind:value={why}
        required
        onkeydown={(e) => e.stopPropagation()}></textarea></label
    >
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-2">
      <button class="btn btn-primary btn-sm">Switch off</button>
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
