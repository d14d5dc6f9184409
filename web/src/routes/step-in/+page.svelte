<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ask, Refusal, type Schemas } from '$lib/api';
  import { useSession } from '$lib/session';

  const session = useSession();
  let people = $state<Schemas['PersonView'][]>([]);
  let login = $state('');
  let password = $state('');
  let problem = $state('');

  // Meets the server: the people of the demo are only there in the demo.
  $effect(() => {
    if (session.view?.demo) ask(api.GET('/api/demo/people')).then((found) => (people = found), say);
  });

  function say(reason: unknown) {
    problem = reason instanceof Refusal ? reason.message : 'Something went wrong here.';
  }

  async function enter(door: () => Promise<void>) {
    problem = '';
    try {
      await door();
      await goto('/');
    } catch (reason) {
      say(reason);
    }
  }
</script>

<main class="mx-auto max-w-md p-6">
  <h1 class="font-serif text-2xl">{session.view?.demo ? 'Who are you today?' : 'Sign in'}</h1>
  {#if problem}<p role="alert" class="text-stop mt-3">{problem}</p>{/if}
  {#if session.view?.demo}
    <ul class="border-strong mt-4 border-t">
      {#each people as person (person.id)}
        <li class="border-hairline border-b">
          <button class="hover:bg-sheet flex w-full justify-between py-2 text-left" onclick={() => enter(() => session.stepIn(person.id))}>
            <span class="font-serif text-base">{person.name}</span>
            <span class="text-second">{person.does}</span>
          </button>
        </li>
      {/each}
    </ul>
  {:else}
    <form
      class="mt-4 grid gap-3"
      onsubmit={(event) => {
        event.preventDefault();
        enter(() => session.signIn(login, password));
      }}
    >
      <label class="grid gap-1">name <input class="input" bind:value={login} autocomplete="username" required /></label>
      <label class="grid gap-1">password <input class="input" type="password" bind:value={password} autocomplete="current-password" required /></label>
      <button class="btn btn-primary">Sign in</button>
    </form>
  {/if}
</main>
