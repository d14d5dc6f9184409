<script lang="ts">
  import type { Schemas } from '$lib/api';
  import PagesView from './PagesView.svelte';
  import { chosenIn, spansOf, type Chosen } from './parts';
  import SegmentsView from './SegmentsView.svelte';
  import TableView from './TableView.svelte';
  import TextView from './TextView.svelte';

  interface Props {
    request: Schemas['RequestView'];
    /** What the pointer or the keys are on: a line's number, or a field's name. */
    lit: string | null;
    open: boolean;
    /** Which part is shown. */
    part: number;
    onlight: (of: string | null) => void;
    onchoose: (chosen: Chosen) => void;
    oncolumns: (part: number, row: number, columns: Record<number, string>) => void;
  }

  let { request, lit, open, part = $bindable(), onlight, onchoose, oncolumns }: Props = $props();
  let asSent = $state(false);
  let root = $state<HTMLElement>();
  const shown = $derived(request.parts[part]);
  const spans = $derived(spansOf(request.reading, part));
  const source = $derived(shown ? `/api/requests/${request.number}/attachments/${shown.part.attachment}` : '');
  const count = (at: number) => new Set(spansOf(request.reading, at).map((s) => s.of)).size;

  function choose() {
    const chosen = root && shown && open ? chosenIn(root, part, shown.part.text) : null;
    if (chosen) onchoose(chosen);
  }

  // The mail's own look, cleaned by the server, in a frame where nothing runs and nothing is fetched.
  const frame = $derived(
    shown
      ? `<!doctype html><meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'"><body style="font:14px sans-serif;background:#fff;color:#111">${shown.part.html}`
      : '',
  );
</script>

<svelte:document onselectionchange={choose} />
<article bind:this={root} class="flex min-h-0 flex-col border border-hairline bg-focus-row" aria-label="the original">
  {#if request.parts.length > 1}
    <div class="flex flex-wrap gap-x-4 gap-y-1 border-b border-hairline px-5 py-2" role="group" aria-label="parts of the original">
      {#each request.parts as p, i (i)}
        <button
          class="max-w-56 truncate {i === part ? 'font-semibold underline decoration-2 underline-offset-4' : 'text-second hover:text-ink'}"
          aria-pressed={i === part}
          onclick={() => ((part = i), (asSent = false))}>{p.part.name}{count(i) ? ` · ${count(i)}` : ''}</button
        >
      {/each}
    </div>
  {/if}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="min-h-0 flex-1 overflow-auto p-5" tabindex="0" role="group" aria-label="its text">
    {#if !shown}
      <p class="font-serif text-[17px]">{request.reason}</p>
      <p class="mt-2 text-second">
        It is kept exactly as it came: {request.filename ?? 'without a name'}, {request.bytes.toLocaleString('en-IE')} bytes, by {request.channel}.
        <a class="underline" href="/api/requests/{request.number}/original" download>Save it</a> to look at it, or put it aside.
      </p>
    {:else if shown.part.kind === 'edi'}
      <SegmentsView {shown} {spans} {lit} {onlight} />
    {:else if shown.part.kind === 'table'}
      <TableView {shown} {spans} {lit} {open} {onlight} oncolumns={(row, columns) => oncolumns(part, row, columns)} />
    {:else if (shown.part.kind === 'pages' || shown.part.kind === 'picture') && shown.part.pages > 0}
      <PagesView {shown} {source} {spans} {lit} {onlight} />
      {#if !shown.part.text}<p class="mt-2 text-second">{request.reading?.warnings.find((w) => w.includes('tesseract')) ?? request.reason}</p>{/if}
    {:else if shown.part.kind === 'xml' || shown.part.kind === 'json'}
      <pre class="font-mono text-[11.5px] leading-relaxed break-all whitespace-pre-wrap"><TextView
          text={shown.part.text.slice(0, 200_000)}
          {spans}
          {lit}
          {onlight}
        /></pre>
    {:else if shown.part.kind === 'kept'}
      <p class="font-serif text-[17px]">{shown.part.name}</p>
      <p class="mt-2 text-second">It is kept as it came. <a class="underline" href={source} download={shown.part.name}>Save it</a> to look at it.</p>
    {:else}
      {#if part === 0 || request.from}
        <header class="mb-4 border-b border-strong pb-3 text-second">
          {#if request.from}<p>From {request.from}</p>{/if}
          <p>Subject <b class="text-ink">{request.subject}</b></p>
          {#if shown.part.html}<button class="underline decoration-strong" aria-pressed={asSent} onclick={() => (asSent = !asSent)}
              >{asSent ? 'its words' : 'as it was laid out'}</button
            >{/if}
        </header>
      {/if}
      {#if asSent}<iframe title="as it was laid out" sandbox="" srcdoc={frame} class="h-[60vh] w-full border border-hairline bg-white"></iframe>{:else}
        <p class="font-serif text-[16px] leading-relaxed break-words whitespace-pre-wrap">
          <TextView text={shown.part.text.slice(0, shown.part.fresh)} {spans} {lit} {onlight} />
        </p>
        {#if shown.part.text.slice(shown.part.fresh).trim()}
          <p class="mt-4 border-l-2 border-strong pl-3 font-serif text-[14.5px] break-words whitespace-pre-wrap text-third">
            <TextView text={shown.part.text.slice(shown.part.fresh)} from={shown.part.fresh} spans={[]} {lit} {onlight} />
          </p>{/if}
      {/if}
    {/if}
  </div>
</article>
