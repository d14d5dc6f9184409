<script lang="ts">
  import { tick } from 'svelte';
  import type { RequestState } from './request.svelte';

  /** The thread from a line to the words that it was read from. */
  let { state: request, box }: { state: RequestState; box: HTMLElement | undefined } = $props();
  let thread = $state('');

  // Pages and pictures are laid out after they have come; what points into them moves along.
  let laid = $state(0);
  $effect(() => {
    const shown = box?.firstElementChild;
    void request.part;
    if (!shown) return;
    const watcher = new ResizeObserver(() => laid++);
    const watch = () => [...shown.querySelectorAll('img, canvas')].forEach((drawn) => watcher.observe(drawn));
    const comers = new MutationObserver(watch);
    comers.observe(shown, { childList: true, subtree: true });
    watch();
    return () => {
      comers.disconnect();
      watcher.disconnect();
    };
  });

  // Meets the drawing: the thread from a line to its words follows what is lit.
  $effect(() => {
    const of = request.lit ?? (request.line === null ? null : String(request.line));
    void request.view;
    void request.part;
    void laid;
    void tick().then(() => {
      // What the keys are on comes into sight; what the pointer is on is in sight already.
      if (request.lit === null && of !== null) box?.querySelector(`[data-evidence~="${of}"]`)?.scrollIntoView({ block: 'nearest' });
      thread = of === null ? '' : draw(of);
    });
  });

  function draw(of: string): string {
    // Of several places the one that is nearest to the line, so that the thread crosses the fewest words.
    const from = [...(box?.querySelectorAll(`[data-evidence~="${of}"]`) ?? [])].map((e) => e.getBoundingClientRect()).sort((a, b) => b.right - a.right)[0];
    const to = box?.querySelector(`[data-reads="${of}"]`)?.getBoundingClientRect();
    const around = box?.getBoundingClientRect();
    if (!from || !to || !around || to.left < from.left + 40 || from.bottom > around.bottom || from.top < around.top) return '';
    const [x1, y1, x2, y2] = [Math.min(from.right, to.left - 24) - around.left, from.bottom - around.top - 2, to.left - around.left, to.top + 14 - around.top];
    return `M${x1} ${y1} C ${x1 + 28} ${y1}, ${x2 - 28} ${y2}, ${x2} ${y2}`;
  }
</script>

{#if thread}
  <svg class="pointer-events-none absolute inset-0 size-full overflow-visible max-lg:hidden" aria-hidden="true"
    ><path d={thread} class="fill-none stroke-ink" stroke-width="1.2" /></svg
  >
{/if}
