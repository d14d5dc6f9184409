<script lang="ts">
  import type { TypedState } from './typed.svelte';

  /** Who it is: found by some digits of their number, or the beginning of a name. */
  let { typed, words }: { typed: TypedState; words: string } = $props();

  function keys(event: KeyboardEvent) {
    if (!typed.callers.length) return;
    if (event.key === 'ArrowDown') typed.at = Math.min(typed.at + 1, typed.callers.length - 1);
    else if (event.key === 'ArrowUp') typed.at = Math.max(typed.at - 1, 0);
    else if (event.key === 'Enter') typed.pick(typed.callers[typed.at]);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<div class="relative">
  <label class="text-second" for="caller">{words}</label>
  <input
    id="caller"
    class="input w-full"
    autocomplete="off"
    role="combobox"
    aria-expanded={typed.callers.length > 0}
    aria-controls="callers"
    value={typed.search}
    oninput={(e) => void typed.find(e.currentTarget.value)}
    onkeydown={keys}
    {@attach (input: HTMLInputElement) => input.focus()}
  />
  <ul id="callers" role="listbox" aria-label="who it may be" class={typed.callers.length ? 'absolute z-10 w-full border border-strong bg-sheet' : 'hidden'}>
    {#each typed.callers as caller, i (caller.code + caller.who)}
      <li role="option" aria-selected={i === typed.at}>
        <button
          class="grid w-full grid-cols-[1fr_auto] gap-x-3 border-b border-hairline px-3 py-1.5 text-left {i === typed.at
            ? 'shadow-[inset_3px_0_0_var(--ink)]'
            : ''}"
          type="button"
          tabindex="-1"
          onclick={() => typed.pick(caller)}
        >
          <span class="truncate font-serif text-[16px]">{caller.name} <em class="text-second">{caller.who}</em></span>
          <span class="text-second">{caller.phone}</span>
        </button>
      </li>
    {/each}
  </ul>
</div>
