<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { NewRecord } from '$lib/records';

  interface Action {
    words: string;
    run: () => void;
    /** Offered only to who types some of its words. */
    quiet?: boolean;
  }

  /** What can be done from anywhere, beside going to what was found. */
  let { actions, mayWrite }: { actions: readonly Action[]; mayWrite: boolean } = $props();
  let dialog = $state<HTMLDialogElement>();
  let input = $state<HTMLInputElement>();
  let text = $state('');
  let found = $state.raw<Schemas['Found'][]>([]);
  // Nothing is said to be new before it was looked for.
  let lookedFor = $state('');
  let pick = $state(0);
  let record = $state<NewRecord>();
  let asked = 0;

  interface Row {
    kind: string;
    number: string;
    words: string;
    rest: string;
    run: () => void;
  }

  const rows = $derived.by((): Row[] => {
    const doable = actions
      .filter((a) => (text.trim() || !a.quiet) && a.words.toLowerCase().includes(text.trim().toLowerCase()))
      .map((a) => ({ kind: 'do', number: '', words: a.words, rest: '', run: a.run }));
    const records = found.flatMap((f): Row[] => {
      const row = { kind: f.kind, number: f.number, words: f.words, rest: f.rest, run: () => void goto(f.path ?? '/') };
      // For a buyer, beside the page, the quote that most telephone calls end in.
      return f.kind === 'buyer' && mayWrite && f.id !== null
        ? [row, { kind: 'quote for', number: '', words: f.words, rest: '', run: () => void begin(f.id!) }]
        : f.path === null
          ? []
          : [row];
    });
    // Somebody new on the telephone: a prospect, and their quote.
    const prospect =
      mayWrite && /^\p{L}[\p{L}&’' .-]{2,}$/u.test(text.trim()) && found.length === 0 && lookedFor === text
        ? [{ kind: 'quote for', number: '', words: `a new prospect, ${text.trim()}`, rest: '', run: () => fresh(text.trim()) }]
        : [];
    return [...records, ...doable, ...prospect];
  });

  function fresh(name: string) {
    void record?.open('buyers', { isProspect: 'yes', name });
  }

  async function begin(buyerId: number) {
    const made = await ask(api.POST('/api/quotes', { body: { buyerId, matter: '' } }));
    await goto(`/quotes/${made.number}`);
  }

  export function open() {
    [text, found, pick] = ['', [], 0];
    dialog?.showModal();
    input?.focus();
  }

  async function look() {
    const mine = ++asked;
    pick = 0;
    const hits = text.trim().length < 2 ? [] : await ask(api.GET('/api/find', { params: { query: { q: text } } }));
    if (mine === asked) [found, lookedFor] = [hits, text];
  }

  function choose(row: Row | undefined) {
    dialog?.close();
    row?.run();
  }

  function keys(event: KeyboardEvent) {
    if (event.key === 'ArrowDown') pick = Math.min(pick + 1, rows.length - 1);
    else if (event.key === 'ArrowUp') pick = Math.max(pick - 1, 0);
    else if (event.key === 'Enter') choose(rows[pick]);
    else return;
    event.preventDefault();
  }
</script>

<button class="flex w-60 items-center justify-between border-b border-strong px-0.5 py-1 text-third max-sm:w-24" onclick={open} aria-label="find or do"
  ><span>Find or do…</span><KeyCap>/</KeyCap></button
>

<dialog bind:this={dialog} class="mx-auto mt-[12vh] w-[min(640px,94vw)] border border-strong bg-sheet p-0 text-ink" aria-label="find or do" closedby="any">
  <input
    bind:this={input}
    bind:value={text}
    class="w-full border-b border-strong bg-transparent px-4 py-3 text-[15px] outline-none"
    placeholder="a number, a buyer, a PO; or what you want to do"
    aria-label="find or do"
    autocomplete="off"
    role="combobox"
    aria-expanded="true"
    aria-controls="found"
    oninput={look}
    onkeydown={keys}
  />
  <ul id="found" role="listbox" aria-label="found" class="max-h-[50vh] overflow-auto py-1">
    {#each rows as row, i (i)}
      <li role="option" aria-selected={i === pick}>
        <button
          tabindex="-1"
          class="flex w-full items-baseline gap-3 px-4 py-1 text-left {i === pick ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
          onclick={() => choose(row)}
        >
          <span class="w-20 shrink-0 text-second">{row.kind}</span>
          {#if row.number}<span class="font-mono text-[12px]">{row.number}</span>{/if}
          <span class="font-serif text-[15px]">{row.words}</span><span class="ml-auto truncate text-second">{row.rest}</span>
        </button>
      </li>
    {:else}
      <li class="px-4 py-2 text-second">Nothing has that.</li>
    {/each}
  </ul>
</dialog>

<NewRecord bind:this={record} onmade={(_, id) => void begin(id)} />
