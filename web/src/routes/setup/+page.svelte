<script lang="ts">
  import { goto } from '$app/navigation';
  import { useSession } from '$lib/session';

  const session = useSession();
  // Meets the address: setup opens on the first room of whoever comes.
  $effect(() => {
    void goto(session.person?.runsHouse ? '/setup/people' : '/setup/authority', { replaceState: true });
  });
</script>
