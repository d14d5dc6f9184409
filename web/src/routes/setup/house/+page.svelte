<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask } from '$lib/api';
  import { HouseForm, NumberSeries } from '$lib/setup';
  import { loadKinds } from '$lib/list';

  /** What belongs to the house itself, each with its list, its history, and who may change it. */
  const rooms: readonly [string, string][] = [
    ['warehouses', 'where goods leave from: cut-off, picking days, working days'],
    ['territories', 'where somebody sells: new buyers there are theirs'],
    ['reasons', 'why quotes are lost, stops let pass, requests set aside, goods returned'],
    ['own-fields', 'fields of your own on buyers, items, quotes and orders'],
    ['settings', 'what the house does where nothing else is said: days to pay, insurance'],
    ['teams', 'people of whom any one is asked'],
    ['holidays', 'days on which the house does not work'],
    ['tax-rates', 'tax by country and class'],
    ['rates', 'exchange rates'],
    ['charges', 'small orders, dangerous goods, handling'],
    ['freight-zones', 'zones'],
    ['freight-bands', 'what freight costs by weight'],
    ['groups', 'groups of buyers'],
    ['price-lists', 'price lists'],
  ];
  let titles = $state.raw(new Map<string, string>());
  $effect(() => {
    loadKinds(true).then((kinds) => (titles = new Map(kinds.map((k) => [k.name, k.title]))));
  });

  let countries = $state.raw<readonly string[]>([]);
  let country = $state('IE');
  let year = $state(new Date().getFullYear() + 1);
  let said = $state('');
  onMount(() => void ask(api.GET('/api/setup/holidays')).then((found) => (countries = found)));

  async function fill(event: SubmitEvent) {
    event.preventDefault();
    try {
      const days = await ask(api.POST('/api/setup/holidays', { body: { country, year } }));
      said = days ? `${days} days put in.` : 'All of them were there.';
    } catch (reason) {
      said = reason instanceof Error ? reason.message : 'Nothing was put in.';
    }
  }
</script>

<svelte:head><title>The house · Solvenda</title></svelte:head>
<h1 class="font-serif text-[24px]">The house</h1>
<div class="grid grid-cols-[minmax(0,1fr)] items-start gap-x-10 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
  <div>
    <HouseForm />
  </div>
  <div>
    <NumberSeries />
    <ul class="pb-8">
      {#each rooms.filter(([name]) => titles.has(name)) as [name, words] (name)}
        <li class="flex items-baseline gap-4 border-b border-hairline py-2">
          <a class="w-40 shrink-0 font-serif text-[16px] hover:underline" href="/records/{name}">{titles.get(name)}</a><span class="text-second">{words}</span>
        </li>
      {/each}
      <li class="flex items-baseline gap-4 border-b border-hairline py-2">
        <a class="w-40 shrink-0 font-serif text-[16px] hover:underline" href="/troubles">What did not work</a><span class="text-second"
          >what the house’s workers set apart</span
        >
      </li>
    </ul>
    <form class="flex flex-wrap items-center gap-2 pb-8" onsubmit={fill} aria-label="public holidays">
      Put the public holidays of
      <select class="border-b border-ink bg-transparent" bind:value={country} aria-label="country">
        {#each countries as code (code)}<option>{code}</option>{/each}
      </select>
      in <input class="w-16 border-b border-ink bg-transparent" type="number" bind:value={year} aria-label="year" /> into the calendar
      <button class="btn btn-outline btn-sm">Put them in</button>
      {#if said}<span role="status">{said}</span>{/if}
    </form>
  </div>
</div>
