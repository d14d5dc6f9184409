<script lang="ts">
  import type { Component } from 'svelte';
  import { provideKeys } from '$lib/keys';

  /** A component under a layout that hands it the keys of the window, as the app's does. */
  let { of: Of, props }: { of: Component<Record<string, unknown>>; props: Record<string, unknown> } = $props();
  const keys = provideKeys();
</script>

<svelte:window onkeydown={keys.handle} />
<Of {...props} />
