<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, ask } from '$lib/api';
  import { useSession } from '$lib/session';
  import { Problem } from '$lib/shared';

  const session = useSession();
  let name = $state('');
  let login = $state('');
  let password = $state('');
  let problem = $state('');

  async function make(event: SubmitEvent) {
    event.preventDefault();
    try {
      session.view = await ask(api.POST('/api/session/first', { body: { token: page.params.token ?? '', name, login, password } }));
      await goto('/');
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not taken; what you typed is still here.';
    }
  }
</script>

<svelte:head><title>The first administrator · Solvenda</title></svelte:head>
<main class="mx-auto max-w-md p-6">
  <h1 class="font-serif text-2xl">The first administrator</h1>
  <p class="mt-1 text-second">This link works once. Whoever uses it runs the house.</p>
  <Problem words={problem} />
  <form class="mt-4 grid gap-3" onsubmit={make}>
    <label class="grid gap-1"
      ><span class="text-second">your name</span><input
        class="border border-strong bg-sheet px-2 py-1.5"
        bind:value={name}
        autocomplete="name"
        required
      /></label
    >
    <label class="grid gap-1"
      ><span class="text-second">name to sign in with</span><input
        class="border border-strong bg-sheet px-2 py-1.5"
        bind:value={login}
        autocomplete="username"
        required
      /></label
    >
    <label class="grid gap-1"
      ><span class="text-second">password, at least 12 characters</span><input
        class="border border-strong bg-sheet px-2 py-1.5"
        type="password"
        minlength="12"
        bind:value={password}
        autocomplete="new-password"
        required
      /></label
    >
    <button class="btn btn-primary">Begin</button>
  </form>
</main>
