<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ask, Refusal, type Schemas } from '$lib/api';
  import { useSession } from '$lib/session';
  import { Problem } from '$lib/shared';

  const session = useSession();
  let people = $state.raw<Schemas['PersonView'][]>([]);
  let login = $state('');
  let password = $state('');
  let code = $state('');
  // The password held; the six digits are wanted too.
  let wantsCode = $state(false);
  let problem = $state('');
  const demo = $derived(session.view?.demo ?? false);

  // Meets the server: the people of the demo are only there in the demo.
  $effect(() => {
    if (demo) ask(api.GET('/api/demo/people')).then((found) => (people = found), say);
  });

  function say(reason: unknown) {
    if (reason instanceof Refusal && reason.code === 'second_factor') wantsCode = true;
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

<svelte:head><title>Solvenda</title></svelte:head>
<main class="mx-auto max-w-lg px-5 py-10">
  <p class="font-serif text-[19px] italic">Solvenda</p>
  <h1 class="mt-6 font-serif text-[25px]">{demo ? 'Who are you today?' : 'Sign in'}</h1>
  {#if demo}<p class="mt-1 text-second">{session.view?.seller}: a made-up house, so every door stands open.</p>{/if}
  <Problem words={problem} />
  {#if demo}
    <ul class="mt-4 border-t border-ink">
      {#each people as person (person.id)}
        <li class="border-b border-hairline">
          <button
            class="flex w-full items-baseline justify-between px-2 py-1.5 text-left hover:bg-sheet"
            onclick={() => enter(() => session.stepIn(person.id))}
          >
            <span class="font-serif text-[16px]">{person.name}</span>
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
        void enter(() => session.signIn(login, password, code || null));
      }}
    >
      <label class="grid gap-1"
        ><span class="text-second">name</span><input
          class="border border-strong bg-sheet px-2 py-1.5"
          bind:value={login}
          autocomplete="username"
          required
        /></label
      >
      <label class="grid gap-1"
        ><span class="text-second">password</span><input
          class="border border-strong bg-sheet px-2 py-1.5"
          type="password"
          bind:value={password}
          autocomplete="current-password"
          required
        /></label
      >
      {#if wantsCode}
        <label class="grid gap-1"
          ><span class="text-second">six digits</span><input
            class="border border-strong bg-sheet px-2 py-1.5"
            inputmode="numeric"
            autocomplete="one-time-code"
            bind:value={code}
            required
          /></label
        >
      {/if}
      <button class="btn btn-primary">Sign in</button>
    </form>
  {/if}
</main>
