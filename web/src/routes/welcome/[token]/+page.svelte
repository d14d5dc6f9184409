<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api';
  import { useSession } from '$lib/session';
  import { Latest, Problem } from '$lib/shared';

  const session = useSession();
  const token = page.params.token ?? '';
  const invited = new Latest<Schemas['WelcomeView']>();
  let password = $state('');
  let problem = $state('');
  onMount(() => void invited.ask(() => ask(api.GET('/api/session/welcome/{token}', { params: { path: { token } } })), 'The link could not be looked at.'));

  async function take(event: SubmitEvent) {
    event.preventDefault();
    try {
      session.view = await ask(api.POST('/api/session/welcome', { body: { token, password } }));
      await goto('/');
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not taken; what you typed is still here.';
    }
  }
</script>

<svelte:head><title>Welcome · Solvenda</title></svelte:head>
<main class="mx-auto max-w-md p-6">
  <p class="font-serif text-[19px] italic">Solvenda</p>
  <Problem words={problem || invited.problem} />
  {#if invited.value}
    <h1 class="mt-4 font-serif text-2xl">Welcome, {invited.value.name}</h1>
    <p class="mt-1 text-second">
      Your place at {invited.value.seller}. You sign in as <b class="font-mono">{invited.value.login}</b>; this link works once.
    </p>
    <form class="mt-4 grid gap-3" onsubmit={take}>
      <input type="hidden" autocomplete="username" value={invited.value.login} />
      <label class="grid gap-1"
        ><span class="text-second">your password, at least 12 characters</span><input
          class="border border-strong bg-sheet px-2 py-1.5"
          type="password"
          minlength="12"
          bind:value={password}
          autocomplete="new-password"
          required
        /></label
      >
      <button class="btn btn-primary">Come in</button>
    </form>
  {/if}
</main>
