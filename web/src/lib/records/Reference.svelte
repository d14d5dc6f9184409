<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';

  /** A reference to another record: typed by code or words, with what fits below. */
  let { id, of, value, set, placeholder = '' }: { id: string; of: string; value: string; set: (code: string) => void; placeholder?: string } = $props();
  let hits = $state.raw<{ id: number; code: string; words: string }[]>([]);
  let pick = $state(0);
  let text = $state<string | null>(null);
  let asked = 0;

  // The second cell is what people read: an item's words, a buyer's name.
  async function look(words: string) {
    const mine = ++asked;
    text = words;
    if (words.trim().length < 2) {
      hits = [];
      return;
    }
    const found = await ({ people, warehouses }[of] ?? records)(words).catch(() => null);
    if (mine === asked && found) [hits, pick] = [found, 0];
  }

  async function records(words: string) {
    const { rows } = await ask(api.GET('/api/lists/{kind}', { params: { path: { kind: of }, query: { filter: words, take: 8 } } }));
    return rows.map((r: Schemas['ListRow']) => ({ id: r.id, code: r.cells[0] ?? '', words: r.cells[1] ?? '' }));
  }

  async function people(words: string) {
    const all = await ask(api.GET('/api/people'));
    return all.filter((p) => p.name.toLowerCase().includes(words.toLowerCase())).map((p) => ({ id: p.id, code: p.name, words: p.does }));
  }

  async function warehouses(words: string) {
    const all = await ask(api.GET('/api/warehouses'));
    return all.filter((w) => w.toLowerCase().includes(words.toLowerCase())).map((code, id) => ({ id, code, words: '' }));
  }

  function take(code: string) {
    asked++;
    [hits, text] = [[], null];
    set(code);
  }

  function keys(event: KeyboardEvent & { currentTarget: HTMLInputElement }) {
    event.stopPropagation();
    if (event.key === 'ArrowDown' && hits.length) pick = (pick + 1) % hits.length;
    else if (event.key === 'ArrowUp' && hits.length) pick = (pick + hits.length - 1) % hits.length;
    else if (event.key === 'Enter') take(hits[pick]?.code ?? event.currentTarget.value);
    else if (event.key === 'Escape') [hits, text] = [[], null];
    else return;
    event.preventDefault();
  }
</script>

<span class="relative block">
  <input
    {id}
    class="h-7 w-full bg-transparent outline-none focus:border-b focus:border-ink"
    value={text ?? value}
    {placeholder}
    role="combobox"
    aria-expanded={hits.length > 0}
    aria-controls="{id}-hits"
    autocomplete="off"
    oninput={(e) => look(e.currentTarget.value)}
    onkeydown={keys}
    onblur={(e) => text !== null && take(e.currentTarget.value)}
  />
  {#if hits.length}
    <ul id="{id}-hits" role="listbox" aria-label="what fits" class="absolute top-full left-0 z-20 w-[min(480px,90vw)] border border-strong bg-sheet">
      {#each hits as hit, i (hit.id)}
        <li role="option" aria-selected={i === pick}>
          <button
            type="button"
            tabindex="-1"
            class="flex w-full gap-3 px-3 py-1 text-left {i === pick ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
            onmousedown={(e) => (e.preventDefault(), take(hit.code))}
            ><span class="w-28 shrink-0 truncate font-mono text-[12px] text-second">{hit.code}</span><span class="truncate">{hit.words}</span></button
          >
        </li>
      {/each}
    </ul>
  {/if}
</span>
