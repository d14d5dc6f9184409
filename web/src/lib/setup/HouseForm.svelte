<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { formKeys, KeyCap } from '$lib/keys';
  import { Problem } from '$lib/shared';
  import Lately from './Lately.svelte';

  /** What papers and letters say of the house. */
  const fields = [
    ['name', 'name', ''],
    ['address', 'address', 'on one line, parts apart by commas'],
    ['mail', 'mail', 'letters go out from it'],
    ['phone', 'phone', ''],
    ['taxNumber', 'tax number', ''],
    ['register', 'register', 'where it is registered, by which number'],
    ['bank', 'bank', 'stands at the foot of papers'],
    ['foot', 'last line', 'under it, on every paper'],
  ] as const;
  let view = $state.raw<Schemas['HouseView'] | null>(null);
  let facts = $state<Schemas['HouseFacts']>({
    name: '',
    address: '',
    mail: '',
    phone: '',
    taxNumber: '',
    register: '',
    bank: '',
    incoterms: [],
    colour: '',
    foot: '',
    taxesAdvances: true,
  });
  let logo = $state<string | null>(null);
  let said = $state('');
  let problem = $state('');
  let busy = $state(false);

  const take = (fresh: Schemas['HouseView']) => ([view, facts, logo] = [fresh, { ...fresh.facts }, null]);
  onMount(() =>
    ask(api.GET('/api/setup/house')).then(take, (reason: unknown) => (problem = reason instanceof Error ? reason.message : 'It could not be loaded.')),
  );

  const sellsBy = (term: string) => facts.incoterms?.includes(term) ?? false;
  const toggle = (term: string) => (facts.incoterms = sellsBy(term) ? facts.incoterms?.filter((t) => t !== term) : [...(facts.incoterms ?? []), term]);

  // Read here, sent with the rest; the server looks at what it is.
  function pick(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    if (!file) return;
    const reader = new FileReader();
    reader.onload = () => (logo = String(reader.result).split(',')[1] ?? '');
    reader.readAsDataURL(file);
  }

  // An invoice as it would look, drawn by the server that prints it; the newest one that was asked for is shown.
  let picture = $state('');
  let notDrawn = $state('');
  let asked = 0;
  async function draw(body: string): Promise<string> {
    const answer = await fetch('/api/setup/house/paper', { method: 'POST', headers: { 'content-type': 'application/json' }, body });
    if (!answer.ok) throw new Error(String(((await answer.json()) as { title?: string }).title));
    const blob = await answer.blob();
    return new Promise((drawn) => {
      const reader = new FileReader();
      reader.onload = () => drawn(String(reader.result));
      reader.readAsDataURL(blob);
    });
  }
  $effect(() => {
    if (!view) return;
    const body = JSON.stringify({ facts, logo });
    const mine = ++asked;
    const wait = setTimeout(() => {
      void draw(body).then(
        (drawn) => mine === asked && ([picture, notDrawn] = [drawn, '']),
        (reason: unknown) => mine === asked && (notDrawn = reason instanceof Error ? reason.message : 'It could not be drawn.'),
      );
    }, 300);
    return () => clearTimeout(wait);
  });

  async function save(event: SubmitEvent) {
    event.preventDefault();
    if (!view) return;
    busy = true;
    [problem, said] = ['', ''];
    try {
      take(await ask(api.PUT('/api/setup/house', { params: { header: { 'If-Match': `"${view.version}"` } }, body: { facts, logo } })));
      said = 'Kept; what is printed from now on says so.';
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not kept; what you typed is still here.';
    } finally {
      busy = false;
    }
  }
</script>

<Problem words={problem} onclose={() => (problem = '')} />
{#if view}
  <form class="mb-6 grid border border-hairline bg-sheet p-4" onsubmit={save} {@attach formKeys} aria-label="on papers and letters">
    <h2 class="mb-1 font-serif text-[17px]">On papers and letters</h2>
    {#each fields as [name, label, hint] (name)}
      <label class="grid grid-cols-[110px_1fr] items-baseline border-b border-hairline">
        <span class="py-1.5 text-second">{label}</span>
        <input class="h-8 w-full bg-transparent" bind:value={facts[name]} placeholder={hint} maxlength="200" />
      </label>
    {/each}
    <div class="grid grid-cols-[110px_1fr] items-baseline border-b border-hairline py-1.5">
      <span class="text-second">logo</span>
      <span class="flex flex-wrap items-center gap-3">
        {#if logo}<img src="data:image;base64,{logo}" alt="the new logo" class="h-8" />
        {:else if view.hasLogo && logo === null}<img src="/api/logo?v={view.version}" alt="the logo" class="h-8" />
        {:else}<span class="text-second">none: papers bear the name alone</span>{/if}
        <input type="file" accept="image/png,image/jpeg" aria-label="another logo, PNG or JPEG, at most 300 kB" onchange={pick} />
        {#if view.hasLogo && logo !== ''}<button type="button" class="underline" onclick={() => (logo = '')}>take it away</button>{/if}
      </span>
    </div>
    <div class="grid grid-cols-[110px_1fr] items-center border-b border-hairline py-1.5">
      <label class="text-second" for="colour">colour</label>
      <span class="flex items-center gap-3">
        <input id="colour" type="color" class="h-7 w-10" value={facts.colour || '#1b1d22'} oninput={(event) => (facts.colour = event.currentTarget.value)} />
        <span class="text-second">{facts.colour ? `${facts.colour}, of the name, titles and rules` : 'that of ink'}</span>
        {#if facts.colour}<button type="button" class="underline" onclick={() => (facts.colour = '')}>that of ink</button>{/if}
      </span>
    </div>
    <label class="grid grid-cols-[110px_1fr] items-baseline border-b border-hairline py-1.5">
      <span class="text-second">deposits</span>
      <span class="flex items-center gap-1.5"
        ><input type="checkbox" class="accent-(--ink)" bind:checked={facts.taxesAdvances} />taxed when they come, by a deposit invoice</span
      >
    </label>
    <fieldset class="grid grid-cols-[110px_1fr] items-baseline border-b border-hairline py-1.5">
      <legend class="float-left contents text-second"><span class="text-second">sells by</span></legend>
      <span class="flex flex-wrap gap-x-4">
        {#each view.allIncoterms as term (term)}
          <label class="flex min-h-7 items-center gap-1.5">
            <input type="checkbox" class="accent-(--ink)" checked={sellsBy(term)} onchange={() => toggle(term)} /><span class="font-mono text-[13px]"
              >{term}</span
            >
          </label>
        {/each}
      </span>
    </fieldset>
    <p class="py-1.5 text-second">
      It sells from <b class="text-ink">{view.country}</b> in <b class="text-ink">{view.currency}</b>: that was set when it was begun, and stays, since prices
      and tax hang on it.
    </p>
    <p class="flex items-center gap-3">
      <button class="btn btn-primary btn-sm" disabled={busy}>Keep it <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button>
      {#if said}<span role="status">{said}</span>{/if}
    </p>
  </form>
  {#if picture}
    <figure class="mb-6 border border-hairline bg-sheet p-3">
      <img src={picture} alt="an invoice as it would be printed with what stands above" class="w-full" />
      <figcaption class="mt-1 text-second">{notDrawn || 'as it would be printed; it changes as you type, and is kept when you keep it'}</figcaption>
    </figure>
  {/if}
  <div class="mb-6"><Lately changes={view.lately} /></div>
{/if}
