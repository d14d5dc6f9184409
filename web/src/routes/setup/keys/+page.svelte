<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { day, DayField, Latest, Problem } from '$lib/shared';

  const keys = new Latest<Schemas['KeysView']>();
  let name = $state('');
  let scopes = $state<string[]>([]);
  let expires = $state('');
  let made = $state.raw<{ name: string; secret: string } | null>(null);
  let problem = $state('');
  const load = () => keys.ask(() => ask(api.GET('/api/setup/keys')));
  onMount(() => void load());

  async function make(event: SubmitEvent) {
    event.preventDefault();
    try {
      const key = await ask(api.POST('/api/setup/keys', { body: { name, scopes, expires: expires || null } }));
      made = { name, secret: key.secret };
      [name, scopes, expires, problem] = ['', [], '', ''];
      await load();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not made.';
    }
  }

  async function revoke(id: number) {
    try {
      await ask(api.DELETE('/api/setup/keys/{id}', { params: { path: { id } } }));
      await load();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not revoked.';
    }
  }
</script>

<svelte:head><title>Keys of machines · Solvenda</title></svelte:head>
<Problem words={keys.problem} />
{#if keys.value}
  <div class="grid gap-x-8 gap-y-6 pb-8 lg:grid-cols-[1.5fr_1fr]">
    <div>
      <h1 class="font-serif text-[24px]">Keys of machines <em class="text-second">{keys.value.keys.filter((k) => !k.revokedAt).length} open something</em></h1>
      {#each keys.value.keys as key (key.id)}
        <div class="flex items-baseline gap-4 border-b border-hairline py-2 {key.revokedAt ? 'text-third' : ''}">
          <b class="min-w-40">{key.name}</b>
          <span class="flex-1 font-mono text-[12px]">{key.scopes.join(' ')}</span>
          <span class="text-second"
            >made {day(key.createdAt)}{key.revokedAt ? `, revoked ${day(key.revokedAt)}` : key.expiresAt ? `, to ${day(key.expiresAt)}` : ''}</span
          >
          {#if !key.revokedAt}<button class="underline" onclick={() => void revoke(key.id)}>revoke</button>{/if}
        </div>
      {/each}
    </div>
    <div>
      {#if made}
        <section class="mb-4 border border-strong bg-sheet p-4" aria-label="the new key">
          <h2 class="font-serif text-[17px]">The key of {made.name}</h2>
          <p class="text-second">Only its hash is kept: copy it now, nobody sees it again.</p>
          <code class="mt-2 block bg-ground p-2 font-mono text-[13px] break-all">{made.secret}</code>
          <button class="btn mt-2 btn-outline btn-sm" onclick={() => (made = null)}>I have it</button>
        </section>
      {/if}
      <form class="grid gap-2 border border-hairline bg-sheet p-4" onsubmit={make} aria-label="a new key">
        <h2 class="font-serif text-[17px]">A new key</h2>
        <label class="grid gap-1"
          ><span class="text-second">called</span><input class="border border-strong bg-sheet px-2 py-1" bind:value={name} maxlength="60" required /></label
        >
        <fieldset>
          <legend class="text-second">it</legend>
          {#each keys.value.scopes as scope (scope.code)}
            <label class="flex min-h-7 items-center gap-2"><input type="checkbox" value={scope.code} bind:group={scopes} /> {scope.words}</label>
          {/each}
        </fieldset>
        <span>to <DayField bind:value={expires} label="its last day" /> <span class="text-second">nothing: until it is revoked</span></span>
        {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
        <button class="btn justify-self-start btn-primary btn-sm">Make it</button>
      </form>
    </div>
  </div>
{/if}
