<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { Lately } from '$lib/setup';
  import { Latest, Problem, since } from '$lib/shared';

  type Line = Schemas['PersonLine'];
  type Fields = Schemas['PersonFields'];
  const people = new Latest<Schemas['PeopleView']>();
  const view = $derived(people.value);
  let open = $state.raw<Line | null>(null);
  let fields = $state<Fields | null>(null);
  let login = $state('');
  let takes = $state<number | null>(null);
  let problem = $state('');
  let said = $state('');
  let link = $state('');
  const load = () => people.ask(() => ask(api.GET('/api/setup/people')));
  onMount(() => void load());

  const blank = (): Fields => ({ name: '', does: '', mail: '', roles: [], signature: '', worksFrom: '09:00:00', worksTo: '17:00:00' });

  function pick(line: Line | null) {
    [open, fields, login, problem, said, link, takes] = [line, line ? structuredClone(line.fields) : blank(), line?.login ?? '', '', '', '', null];
  }

  async function run(what: () => Promise<unknown>, then: string) {
    [problem, said] = ['', ''];
    try {
      await what();
      said = then;
      const shown = await load();
      if (open) open = shown?.people.find((p) => p.id === open?.id) ?? null;
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not done.';
    }
  }

  const save = (event: SubmitEvent) => {
    event.preventDefault();
    const body = $state.snapshot(fields!);
    const person = open;
    if (person) return void run(() => ask(api.PUT('/api/setup/people/{id}', { params: { path: { id: person.id } }, body })), 'Kept.');
    return void run(async () => {
      const invited = await ask(api.POST('/api/setup/people', { body: { login, fields: body } }));
      link = invited.link ?? '';
      open = { id: invited.person } as Line;
    }, `A letter is on its way to ${body.mail}.`);
  };
  const path = $derived({ params: { path: { id: open?.id ?? 0 } } });
  const again = () =>
    run(async () => {
      const invited = await ask(api.POST('/api/setup/people/{id}/invite', path));
      link = invited.link ?? '';
    }, 'A new link is on its way; the old password holds no more.');
  const turn = (on: boolean) =>
    run(() => ask(api.POST('/api/setup/people/{id}/switch', { ...path, body: { on, to: takes } })), on ? 'Switched on.' : 'Switched off.');
  const out = () => run(() => ask(api.DELETE('/api/setup/people/{id}/sessions', path)), 'Signed out everywhere.');
  const field = 'border border-strong bg-sheet px-2 py-1';
</script>

<svelte:head><title>People · Solvenda</title></svelte:head>
<Problem words={people.problem} />
{#if view}
  <div class="grid gap-x-8 gap-y-6 pb-8 lg:grid-cols-[1.5fr_1fr]">
    <div class="min-w-0">
      <div class="flex items-baseline justify-between">
        <h1 class="font-serif text-[24px]">People <em class="text-second">{view.people.filter((p) => p.active).length} work here</em></h1>
        <button class="btn btn-outline btn-sm" onclick={() => pick(null)}>Invite somebody</button>
      </div>
      <table class="mt-1 w-full border-collapse">
        <thead class="text-left text-[11.5px] text-second">
          <tr class="border-b border-strong">
            <th class="py-1 font-normal">name</th><th class="font-normal">may</th><th class="font-normal">signs in as</th><th class="font-normal"
              >second factor</th
            ><th class="text-right font-normal">signed in</th>
          </tr>
        </thead>
        <tbody>
          {#each view.people as person (person.id)}
            <tr class="border-b border-hairline {open?.id === person.id ? 'bg-sheet' : ''} {person.active ? '' : 'text-third'}">
              <td class="py-1.5 pr-2"
                ><button class="text-left" onclick={() => pick(person)}
                  ><b>{person.fields.name}</b> <span class="text-second">{person.active ? person.fields.does : 'switched off'}</span></button
                ></td
              >
              <td class="pr-2">{person.roleWords}</td>
              <td class="pr-2 font-mono text-[12px]">{person.login}</td>
              <td>{person.hasSecondFactor ? '✓' : '–'}</td>
              <td class="text-right whitespace-nowrap">{person.lastSeen ? since(person.lastSeen) : '–'}{person.sessions > 1 ? `, ${person.sessions}×` : ''}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      <Lately changes={view.lately} />
    </div>
    {#if fields}
      <form class="grid content-start gap-2 border border-hairline bg-sheet p-4" onsubmit={save} aria-label={open ? fields.name : 'somebody new'}>
        <h2 class="font-serif text-[18px]">{open?.fields?.name ?? 'Somebody new'}</h2>
        {#if !open}
          <label class="grid gap-1"><span class="text-second">signs in as</span><input class={field} bind:value={login} required /></label>
        {/if}
        <label class="grid gap-1"><span class="text-second">name</span><input class={field} bind:value={fields.name} required /></label>
        <label class="grid gap-1"><span class="text-second">does</span><input class={field} bind:value={fields.does} /></label>
        <label class="grid gap-1"><span class="text-second">mail</span><input class={field} type="email" bind:value={fields.mail} required /></label>
        <fieldset>
          <legend class="text-second">may</legend>
          {#each view.roles as role (role.role)}
            <label class="flex items-baseline gap-2"
              ><input type="checkbox" value={role.role} bind:group={fields.roles} />
              <span><b>{role.name}</b> <span class="text-second">{role.does}</span></span></label
            >
          {/each}
        </fieldset>
        <div class="flex flex-wrap gap-3">
          <label class="grid gap-1"
            ><span class="text-second">works from</span><input
              class={field}
              pattern="[0-2]?\d:[0-5]\d"
              size="5"
              bind:value={() => fields!.worksFrom.slice(0, 5), (v) => (fields!.worksFrom = `${v.padStart(5, '0')}:00`)}
            /></label
          >
          <label class="grid gap-1"
            ><span class="text-second">to</span><input
              class={field}
              pattern="[0-2]?\d:[0-5]\d"
              size="5"
              bind:value={() => fields!.worksTo.slice(0, 5), (v) => (fields!.worksTo = `${v.padStart(5, '0')}:00`)}
            /></label
          >
        </div>
        <label class="grid gap-1"><span class="text-second">signature</span><textarea class={field} rows="2" bind:value={fields.signature}></textarea></label>
        {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
        {#if said}<p role="status">{said}</p>{/if}
        {#if link}
          <p class="border border-strong p-2">
            No mail server is set: give them this link yourself. It works once, within a week, and is not shown again.
            <code class="mt-1 block font-mono text-[12px] break-all">{link}</code>
          </p>
        {/if}
        <div class="flex flex-wrap gap-2">
          <button class="btn btn-primary btn-sm">{open ? 'Keep it' : 'Invite them'}</button>
          {#if open?.active}
            <button type="button" class="btn btn-outline btn-sm" onclick={() => void again()}>Send a new link</button>
            <button type="button" class="btn btn-outline btn-sm" onclick={() => void out()}>Sign out everywhere</button>
          {/if}
        </div>
        {#if open?.active}
          <div class="mt-2 border-t border-hairline pt-2">
            {#if open.leaves}<p>Switched off, they leave behind: {open.leaves}.</p>{/if}
            <div class="flex flex-wrap items-center gap-2">
              {#if open.leaves}
                <select class="border-b border-ink bg-transparent" bind:value={takes} aria-label="who takes over">
                  <option value={null}>who takes over?</option>
                  {#each view.people.filter((p) => p.active && p.id !== open?.id) as p (p.id)}<option value={p.id}>{p.fields.name}</option>{/each}
                </select>
              {/if}
              <button type="button" class="btn btn-outline btn-sm" onclick={() => void turn(false)}>Switch off</button>
            </div>
          </div>
        {:else if open && open.active === false}
          <button type="button" class="btn justify-self-start btn-outline btn-sm" onclick={() => void turn(true)}>Switch on again</button>
        {/if}
      </form>
    {:else}<p class="font-serif text-[17px] text-second">Open somebody, or invite: they set their own password behind a link that works once.</p>{/if}
  </div>
{/if}
