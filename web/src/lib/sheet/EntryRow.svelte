<script lang="ts">
  import { tick } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { plain } from '$lib/shared';
  import type { SheetState } from './sheet.svelte';

  let { sheet, number }: { sheet: SheetState; number: number } = $props();
  let text = $state('');
  let hits = $state.raw<Schemas['ItemHits'] | null>(null);
  let pick = $state(0);
  let input = $state<HTMLInputElement>();
  let asked = 0;
  // What the list was asked for: Enter takes its chosen item only where it is for what stands there now.
  let askedFor = '';
  let list = $state<HTMLElement>();
  let place = $state('');

  const here = $derived(sheet.line === null);

  // Meets the browser: the keys of the sheet bring the cursor here.
  $effect(() => {
    if (here && document.activeElement?.closest('[data-sheet]')) input?.focus();
  });

  async function look() {
    const mine = ++asked;
    if (text.trim().length < 2 || text.startsWith('#')) {
      hits = null;
      return;
    }
    const found = await ask(api.GET('/api/items', { params: { query: { q: text } } }));
    if (mine !== asked || !input) return;
    [hits, pick, askedFor] = [found, 0, text];
    // Below the line where there is room for it, else over it; on the page, so that no short sheet cuts it off.
    const { left, top, bottom } = input.getBoundingClientRect();
    place = `left:${left}px;` + (window.innerHeight - bottom > 300 ? `top:${bottom}px` : `bottom:${window.innerHeight - top}px`);
  }

  // Meets the browser: the chosen one is always in sight.
  $effect(() => {
    list?.querySelectorAll('[role=option]')[pick]?.scrollIntoView({ block: 'nearest' });
  });

  async function add() {
    const typed = text.trim();
    if (!typed) return;
    const chosen = (askedFor === text ? hits?.items[pick]?.code : undefined) ?? '';
    text = '';
    hits = null;
    asked++;
    const edit = typed.startsWith('#') ? { kind: 'addHeading' as const, value: typed.slice(1).trim() } : { kind: 'add' as const, value: typed, field: chosen };
    if (!(await sheet.edit([edit]))) text = typed;
    await tick();
    input?.scrollIntoView({ block: 'nearest' });
  }

  function keys(event: KeyboardEvent) {
    const many = hits?.items.length ?? 0;
    if (event.key === 'Enter') void add();
    else if (event.key === 'ArrowDown' && many) pick = (pick + 1) % many;
    else if (event.key === 'ArrowUp' && many) pick = (pick + many - 1) % many;
    else if (event.key === 'ArrowUp') {
      sheet.move(-1);
      // The cursor goes where the sheet's is; nowhere, if there is no line.
      void tick().then(() => document.querySelector<HTMLElement>('[data-sheet] td[tabindex="0"]')?.focus());
    } else if (event.key === 'Escape') {
      if (hits) hits = null;
      else input?.blur();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  // Rows of a spreadsheet: what stands before the first tab is the item, the next the quantity.
  function paste(event: ClipboardEvent) {
    const rows = (event.clipboardData?.getData('text/plain') ?? '').split(/\r?\n/).filter((r) => r.trim());
    if (rows.length < 2 && !rows[0]?.includes('\t')) return;
    event.preventDefault();
    void sheet.edit(
      rows.map((row) => {
        const [item, quantity, unit] = row.split('\t').map((c) => c.trim());
        return { kind: 'add' as const, value: quantity ? `${item} x ${quantity} ${unit ?? ''}`.trim() : item };
      }),
    );
  }
</script>

<tr class="h-[31px] border-b border-hairline {here ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}">
  <td></td>
  <td class="text-right text-third">{number}</td>
  <td colspan="8" class="relative pl-3">
    <input
      bind:this={input}
      bind:value={text}
      class="w-full bg-transparent py-1 outline-none placeholder:text-third"
      placeholder="item, quantity @price −discount, such as  thimble 12 x 20 ; # begins a heading"
      aria-label="add a line"
      role="combobox"
      aria-expanded={!!hits}
      aria-controls="entry-hits"
      autocomplete="off"
      oninput={look}
      onkeydown={keys}
      onpaste={paste}
      onfocus={() => (sheet.line = null)}
    />
    {#if hits && here}
      <ul
        bind:this={list}
        id="entry-hits"
        style={place}
        role="listbox"
        aria-label="items"
        class="fixed z-20 max-h-72 w-[min(640px,90vw)] overflow-auto border border-strong bg-sheet"
      >
        {#each hits.items as item, i (item.code)}
          <li role="option" aria-selected={i === pick}>
            <button
              tabindex="-1"
              class="flex w-full gap-3 px-3 py-1 text-left {i === pick ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
              onmousedown={(e) => {
                e.preventDefault();
                pick = i;
                void add();
              }}
            >
              <span class="w-24 shrink-0 font-mono text-[12px] text-second">{item.code}</span>
              <span class="truncate">{item.words}</span>
              <span class="ml-auto shrink-0 text-second">{item.list?.toFixed(2) ?? 'no price'} · {plain(item.freeHere)} {item.unitWord}</span>
            </button>
          </li>
        {:else}
          <li class="px-3 py-1 text-second">Nothing is called so; Enter keeps your words, and a check asks for the item.</li>
        {/each}
      </ul>
    {/if}
  </td>
</tr>
