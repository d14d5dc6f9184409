<script lang="ts">
  let { children } = $props();
</script>

<kbd
  class="border-strong bg-sheet text-ink inline-block min-w-4 rounded-[3px] border border-b-2 px-1 text-center font-mono text-[10.5px] leading-4"
  aria-hidden="true">{@render children()}</kbd
>
