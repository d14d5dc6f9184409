<script lang="ts">
  import { pieces, type Span } from './pieces';

  /** Text cut at the edges of its evidence; each piece lights what it is evidence of. */
  interface Props {
    text: string;
    /** Where the text begins in its part. */
    from?: number;
    spans: readonly Span[];
    lit: string | null;
    onlight: (of: string | null) => void;
  }

  let { text, from = 0, spans, lit, onlight }: Props = $props();
  const cut = $derived(pieces(text, from ? spans.map((s) => ({ ...s, start: s.start - from })) : spans));
  const starts = $derived.by(() => {
    let at = from;
    return cut.map((piece) => (at += piece.text.length) - piece.text.length);
  });
</script>

{#each cut as piece, i (i)}{#if piece.of.length}<!-- svelte-ignore a11y_no_static_element_interactions --><span
      data-start={starts[i]}
      data-evidence={piece.of.join(' ')}
      class="underline decoration-(--third) underline-offset-4 {lit !== null && piece.of.includes(lit)
        ? 'bg-(--hairline) decoration-(--ink) decoration-2'
        : ''} {piece.needsYou ? 'needs' : ''}"
      onmouseenter={() => onlight(piece.of.find((o) => /^\d+$/.test(o)) ?? piece.of[0] ?? null)}
      onmouseleave={() => onlight(null)}>{piece.text}</span
    >{:else}<span data-start={starts[i]}>{piece.text}</span>{/if}{/each}
