<script lang="ts">
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api';
  import { loadKinds } from '$lib/list';
  import Reference from '$lib/records/Reference.svelte';
  import { Answer, Rise } from '$lib/prices';
  import { DayField, Latest, Problem } from '$lib/shared';

  let buyer = $state(page.url.searchParams.get('buyer') ?? '');
  let item = $state(page.url.searchParams.get('item') ?? '');
  let quantity = $state('1');
  let unit = $state('');
  let on = $state(new Date().toLocaleDateString('sv-SE'));
  const latest = new Latest<Schemas['PriceAnswer']>();
  const answer = $derived(latest.value);

  // Meets the server, whenever the question is whole.
  $effect(() => {
    const query = { buyer, item, quantity: Number(quantity.replace(',', '.')), unit: unit || undefined, day: on || undefined };
    if (!buyer || !item || !(query.quantity > 0)) {
      latest.take(null);
      return;
    }
    const timer = setTimeout(() => {
      void latest.ask(() => ask(api.GET('/api/prices/question', { params: { query } })), 'No answer.');
    }, 150);
    return () => clearTimeout(timer);
  });

  let mayChange = $state(false);
  loadKinds().then(
    (kinds) => (mayChange = kinds.find((k) => k.name === 'prices')?.mayChange ?? false),
    () => (mayChange = false),
  );

  const soon = new Date(Date.now() + 60 * 86_400_000).toLocaleDateString('sv-SE');
  const lists = [
    ['prices', 'Prices'],
    ['agreements', 'Agreements'],
    ['campaigns', 'Campaigns'],
    ['charges', 'Charges'],
    ['price-lists', 'Price lists'],
    ['groups', 'Buyer groups'],
    ['families', 'Families'],
    ['costs', 'Costs'],
    ['freight', 'Freight'],
    ['freight-zones', 'Freight zones'],
    ['rates', 'Exchange rates'],
    ['tax-rates', 'Tax rates'],
    ['settings', 'Settings'],
  ] as const;
</script>

<svelte:head><title>Prices · Solvenda</title></svelte:head>

<div class="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 px-5 pt-3 pb-8 lg:grid-cols-[7fr_5fr]">
  <section aria-label="the question">
    <h1 class="pb-3 font-serif text-[25px] leading-tight">Prices <em class="text-second">what would they pay, and why?</em></h1>
    <div class="grid grid-cols-[80px_1fr] items-center gap-x-3 gap-y-1 border border-hairline bg-sheet px-4 py-3">
      <label class="text-second" for="p-buyer">buyer</label><Reference
        id="p-buyer"
        of="buyers"
        value={buyer}
        set={(v) => (buyer = v)}
        placeholder="name or code"
      />
      <label class="text-second" for="p-item">item</label><Reference id="p-item" of="items" value={item} set={(v) => (item = v)} placeholder="words or code" />
      <label class="text-second" for="p-quantity">how much</label>
      <span class="flex flex-wrap gap-3"
        ><input
          id="p-quantity"
          class="h-7 w-24 border-b border-hairline bg-transparent text-right outline-none focus:border-ink"
          inputmode="decimal"
          bind:value={quantity}
          onkeydown={(e) => e.stopPropagation()}
        />
        <input
          class="h-7 w-20 border-b border-hairline bg-transparent font-mono text-[12px] outline-none focus:border-ink"
          aria-label="unit"
          placeholder="unit"
          bind:value={unit}
          onkeydown={(e) => e.stopPropagation()}
        />
        <span class="self-center text-second">on</span><DayField bind:value={on} label="day" /></span
      >
    </div>
    <Problem words={latest.problem} />
    {#if answer}<Answer {answer} />{/if}

    {#if mayChange}<Rise />{/if}
  </section>
  <nav aria-label="what prices are made of">
    <h2 class="border-b border-strong pb-1 font-serif text-[17px]">What prices are made of</h2>
    <ul>
      {#each lists as [name, title] (name)}<li class="border-b border-hairline">
          <a class="block py-1.5 hover:underline" href="/records/{name}">{title}</a>
        </li>{/each}
      <li class="border-b border-hairline">
        <a class="block py-1.5 hover:underline" href="/records/agreements?filter={encodeURIComponent(`to<${soon}`)}">Agreements that end within 60 days</a>
      </li>
    </ul>
  </nav>
</div>
