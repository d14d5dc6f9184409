<script lang="ts">
  let { words, onclose }: { words: string; onclose?: () => void } = $props();
</script>

{#if words}
  <p role="alert" class="border-stop bg-sheet text-stop my-2 flex items-baseline gap-3 border-l-[3px] px-3 py-1.5">
    <span>{words}</span>
    {#if onclose}<button class="text-second ml-auto underline" onclick={onclose}>understood</button>{/if}
  </p>
{/if}
