<script lang="ts">
  import type { PDFDocumentProxy } from 'pdfjs-dist';
  import { boxesOf, wordsOf, type Shown } from './parts';
  import type { Span } from './pieces';

  /** The pages of a PDF, or a picture, with the evidence outlined where it stands. */
  interface Props {
    shown: Shown;
    /** Where its bytes are fetched from. */
    source: string;
    spans: readonly Span[];
    lit: string | null;
    onlight: (of: string | null) => void;
  }

  let { shown, source, spans, lit, onlight }: Props = $props();
  let file = $state.raw<PDFDocumentProxy | null>(null);
  let problem = $state('');
  let width = $state(0);
  const words = $derived(wordsOf(shown.part));
  const boxes = $derived(spans.flatMap((s) => boxesOf(words, s).map((b) => ({ ...b, of: s.of, needsYou: s.needsYou }))));
  const isPicture = $derived(shown.part.kind === 'picture');

  // Meets the server and the drawing: another part, another file.
  $effect(() => {
    if (isPicture) return;
    const from = source;
    let gone = false;
    [file, problem] = [null, ''];
    void (async () => {
      try {
        const { openPages } = await import('./pages');
        const answer = await fetch(from);
        if (!answer.ok) throw new Error();
        const opened = await openPages(new Uint8Array(await answer.arrayBuffer()));
        if (gone) await opened.destroy();
        else file = opened;
      } catch {
        if (!gone) problem = 'The pages cannot be drawn here; save the original to look at them.';
      }
    })();
    return () => {
      gone = true;
      void file?.destroy();
    };
  });

  function draw(number: number) {
    return (canvas: HTMLCanvasElement) => {
      const of = file;
      if (!of || width < 50) return;
      void (async () => {
        const { drawPage } = await import('./pages');
        await drawPage(await of.getPage(number), canvas, width);
      })().catch(() => (problem = 'A page cannot be drawn here; save the original to look at it.'));
    };
  }
</script>

{#snippet outlines(page: number)}
  {#each boxes.filter((b) => b.page === page) as box, i (i)}
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <div
      data-evidence={box.of}
      class="absolute border mix-blend-multiply {lit === box.of ? 'border-2 border-ink' : box.needsYou ? 'border-ink bg-(--marker)/40' : 'border-(--third)'}"
      style:left="{box.left * 100 - 0.3}%"
      style:top="{box.top * 100 - 0.2}%"
      style:width="{box.width * 100 + 0.6}%"
      style:height="{box.height * 100 + 0.4}%"
      onmouseenter={() => onlight(box.of)}
      onmouseleave={() => onlight(null)}
    ></div>
  {/each}
{/snippet}

{#if problem}<p class="text-stop" role="alert">{problem}</p>{/if}
<div bind:clientWidth={width}>
  {#if isPicture}
    <div class="relative">
      <img src={source} alt={shown.part.name} class="w-full" />
      {@render outlines(0)}
    </div>
  {:else if file}
    {#each Array.from({ length: file.numPages }, (_, i) => i) as page (page)}
      <div class="relative mb-3 bg-white shadow">
        {#key width}<canvas class="block w-full" aria-label="page {page + 1}" {@attach draw(page + 1)}></canvas>{/key}
        {@render outlines(page)}
      </div>
    {/each}
  {:else if !problem}<p class="text-second">The pages are being drawn…</p>{/if}
</div>
