<script lang="ts">
  import { KeyCap } from '$lib/keys';
  import { day, fixed, plain } from '$lib/shared';
  import type { SheetState } from './sheet.svelte';
  import { SourcesState } from './sources.svelte';

  /** Lines from elsewhere: the catalogue, earlier quotes and orders of this buyer, assortments, what they usually take. */
  let { sheet }: { sheet: SheetState } = $props();
  // The dialog is made anew with its sheet.
  // svelte-ignore state_referenced_locally
  const from = new SourcesState(sheet);
  let dialog = $state<HTMLDialogElement>();
  const many = $derived(from.wanted.size);

  export function open() {
    dialog?.showModal();
    void from.open();
  }

  async function take() {
    if (await from.take()) dialog?.close();
  }

  function keys(event: KeyboardEvent) {
    const { target } = event;
    if (!(target instanceof HTMLElement) || target.closest('[data-plain]')) return;
    if (event.key === 'Enter') void take();
    else if ((event.key === 'ArrowDown' || event.key === 'ArrowUp') && target.closest('ul')) {
      const all = [...(dialog?.querySelectorAll<HTMLElement>('ul button') ?? [])];
      all[all.indexOf(target) + (event.key === 'ArrowDown' ? 1 : -1)]?.focus();
    } else return;
    event.preventDefault();
  }
</script>

<dialog
  bind:this={dialog}
  class="m-auto h-[min(640px,88vh)] w-[min(1040px,96vw)] border border-strong bg-sheet p-0 text-ink open:flex"
  aria-label="lines from elsewhere"
  closedby="any"
  onkeydown={keys}
>
  <ul class="w-64 shrink-0 overflow-y-auto border-r border-hairline py-3" aria-label="where from">
    {#each from.sources as s (s.kind + s.key)}
      <li>
        <button
          class="w-full px-4 py-1 text-left {s === from.source ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
          aria-current={s === from.source || undefined}
          onclick={() => void from.look(s)}
          onfocus={() => void from.look(s)}
        >
          <span class="flex justify-between gap-2"
            ><span class="truncate {s.day ? 'font-mono text-[12px]' : ''}">{s.words}</span><span class="shrink-0 text-second">{s.day ? day(s.day) : ''}</span
            ></span
          >
          <span class="block truncate text-[12px] text-second">{s.rest}{s.lines ? ` · ${s.lines === 1 ? 'one line' : `${s.lines} lines`}` : ''}</span>
        </button>
      </li>
    {/each}
  </ul>
  <div class="flex min-w-0 flex-1 flex-col p-4">
    <div class="flex items-baseline justify-between gap-4">
      <h2 class="font-serif text-lg">{from.source?.words ?? ''} <em class="text-second">{from.source?.rest ?? ''}</em></h2>
      <button data-plain class="text-second underline" onclick={() => dialog?.close()}>close</button>
    </div>
    {#if from.problem}<p role="alert" class="text-stop">{from.problem}</p>{/if}
    {#if from.source?.kind === 'catalogue'}
      <input
        class="mt-2 h-7 border border-strong bg-sheet px-2"
        placeholder="a few words of what it is called"
        aria-label="look in the catalogue"
        autocomplete="off"
        bind:value={from.words}
        oninput={() => void from.fill()}
      />
    {/if}
    <div class="mt-2 min-h-0 flex-1 overflow-y-auto">
      <table class="w-full">
        <thead class="text-[11.5px] text-second">
          <tr>
            <th colspan="3"><span class="sr-only">what</span></th>
            <th class="text-right font-normal">quantity</th>
            <th class="text-right font-normal">{from.hasThen ? 'then' : ''}</th>
            <th class="text-right font-normal">today</th>
          </tr>
        </thead>
        <tbody>
          {#each from.lines as l, i (i)}
            <tr class="border-b border-hairline {l.whyNot ? 'text-second' : ''}">
              <td class="w-7"
                ><input
                  type="checkbox"
                  class="size-4 accent-(--ink)"
                  checked={from.wanted.has(i)}
                  disabled={!!l.whyNot}
                  aria-label="take {l.words}"
                  onchange={() => from.flip(i)}
                /></td
              >
              {#if l.kind === 'heading' || l.kind === 'comment'}
                <td colspan="5" class="py-1 {l.kind === 'heading' ? 'font-serif text-[15px] italic' : 'text-second'}">{l.words}</td>
              {:else}
                <td class="w-28 truncate py-1 font-mono text-[12px] text-second">{l.code}</td>
                <td class="max-w-0 truncate pr-2"
                  >{l.words}{#if l.whyNot}<span class="text-stop"> · {l.whyNot}</span>{/if}</td
                >
                <td class="w-28 text-right whitespace-nowrap">
                  {#if from.isPicked && l.code}
                    <input
                      class="h-6 w-16 border border-hairline bg-sheet px-1 text-right focus:border-ink"
                      value={from.countOf(l)}
                      aria-label="how many of {l.words}"
                      oninput={(e) => from.count(i, e.currentTarget.value)}
                    />
                  {:else}{plain(l.quantity)}{/if}
                  {l.unitWord}
                </td>
                <td class="w-24 text-right text-second">{l.priceThen === null ? '' : fixed(l.priceThen, 4)}</td>
                <td class="w-24 text-right">{l.price === null ? 'no price' : fixed(l.price, 4)}</td>
              {/if}
            </tr>
          {:else}
            <tr><td colspan="6" class="py-6 text-second">{from.source ? 'Nothing here yet.' : ''}</td></tr>
          {/each}
        </tbody>
      </table>
    </div>
    <div class="mt-3 flex flex-wrap items-center gap-4">
      <button data-plain class="btn btn-primary btn-sm" disabled={many === 0} onclick={() => void take()}>
        {many === 1 ? 'Take one line' : `Take ${many} lines`}
        <KeyCap>↵</KeyCap>
      </button>
      <button data-plain class="underline" onclick={from.flipAll}>{many === from.takeable.length ? 'none of them' : 'all of them'}</button>
      {#if from.hasThen}
        <label
          ><input data-plain type="checkbox" class="mr-1 align-[-2px] accent-(--ink)" bind:checked={from.then} />at the prices of then; they count as typed by
          you</label
        >
      {/if}
      {#if from.source?.kind === 'assortment'}
        <button data-plain class="ml-auto text-second underline" onclick={() => void from.forget()}>keep it no more</button>
      {/if}
    </div>
  </div>
</dialog>
