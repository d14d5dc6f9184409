<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { day, documentPath, Mark } from '$lib/shared';
  import type { SheetState } from './sheet.svelte';

  interface Props {
    sheet: SheetState;
    oncure: (cure: Schemas['CureView'], finding: Schemas['FindingView']) => void;
    onwaive: (finding: Schemas['FindingView']) => void;
  }

  let { sheet, oncure, onwaive }: Props = $props();
  let open = $state<string | null>(null);
  let all = $state(false);
  const findings = $derived(sheet.view.findings.filter((f) => f.line === null));
  const missing = $derived(new Set(findings.filter((f) => f.outcome === 'stop').map((f) => f.field)));
  const grid = $derived(sheet.view.terms.filter((t) => !t.elsewhere));
  // What is empty and not needed folds away.
  const folded = $derived(grid.filter((t) => (t.source === 'none' || (t.seldom && t.source === 'buyer')) && !missing.has(t.name) && t.name !== open));
  const shown = $derived(all ? grid : grid.filter((t) => !folded.includes(t)));

  export function focus(field: string) {
    if (folded.some((t) => t.name === field)) all = true;
    open = field;
  }

  function take(field: string, value: string) {
    open = null;
    void sheet.set(null, field, value);
  }

  function keys(event: KeyboardEvent & { currentTarget: HTMLInputElement }, field: string) {
    event.stopPropagation();
    if (event.key === 'Enter') take(field, event.currentTarget.value);
    else if (event.key === 'Escape') open = null;
  }

  // On a phone what is as always is folded too.
  const usual = (term: Schemas['TermView']) => term.source === 'buyer' && open !== term.name && !missing.has(term.name);

  const words = (term: Schemas['TermView']) => (term.kind === 'date' && term.value ? day(term.value) : term.shown);
</script>

<dl class="mt-1 grid grid-cols-2 gap-x-8 max-sm:grid-cols-1 lg:grid-cols-4" aria-label="terms">
  {#each shown as term (term.name)}
    <div class="grid min-h-[27px] min-w-0 grid-cols-[88px_1fr] items-baseline border-b border-hairline {usual(term) && !all ? 'max-sm:hidden' : ''}">
      <dt class="truncate text-[12px] text-second" title={term.why || undefined}>{term.label}</dt>
      <dd class="min-w-0">
        {#if open === term.name}
          <input
            class="h-6 w-full border border-ink bg-sheet px-1"
            value={term.kind === 'date' && term.value ? day(term.value) : term.value}
            placeholder={term.kind === 'date' ? 'fri, 12 dec, +2w' : undefined}
            list={term.choices.length ? `choices-${term.name}` : undefined}
            aria-label={term.label}
            autocomplete="off"
            {@attach (input: HTMLInputElement) => {
              input.focus();
              input.select();
            }}
            onkeydown={(e) => keys(e, term.name)}
            onblur={(e) => {
              if (open === term.name && e.currentTarget.value !== (term.kind === 'date' && term.value ? day(term.value) : term.value))
                take(term.name, e.currentTarget.value);
              else open = null;
            }}
          />
          {#if term.choices.length}
            <datalist id="choices-{term.name}">
              {#each term.choices as choice, c (c)}<option value={choice.value}>{choice.words}</option>{/each}
            </datalist>
          {/if}
        {:else}
          <button
            class="flex min-h-6 max-w-full items-baseline gap-1.5 text-left {sheet.editable ? 'hover:underline' : 'cursor-default'}"
            disabled={!sheet.editable}
            title={term.shown && term.why ? `${term.shown}: ${term.why}` : term.shown || term.why || undefined}
            onclick={() => (open = term.name)}
          >
            <span class="truncate {term.stands ? 'font-semibold' : ''} {missing.has(term.name) ? 'needs' : ''}"
              >{words(term) || (missing.has(term.name) ? 'missing' : '–')}</span
            >
            {#if term.source === 'buyer'}<span class="shrink-0 text-[11.5px] text-third">theirs</span>
            {:else if term.theirs}<span class="shrink-0 text-[11.5px] text-third">theirs {term.theirs}</span>
            {:else if term.source === 'worked-out'}<span class="shrink-0 text-[11.5px] text-third"
                >{sheet.view.tally.paid === null ? 'by the table' : 'as paid'}</span
              >{/if}
          </button>
        {/if}
      </dd>
    </div>
  {/each}
  {#if sheet.editable && (all || folded.length > 0)}
    <div class="flex min-h-[27px] min-w-0 items-baseline border-b border-hairline">
      <dt class="sr-only">other terms</dt>
      <dd class="flex min-w-0">
        <button class="truncate text-left text-second hover:underline" aria-expanded={all} onclick={() => (all = !all)}>
          {#if all}fewer{:else}more <span class="text-[11.5px] text-third">({folded.map((t) => t.label).join(', ')})</span>{/if}
        </button>
      </dd>
    </div>
  {/if}
</dl>
{#if findings.length}
  <ul class="pb-2" aria-live="polite">
    {#each findings as finding, n (n)}
      <li class="flex flex-wrap items-baseline gap-2">
        <span class={finding.outcome === 'stop' ? 'text-stop' : 'text-second'}><Mark outcome={finding.outcome} /> {finding.words}</span>
        {#if finding.waivedBy}<span class="text-second">{finding.waivedBy} let it pass: “{finding.waivedWhy}”</span>{/if}
        {#each finding.documents as document, d (d)}
          <a class="underline" href={documentPath(document)}>{document.number}</a>
        {/each}
        {#if sheet.view.editable}
          {#each sheet.editable ? finding.cures : [] as cure, c (c)}
            <button onclick={() => oncure(cure, finding)}><KeyCap>{cure.key}</KeyCap> {cure.words}</button>
          {/each}
          {#if finding.mayWaive}
            <button onclick={() => onwaive(finding)}><KeyCap>W</KeyCap> let it pass…</button>
          {/if}
        {/if}
      </li>
    {/each}
  </ul>
{/if}
