<script lang="ts">
  /** The paper that a text stands on, as it is typed. */
  let { values }: { values: Record<string, string> } = $props();
  const query = $derived(
    new URLSearchParams({
      paper: values.paper ?? '',
      language: values.language ?? '',
      above: values.above ?? '',
      below: values.below ?? '',
    }).toString(),
  );
</script>

<figure class="self-start border border-hairline bg-white">
  <img src="/api/setup/papers/picture?{query}" alt="a paper with this text on it" class="w-full" />
</figure>
