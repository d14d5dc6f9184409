<script lang="ts">
  import { page } from '$app/state';
  import { useSession } from '$lib/session';
  import { roomsFor } from '$lib/setup';

  let { children } = $props();
  const session = useSession();
  const rooms = $derived(roomsFor(session.person?.runsHouse ?? false));
</script>

<div class="flex w-full flex-1 flex-col px-4 lg:px-5">
  <nav class="flex gap-5 overflow-x-auto py-2 whitespace-nowrap" aria-label="rooms of setup">
    {#each rooms as room (room.path)}
      <a
        href={room.path}
        class={page.url.pathname === room.path ? 'font-semibold' : 'text-second'}
        aria-current={page.url.pathname === room.path ? 'page' : undefined}>{room.name}</a
      >
    {/each}
  </nav>
  {@render children()}
</div>
