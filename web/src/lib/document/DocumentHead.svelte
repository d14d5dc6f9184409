<script lang="ts">
  import { KeyCap } from '$lib/keys';
  import { documentPath, fixed } from '$lib/shared';
  import type { Somebody } from '$lib/presence/presence.svelte';
  import type { DocumentState } from './document.svelte';
  import Tracks from './Tracks.svelte';

  /** Whose it is, where it stands, what it comes to, and what comes next. */
  interface Props {
    state: DocumentState;
    /** Others who have it open. */
    others: readonly Somebody[];
    onact: () => void;
    /** Puts another document beside it; without one that it could be put beside there is none. */
    onbeside?: () => void;
  }

  let { state: document, others, onact, onbeside }: Props = $props();
  const lineNumber = (key: number) => sheet.view.lines.find((l) => l.key === key)?.number || '';
  const { sheet } = $derived(document);
  const { doc, number, next } = $derived(document);
  const d = $derived(sheet.view.decimals);
</script>

<div class="flex flex-wrap items-end gap-x-6 gap-y-2">
  <div class="min-w-0 flex-1 basis-80">
    <h1 class="truncate font-serif text-[25px] leading-tight">{doc.buyer.name} <em class="text-second">{doc.matter}</em></h1>
    <p class="text-second">
      <span class="font-mono text-[12px] text-ink">{number}</span>
      {#if doc.revision}· revision {doc.revision},{:else}·{/if}
      {doc.stateWords} · <span class="font-mono text-[12px]">{doc.dossier}</span> · {doc.seller}
      {#if onbeside}
        · <button class="underline" onclick={onbeside}>{doc.beside[0]?.words} beside it <KeyCap>B</KeyCap></button>
      {/if}
      {#if doc.toChoose.length > 1}
        · one of {#each doc.toChoose.filter((c) => !c.here) as c (c.number)}<a class="underline" href={documentPath({ kind: 'quote', number: c.number })}
            >{c.number}</a
          >{c.state === 'accepted' ? ', which was taken' : ''}
        {/each}
        {doc.state === 'accepted' ? '(this one was taken)' : ''}
      {/if}
      {#each others as o (o.name)}· <span class="text-notice">{o.name} is looking{o.line === null ? '' : ` at line ${lineNumber(o.line)}`}</span>{/each}
      {#each doc.related as other (other.kind + other.number)}
        · <a class="underline" href={documentPath(other)}>{other.kind} {other.number}</a>
      {/each}
    </p>
  </div>
  {#if doc.tracks}<Tracks tracks={doc.tracks} />{/if}
  <p class="text-right">
    <span class="font-serif text-[25px] leading-none">{fixed(sheet.view.tally.totalWithTax, d)}</span>
    <span class="text-second">{sheet.view.currency} with tax</span>
  </p>
  <div class="flex items-center gap-2">
    {#if next.words && sheet.mayWrite}
      <button class="btn btn-primary btn-sm" disabled={!next.possible} aria-describedby={next.why ? 'why-not' : undefined} onclick={onact}>
        {next.words}{#if next.key && next.possible}<KeyCap>{next.key}</KeyCap>{/if}
      </button>
    {/if}
  </div>
</div>
{#if next.why && !next.possible}<p id="why-not" class="mt-1 text-right text-second">{next.why}</p>{/if}
