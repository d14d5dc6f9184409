<script lang="ts">
  let { outcome }: { outcome: 'stop' | 'notice' | 'clear' } = $props();
</script>

<!-- Shape and colour, never colour alone. -->
{#if outcome === 'stop'}
  <svg viewBox="0 0 10 10" class="inline size-[9px] shrink-0" role="img" aria-label="stop"><rect width="10" height="10" class="fill-stop" /></svg>
{:else if outcome === 'notice'}
  <svg viewBox="0 0 10 10" class="inline size-[9px] shrink-0" role="img" aria-label="notice"><circle cx="5" cy="5" r="5" class="fill-notice" /></svg>
{:else}
  <svg viewBox="0 0 10 10" class="inline size-[9px] shrink-0" role="img" aria-label="clear"
    ><path d="M1 5.5 4 8.5 9 1.5" class="fill-none stroke-clear" stroke-width="1.5" /></svg
  >
{/if}
