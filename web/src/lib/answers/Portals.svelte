<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { day, Latest } from '$lib/shared';

  /** The pages on which this buyer's people write requests. */
  let { id, mayWrite }: { id: number; mayWrite: boolean } = $props();
  const latest = new Latest<readonly Schemas['PortalKeyView'][]>();
  let label = $state('');
  let address = $state('');
  let problem = $state('');
  const path = $derived({ buyer: id });

  // Meets the server, for each buyer anew.
  $effect(() => {
    address = '';
    void latest.ask(() => ask(api.GET('/api/buyers/{buyer}/portal', { params: { path } })), 'Their pages could not be loaded.');
  });

  async function give(event: SubmitEvent) {
    event.preventDefault();
    await doing(async () => {
      const given = await ask(api.POST('/api/buyers/{buyer}/portal', { params: { path }, body: { label, days: 365 } }));
      [address, label] = [given.address, ''];
      latest.take(given.keys);
    });
  }

  const end = (key: number) =>
    doing(async () => latest.take(await ask(api.DELETE('/api/buyers/{buyer}/portal/{id}', { params: { path: { ...path, id: key } } }))));

  async function doing(what: () => Promise<unknown>) {
    problem = '';
    try {
      await what();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not done.';
    }
  }
</script>

<section aria-label="pages to write requests on">
  <h2 class="border-b border-strong pb-1 font-serif text-[17px]">Pages to write requests on</h2>
  <ul>
    {#each latest.value ?? [] as key (key.id)}
      <li class="grid grid-cols-[1fr_auto_auto] gap-3 border-b border-hairline py-1 {key.holds ? '' : 'text-third'}">
        <span class="truncate">{key.label}</span>
        <span class="text-second">{key.holds ? `holds to ${day(key.expiresAt)}` : 'ended'}</span>
        {#if key.holds && mayWrite}<button class="underline" onclick={() => void end(key.id)}>end it</button>{/if}
      </li>
    {:else}<li class="py-1 text-second">None of their people has one. It makes requests, and shows no prices.</li>{/each}
  </ul>
  {#if address}
    <p class="mt-2 bg-sheet px-3 py-2" role="status">
      Send them this address; it is shown only now: <code class="break-all select-all">{address}</code>
    </p>
  {/if}
  {#if problem || latest.problem}<p role="alert" class="py-1 text-stop">{problem || latest.problem}</p>{/if}
  {#if mayWrite}
    <form class="mt-2 flex flex-wrap items-center gap-2" onsubmit={give}>
      <input class="input w-64 input-sm" aria-label="who gets a page" placeholder="who gets one" required maxlength="60" bind:value={label} />
      <button class="btn btn-outline btn-sm">Make a page</button>
    </form>
  {/if}
</section>
