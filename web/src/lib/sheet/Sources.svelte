<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { day, fixed, plain } from '$lib/shared';
  import type { SheetState } from './sheet.svelte';

  /** Lines from elsewhere: earlier quotes and orders of this buyer, assortments, what they usually take. */
  let { sheet }: { sheet: SheetState } = $props();
  let dialog = $state<HTMLDialogElement>();
  let sources = $state.raw<Schemas['SourceView'][]>([]);
  let source = $state.raw<Schemas['SourceView'] | null>(null);
  let lines = $state.raw<Schemas['SourceLineView'][]>([]);
  let wanted = $state.raw<ReadonlySet<number>>(new Set());
  let then = $state(false);
  let problem = $state('');
  const path = $derived({ path: { id: sheet.view.id } });
  const takeable = $derived(lines.flatMap((l, i) => (l.whyNot ? [] : [i])));
  const hasThen = $derived(lines.some((l) => l.then !== null));

  export async function open() {
    problem = '';
    dialog?.showModal();
    try {
      sources = await ask(api.GET('/api/sheets/{id}/sources', { params: path }));
      await look(sources[0]!);
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'They could not be looked up.';
    }
  }

  async function look(of: Schemas['SourceView']) {
    source = of;
    lines = [];
    const found = await ask(api.GET('/api/sheets/{id}/sources/{kind}/{key}', { params: { path: { id: sheet.view.id, kind: of.kind, key: of.key } } }));
    if (source !== of) return;
    lines = found;
    // A whole document is taken as it is; of what they usually take, one picks.
    wanted = new Set(of.kind === 'usual' ? [] : found.flatMap((l, i) => (l.whyNot ? [] : [i])));
    then = false;
  }

  const flip = (i: number) => (wanted = new Set(wanted.has(i) ? [...wanted].filter((w) => w !== i) : [...wanted, i]));

  async function take() {
    const edits = [...wanted].toSorted((a, b) => a - b).map((i) => edit(lines[i]!));
    if (edits.length === 0) return;
    if (await sheet.edit(edits)) dialog?.close();
    else problem = sheet.problem;
  }

  function edit(l: Schemas['SourceLineView']): Schemas['SheetEdit'] {
    const text = then && l.then !== null ? l.then : l.text;
    if (l.kind === 'heading') return { kind: 'addHeading', value: text.replace(/^# /, '') };
    if (l.kind === 'comment') return { kind: 'addComment', value: text.replace(/^\/\/ /, '') };
    if (l.kind === 'charge') return { kind: 'addCharge', value: text.replace(/^\+ /, '') };
    return { kind: 'add', value: text, field: l.code };
  }

  async function forget(of: Schemas['SourceView']) {
    await ask(api.DELETE('/api/sheets/assortments/{assortment}', { params: { path: { assortment: Number(of.key) } } }));
    sources = sources.filter((s) => s !== of);
    await look(sources[0]!);
  }
</script>

<dialog
  bind:this={dialog}
  class="m-auto h-[min(640px,88vh)] w-[min(1040px,96vw)] border border-strong bg-sheet p-0 text-ink open:flex"
  aria-label="lines from elsewhere"
  closedby="any"
>
  <ul class="w-64 shrink-0 overflow-y-auto border-r border-hairline py-3" aria-label="where from">
    {#each sources as s (s.kind + s.key)}
      <li>
        <button
          class="w-full px-4 py-1 text-left {s === source ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
          aria-current={s === source || undefined}
          onclick={() => void look(s)}
          onfocus={() => void look(s)}
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
      <h2 class="font-serif text-lg">{source?.words ?? ''} <em class="text-second">{source?.rest ?? ''}</em></h2>
      <button class="text-second underline" onclick={() => dialog?.close()}>close</button>
    </div>
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="mt-2 min-h-0 flex-1 overflow-y-auto">
      <table class="w-full">
        <tbody>
          {#each lines as l, i (i)}
            <tr class="border-b border-hairline {l.whyNot ? 'text-second' : ''}">
              <td class="w-7"
                ><input
                  type="checkbox"
                  class="size-4 accent-(--ink)"
                  checked={wanted.has(i)}
                  disabled={!!l.whyNot}
                  aria-label="take {l.words}"
                  onchange={() => flip(i)}
                /></td
              >
              {#if l.kind === 'heading' || l.kind === 'comment'}
                <td colspan="5" class="py-1 {l.kind === 'heading' ? 'font-serif text-[15px] italic' : 'text-second'}">{l.words}</td>
              {:else}
                <td class="w-28 truncate py-1 font-mono text-[12px] text-second">{l.code}</td>
                <td class="max-w-0 truncate pr-2"
                  >{l.words}{#if l.whyNot}<span class="text-stop"> · {l.whyNot}</span>{/if}</td
                >
                <td class="w-24 text-right">{plain(l.quantity)} {l.unitWord}</td>
                <td class="w-24 text-right text-second">{l.priceThen === null ? '' : fixed(l.priceThen, 4)}</td>
                <td class="w-24 text-right">{l.price === null ? 'no price' : fixed(l.price, 4)}</td>
              {/if}
            </tr>
          {:else}
            <tr><td class="py-6 text-second">{source ? 'Nothing here yet.' : ''}</td></tr>
          {/each}
        </tbody>
      </table>
    </div>
    <div class="mt-3 flex flex-wrap items-center gap-4">
      <button class="btn btn-primary btn-sm" disabled={wanted.size === 0} onclick={() => void take()}>
        {wanted.size === 1 ? 'Take one line' : `Take ${wanted.size} lines`}
        <KeyCap>↵</KeyCap>
      </button>
      <button class="underline" onclick={() => (wanted = new Set(wanted.size === takeable.length ? [] : takeable))}
        >{wanted.size === takeable.length ? 'none of them' : 'all of them'}</button
      >
      {#if hasThen}
        <label><input type="checkbox" class="mr-1 align-[-2px] accent-(--ink)" bind:checked={then} />at the prices of then; they count as typed by you</label>
      {/if}
      {#if source?.kind === 'assortment'}
        <button class="ml-auto text-second underline" onclick={() => source && void forget(source)}>keep it no more</button>
      {/if}
    </div>
  </div>
</dialog>
