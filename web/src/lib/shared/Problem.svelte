<script lang="ts">
  let { words, onclose }: { words: string; onclose?: () => void } = $props();
</script>

{#if words}
  <p role="alert" class="my-2 flex items-baseline gap-3 border-l-[3px] border-stop bg-sheet px-3 py-1.5 text-stop">
    <span>{words}</span>
    {#if onclose}<button class="ml-auto text-second underline" onclick={onclose}>understood</button>{/if}
  </p>
{/if}
