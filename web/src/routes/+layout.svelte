<script lang="ts">
  import '../app.css';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { provideSession } from '$lib/session';

  let { children } = $props();
  const session = provideSession();
  let ready = $state(false);
  // The buyer's page and the doors need nobody signed in.
  const open = $derived(/^\/(offer|step-in|first)(\/|$)/.test(page.url.pathname));

  onMount(async () => {
    await session.load();
    ready = true;
    if (!session.person && !open) await goto('/step-in');
  });
</script>

{#if ready}{@render children()}{/if}
