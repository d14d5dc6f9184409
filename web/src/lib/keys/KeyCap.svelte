<script lang="ts">
  let { children } = $props();
</script>

<kbd
  class="inline-block min-w-4 rounded-[3px] border border-b-2 border-strong bg-sheet px-1 text-center font-mono text-[10.5px] leading-4 text-ink max-sm:hidden pointer-coarse:hidden"
  aria-hidden="true">{@render children()}</kbd
>
