<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { pieces, type Span } from './pieces';

  interface Props {
    request: Schemas['RequestView'];
    /** What the pointer or the keys are on: a line's number, or a field's name. */
    lit: string | null;
    onlight: (of: string | null) => void;
  }

  let { request, lit, onlight }: Props = $props();
  const reading = $derived(request.reading);
  const spans = $derived.by((): Span[] => {
    if (!reading) return [];
    const fields = {
      buyer: reading.buyer,
      contact: reading.contact,
      poNumber: reading.poNumber,
      wanted: reading.wanted,
      deliverTo: reading.deliverTo,
      incoterm: reading.incoterm,
      currency: reading.currency,
      paymentDays: reading.paymentDays,
    };
    return [
      ...Object.entries(fields).flatMap(([of, f]) => f.evidence.map((e) => ({ ...e, of, needsYou: false }))),
      ...reading.lines.flatMap((l) => l.evidence.map((e) => ({ ...e, of: String(l.no), needsYou: false }))),
      ...reading.lines
        .filter((l) => l.needsYou)
        .flatMap((l) => (l.quantityEvidence.length && l.itemCode ? l.quantityEvidence : l.evidence).map((e) => ({ ...e, of: String(l.no), needsYou: true }))),
    ];
  });
  const fresh = $derived(pieces(request.text.slice(0, request.freshLength), spans));
  const quoted = $derived(request.text.slice(request.freshLength));
  const isLit = (of: string[]) => lit !== null && of.includes(lit);
  const inSegment = (s: Schemas['SegmentView']) => spans.filter((x) => x.start < s.start + s.length && x.start + x.length > s.start);
</script>

<article class="min-h-0 overflow-auto border border-hairline bg-focus-row p-5" aria-label="the original">
  {#if request.segments.length}
    <table class="w-full">
      <tbody>
        {#each request.segments as segment (segment.start)}
          {@const about = inSegment(segment)}
          {@const of = [...new Set(about.map((a) => a.of))]}
          <tr
            class="border-b border-hairline align-top {isLit(of) ? 'bg-sheet' : ''}"
            data-evidence={of.join(' ')}
            onmouseenter={() => onlight(of[0] ?? null)}
            onmouseleave={() => onlight(null)}
          >
            <td class="w-28 py-1 pr-3 text-second">{segment.name}</td>
            <td class="py-1 font-mono text-[11.5px] break-all {about.length ? 'underline decoration-(--second) underline-offset-4' : 'text-second'}">
              <span class:needs={about.some((a) => a.needsYou)}>{segment.text}</span>
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {:else if request.text}
    <header class="mb-4 border-b border-strong pb-3 text-second">
      <p>From {request.from}</p>
      <p>Subject <b class="text-ink">{request.subject}</b></p>
    </header>
    <p class="font-serif text-[16px] leading-relaxed break-words whitespace-pre-wrap">
      {#each fresh as piece, i (i)}{#if piece.of.length}<!-- svelte-ignore a11y_no_static_element_interactions --><span
            data-evidence={piece.of.join(' ')}
            class="underline decoration-(--third) underline-offset-4 {isLit(piece.of) ? 'bg-(--hairline) decoration-(--ink) decoration-2' : ''} {piece.needsYou
              ? 'needs'
              : ''}"
            onmouseenter={() => onlight(piece.of.find((o) => /^\d+$/.test(o)) ?? piece.of[0] ?? null)}
            onmouseleave={() => onlight(null)}>{piece.text}</span
          >{:else}{piece.text}{/if}{/each}
    </p>
    {#if quoted.trim()}<p class="mt-4 border-l-2 border-strong pl-3 font-serif text-[14.5px] whitespace-pre-wrap text-third">{quoted.trim()}</p>{/if}
  {:else}
    <p class="font-serif text-[17px]">{request.reason}</p>
    <p class="mt-2 text-second">
      It is kept exactly as it came: {request.filename ?? 'without a name'}, {request.bytes.toLocaleString('en-IE')} bytes, by {request.channel}.
      <a class="underline" href="/api/requests/{request.number}/original" download>Save it</a> to look at it, or put it aside.
    </p>
  {/if}
</article>
