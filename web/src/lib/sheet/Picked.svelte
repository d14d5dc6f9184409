<script lang="ts">
  import { KeyCap } from '$lib/keys';
  import type { SheetState } from './sheet.svelte';

  /** What can be done to the lines that are picked, together: one step, which undo takes back. */
  let { sheet, onkeep }: { sheet: SheetState; onkeep: (forAll: boolean) => void } = $props();

  interface Change {
    field: string;
    words: string;
    hint: string;
    choices?: { value: string; words: string }[];
  }

  const changes = $derived<Change[]>([
    { field: 'discount', words: 'less', hint: '5 %' },
    { field: 'margin', words: 'margin', hint: '28 %' },
    { field: 'wanted', words: 'wanted', hint: '12 dec' },
    { field: 'unit', words: 'unit', hint: 'coil' },
    { field: 'shipFrom', words: 'ships from', hint: '', choices: sheet.terms['shipFrom']?.choices },
    { field: 'deliverTo', words: 'deliver to', hint: '', choices: sheet.terms['deliverTo']?.choices },
    { field: 'job', words: 'for job', hint: '' },
    { field: 'heading', words: 'under a heading', hint: 'its words' },
  ]);
  let open = $state<Change | null>(null);

  async function take(value: string) {
    const change = open;
    if (!change) return;
    const done = change.field === 'heading' ? await sheet.gather(value) : await sheet.setPicks(change.field, value);
    if (done) open = null;
  }

  function keys(event: KeyboardEvent & { currentTarget: HTMLInputElement }) {
    event.stopPropagation();
    if (event.key === 'Enter') void take(event.currentTarget.value);
    else if (event.key === 'Escape') open = null;
  }
</script>

<div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 border border-strong bg-sheet px-3 py-1.5" role="toolbar" aria-label="lines that are picked">
  <b>{sheet.picks.length === 1 ? 'one line' : `${sheet.picks.length} lines`}</b>
  {#if open}
    <label class="text-second"
      >{open.words}
      <input
        class="ml-1 h-6 w-44 border border-ink bg-sheet px-1 text-ink"
        placeholder={open.hint}
        list={open.choices?.length ? 'picked-choices' : undefined}
        autocomplete="off"
        {@attach (input: HTMLInputElement) => input.focus()}
        onkeydown={keys}
      /></label
    >
    {#if open.choices?.length}
      <datalist id="picked-choices"
        >{#each open.choices as c, i (i)}<option value={c.value}>{c.words}</option>{/each}</datalist
      >
    {/if}
    <span class="text-second"><KeyCap>↵</KeyCap> for all of them, <KeyCap>Esc</KeyCap></span>
  {:else}
    {#each changes as change (change.field)}<button class="hover:underline" onclick={() => (open = change)}>{change.words}</button>{/each}
    <button class="hover:underline" onclick={() => void sheet.setPicks('optional', String(!sheet.picks.every((l) => l.optional || !l.number)))}
      >if wanted</button
    >
    <button class="hover:underline" onclick={sheet.remove}>remove</button>
    <button class="hover:underline" onclick={() => onkeep(false)}>keep as an assortment…</button>
    <button class="hover:underline" onclick={() => onkeep(true)}>for the house…</button>
    <button class="ml-auto text-second hover:underline" onclick={() => sheet.picked.clear()}>let them go</button>
  {/if}
</div>
