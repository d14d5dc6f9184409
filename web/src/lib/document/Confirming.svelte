<script lang="ts">
  import { tick } from 'svelte';
  import type { Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { day, Problem } from '$lib/shared';
  import type { DocumentState } from './document.svelte';

  /** What will happen when the order is confirmed, said once, before it happens. */
  let { state: whole }: { state: DocumentState } = $props();
  let dialog = $state<HTMLDialogElement>();
  let view = $state.raw<Schemas['ConfirmingView'] | null>(null);
  let problem = $state('');
  let busy = $state(false);

  export async function open() {
    [view, problem] = [null, ''];
    try {
      view = await whole.confirming();
      // Drawn first, so that its button has the keys.
      await tick();
      dialog?.showModal();
    } catch (reason) {
      whole.problem = reason instanceof Error ? reason.message : 'It could not be looked at; nothing was confirmed.';
    }
  }

  async function confirm(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    try {
      await whole.confirm();
      dialog?.close();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not confirmed; nothing was sent.';
      await whole.reload();
    } finally {
      busy = false;
    }
  }

  const one = $derived(view && view.promised.length === 1 && view.noDay.length === 0 ? view.promised[0] : undefined);
</script>

{#snippet row(label: string, words: readonly string[])}
  {#if words.length}
    <dt class="py-1 text-second">{label}</dt>
    <dd class="border-b border-hairline py-1">
      {#each words as line, i (i)}<p>{line}</p>{/each}
    </dd>
  {/if}
{/snippet}

<dialog bind:this={dialog} class="m-auto w-[min(640px,94vw)] border border-strong bg-sheet p-5 text-ink" aria-labelledby="confirming">
  {#if view}
    <form onsubmit={confirm}>
      <h2 id="confirming" class="font-serif text-[20px]">{whole.next.words}?</h2>
      <Problem words={problem} onclose={() => (problem = '')} />
      <dl class="mt-2 grid grid-cols-[110px_1fr] gap-x-3">
        {@render row('what changed', view.changed)}
        {@render row('the buyer', [view.sends])}
        <dt class="py-1 text-second">promised</dt>
        <dd class="border-b border-hairline py-1">
          {#if !view.promised.length && !view.noDay.length}<span class="text-second">a day for each part, when it is called off</span>
          {:else if one}every line for <b>{day(one.day)}</b>
          {:else}
            {#each view.promised as p (p.day)}<p><b>{day(p.day)}</b> {p.lines.length === 1 ? 'line' : 'lines'} {p.lines.join(', ')}</p>{/each}
            {#if view.noDay.length}<p class="text-second">
                no date for {view.noDay.length === 1 ? 'line' : 'lines'}
                {view.noDay.join(', ')}: nothing of it is kept in stock
              </p>{/if}
          {/if}
        </dd>
        {@render row('stock', view.stock)}
        {@render row('worth knowing', view.knows)}
      </dl>
      <p class="mt-4 flex items-center gap-3">
        <!-- What opens it by a key is done by one more: Enter. -->
        <!-- svelte-ignore a11y_autofocus -->
        <button class="btn btn-primary btn-sm" disabled={busy} autofocus>{whole.next.words} <span aria-hidden="true"><KeyCap>↵</KeyCap></span></button>
        <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Not yet <KeyCap>Esc</KeyCap></button>
      </p>
    </form>
  {/if}
</dialog>
