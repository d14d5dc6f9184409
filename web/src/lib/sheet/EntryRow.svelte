<script lang="ts">
  import { tick } from 'svelte';
  import { fixed, plain } from '$lib/shared';
  import { EntryState } from './entry.svelte';
  import type { SheetState } from './sheet.svelte';
  import Understood from './Understood.svelte';

  let { sheet, number, columns }: { sheet: SheetState; number: number; columns: number } = $props();
  // The row is made anew with its sheet.
  // svelte-ignore state_referenced_locally
  const entry = new EntryState(sheet);
  let input = $state<HTMLInputElement>();
  let list = $state<HTMLElement>();
  let place = $state('');

  const here = $derived(sheet.line === null);

  // Meets the browser: the keys of the sheet bring the cursor here.
  $effect(() => {
    if (here && document.activeElement?.closest('[data-sheet]')) input?.focus();
  });

  // Meets the browser: below the line where there is room for it, else over it; on the page, so that no short sheet cuts it off.
  $effect(() => {
    if (!entry.choices.length || !input) return;
    const { left, top, bottom } = input.getBoundingClientRect();
    place = `left:${left}px;` + (window.innerHeight - bottom > 300 ? `top:${bottom}px` : `bottom:${window.innerHeight - top}px`);
  });

  // Meets the browser: the chosen one is always in sight.
  $effect(() => {
    list?.querySelectorAll('[role=option]')[entry.pick]?.scrollIntoView({ block: 'nearest' });
  });

  async function add() {
    await entry.add();
    await tick();
    input?.scrollIntoView({ block: 'nearest' });
  }

  function keys(event: KeyboardEvent) {
    const many = entry.choices.length;
    if (event.key === 'Enter') void add();
    else if (event.key === 'ArrowDown' && many) entry.move(1);
    else if (event.key === 'ArrowUp' && many) entry.move(-1);
    else if (event.key === 'ArrowUp') {
      sheet.move(-1);
      // The cursor goes where the sheet's is; nowhere, if there is no line.
      void tick().then(() => document.querySelector<HTMLElement>('[data-sheet] td[tabindex="0"]')?.focus());
    } else if (event.key === 'Escape') {
      if (many) entry.close();
      else input?.blur();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  // Rows of a spreadsheet; a word or two are typed.
  function paste(event: ClipboardEvent) {
    const rows = event.clipboardData?.getData('text/plain') ?? '';
    if (!rows.includes('\t') && rows.split(/\r?\n/).filter((r) => r.trim()).length < 2) return;
    event.preventDefault();
    void sheet.paste(rows);
  }
</script>

<tr class="h-[31px] border-b border-hairline max-sm:block {here ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}">
  <td class="max-sm:hidden"></td>
  <td class="text-right text-third max-sm:hidden">{number}</td>
  <td colspan={columns} class="relative pl-3 max-sm:block">
    <input
      bind:this={input}
      bind:value={entry.text}
      class="w-full bg-transparent py-1 outline-none placeholder:text-third"
      placeholder="item, quantity @price −discount by day // note; begin with # heading, // comment, + charge, ? if wanted, or the line above"
      aria-label="add a line"
      role="combobox"
      aria-expanded={entry.choices.length > 0}
      aria-controls="entry-hits"
      autocomplete="off"
      oninput={entry.look}
      onkeydown={keys}
      onpaste={paste}
      onfocus={() => (sheet.line = null)}
    />
    {#if entry.kept}
      <p class="pb-1 text-[12px]">
        <span class="text-stop">not taken:</span> “{entry.kept}” <button class="ml-1 underline" onclick={entry.putBack}>put it back</button>
        <button class="ml-1 underline" onclick={() => (entry.kept = '')}>let it go</button>
      </p>
    {/if}
    {#if entry.chosen && here}
      <div style={place} class="fixed z-20 w-[min(680px,90vw)] border border-strong bg-sheet">
        <Understood choice={entry.chosen} currency={entry.currency} />
        <ul bind:this={list} id="entry-hits" role="listbox" aria-label="what is meant" class="max-h-56 overflow-auto border-t border-hairline">
          {#each entry.choices as choice, i (i)}
            <li role="option" aria-selected={i === entry.pick}>
              <button
                tabindex="-1"
                class="flex w-full gap-3 px-3 py-1 text-left {i === entry.pick ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
                onmousedown={(e) => {
                  e.preventDefault();
                  entry.pick = i;
                  void add();
                }}
              >
                <span class="w-24 shrink-0 truncate font-mono text-[12px] text-second">{choice.code ?? ''}</span>
                <span class="truncate">
                  {#if choice.code === null}keep “{choice.words}” as it is{:else}{choice.words}{/if}
                </span>
                <span class="ml-auto shrink-0 text-second">
                  {#if choice.quantity !== null}× {plain(choice.quantity)} {choice.unitWord} ·{/if}
                  {choice.code === null ? 'not in the catalogue' : choice.price === null ? 'no price' : fixed(choice.price, 2)}
                  {#if choice.freeHere !== null}· {plain(choice.freeHere)} free{/if}
                </span>
              </button>
            </li>
          {/each}
        </ul>
      </div>
    {/if}
  </td>
</tr>
