<script lang="ts">
  import { page } from '$app/state';
  import { api, ask, Refusal, type Schemas } from '$lib/api';
  import { loadKinds } from '$lib/list';
  import Reference from '$lib/records/Reference.svelte';
  import { day as shown, fixed, plain, Problem } from '$lib/shared';

  let buyer = $state(page.url.searchParams.get('buyer') ?? '');
  let item = $state(page.url.searchParams.get('item') ?? '');
  let quantity = $state('1');
  let unit = $state('');
  let on = $state(new Date().toLocaleDateString('sv-SE'));
  let answer = $state.raw<Schemas['PriceAnswer'] | null>(null);
  let problem = $state('');

  // Meets the server, whenever the question is whole.
  $effect(() => {
    const query = { buyer, item, quantity: Number(quantity.replace(',', '.')), unit: unit || undefined, day: on || undefined };
    if (!buyer || !item || !(query.quantity > 0)) {
      answer = null;
      return;
    }
    const timer = setTimeout(() => {
      ask(api.GET('/api/prices/question', { params: { query } })).then(
        (found) => ([answer, problem] = [found, '']),
        (reason: unknown) => ([answer, problem] = [null, reason instanceof Error ? reason.message : 'No answer.']),
      );
    }, 150);
    return () => clearTimeout(timer);
  });

  const chart = $derived.by(() => {
    const points = answer?.breaks ?? [];
    if (points.length === 0) return null;
    const last = Math.max(points.at(-1)!.from * 1.25, (answer?.quantity ?? 0) * 1.1, 1);
    const high = Math.max(...points.map((p) => p.price));
    const low = Math.min(...points.map((p) => p.price));
    const x = (q: number) => (q / last) * 560;
    const y = (p: number) => 14 + (high === low ? 20 : ((high - p) / (high - low)) * 60);
    const steps = points.map((p, i) => ({ ...p, x: x(p.from), end: x(points[i + 1]?.from ?? last), y: y(p.price) }));
    return { steps, at: x(answer?.quantity ?? 0) };
  });

  // A rise of a family.
  let family = $state('');
  let list = $state('house');
  let percent = $state('');
  let from = $state(new Date(new Date().getFullYear(), new Date().getMonth() + 1, 1).toLocaleDateString('sv-SE'));
  let decimals = $state(2);
  let preview = $state.raw<Schemas['RisePreview'] | null>(null);
  let riseProblem = $state('');
  let done = $state('');
  let mayChange = $state(false);
  loadKinds().then(
    (kinds) => (mayChange = kinds.find((k) => k.name === 'prices')?.mayChange ?? false),
    () => (mayChange = false),
  );

  const body = () => ({ family, list, percent: Number(percent.replace(',', '.').replace('−', '-')), from, decimals });

  async function look(event: SubmitEvent) {
    event.preventDefault();
    [riseProblem, done, preview] = ['', '', null];
    try {
      preview = await ask(api.POST('/api/prices/rise/preview', { body: body() }));
    } catch (reason) {
      riseProblem = reason instanceof Refusal ? reason.message : 'It could not be worked out.';
    }
  }

  async function rise() {
    try {
      const moved = await ask(api.POST('/api/prices/rise', { body: body() }));
      done = `${moved.moved} prices are put in from ${shown(from)}.`;
      preview = null;
    } catch (reason) {
      riseProblem = reason instanceof Refusal ? reason.message : 'Nothing was changed.';
    }
  }

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
        <span class="self-center text-second">on</span><input
          type="date"
          class="h-7 border-b border-hairline bg-transparent outline-none focus:border-ink"
          aria-label="day"
          bind:value={on}
        /></span
      >
    </div>
    <Problem words={problem} />
    {#if answer}
      <div class="mt-4 border border-hairline bg-sheet px-4 py-4" aria-live="polite" aria-label="the answer">
        {#if answer.price === null}
          <p class="text-stop">{answer.says}</p>
        {:else}
          <p class="font-serif text-[21px] leading-snug">
            {answer.buyer} would pay {fixed(answer.price, 4)}
            {answer.currency}
            {answer.unitWord
              ? `per ${answer.priceBase === 1 ? '' : `${plain(answer.priceBase)} `}${answer.unitWord}`
              : answer.priceBase === 1
                ? 'each'
                : `for ${plain(answer.priceBase)}`}.
          </p>
          <p class="text-second">
            {plain(answer.quantity)}
            {answer.unitWord} of {answer.words} on {shown(answer.day)}: <b class="text-ink">{fixed(answer.total ?? 0, 2)} {answer.currency}</b>
            {#if answer.marginPercent !== null}
              · margin {fixed(answer.marginPercent, 1)} %{/if}{#if answer.floor !== null}
              · floor {fixed(answer.floor, 4)}{/if}
          </p>
          <ol class="mt-3 flex flex-wrap items-start gap-x-2 gap-y-1" aria-label="price build">
            {#each answer.build as step, i (i)}
              {#if i > 0}<li class="pt-1 text-second" aria-hidden="true">→</li>{/if}
              <li>
                <div class="font-semibold">{fixed(step.price, 4)}</div>
                <div class="text-[12px] text-second">
                  {step.words}<br />{step.from ? `from ${shown(step.from)}` : ''}{step.to ? ` to ${shown(step.to)}` : ''}
                </div>
              </li>
            {/each}
          </ol>
          {#if chart}
            <svg
              viewBox="-4 0 640 104"
              class="mt-4 w-full max-w-[640px]"
              role="img"
              aria-label="prices by quantity: {answer.breaks.map((b) => `from ${plain(b.from)} ${fixed(b.price, 4)}`).join('; ')}"
            >
              <line x1="0" x2="560" y1="88" y2="88" stroke="var(--strong)" />
              {#each chart.steps as s, i (s.from)}
                <line x1={s.x} x2={s.end} y1={s.y} y2={s.y} stroke="var(--ink)" stroke-width="2" />
                {#if i > 0}<line x1={s.x} x2={s.x} y1={chart.steps[i - 1]!.y} y2={s.y} stroke="var(--strong)" />{/if}
                <text x={s.x + 3} y={s.y - 4} font-size="11.5" fill="var(--ink)">{fixed(s.price, 4)}</text>
                <text x={s.x} y="101" font-size="11" fill="var(--second)">{plain(s.from)}</text>
              {/each}
              <path d="M {chart.at - 5} 97 l 10 0 l -5 -8 z" fill="var(--ink)" />
            </svg>
          {/if}
        {/if}
      </div>
    {/if}

    {#if mayChange}
      <h2 class="mt-8 pb-2 font-serif text-[19px]">A rise of a family</h2>
      <form class="grid grid-cols-[80px_1fr] items-center gap-x-3 gap-y-1 border border-hairline bg-sheet px-4 py-3" onsubmit={look}>
        <label class="text-second" for="r-family">family</label><Reference
          id="r-family"
          of="families"
          value={family}
          set={(v) => (family = v)}
          placeholder="code or words"
        />
        <label class="text-second" for="r-list">list</label><Reference id="r-list" of="price-lists" value={list} set={(v) => (list = v)} />
        <label class="text-second" for="r-percent">by</label>
        <span class="flex flex-wrap items-center gap-3"
          ><input
            id="r-percent"
            class="h-7 w-20 border-b border-hairline bg-transparent text-right outline-none focus:border-ink"
            inputmode="decimal"
            bind:value={percent}
            required
            onkeydown={(e) => e.stopPropagation()}
          />
          %
          <span class="text-second">from</span><input
            type="date"
            class="h-7 border-b border-hairline bg-transparent outline-none"
            aria-label="from"
            bind:value={from}
            required
          />
          <span class="text-second">rounded to</span><select class="bg-transparent" aria-label="decimals" bind:value={decimals}
            ><option value={2}>0.01</option><option value={4}>0.0001</option></select
          >
          <button class="btn btn-outline btn-sm" disabled={!family || !percent}>See what moves</button></span
        >
      </form>
      <Problem words={riseProblem} />
      {#if done}<p class="mt-2" role="status">
          {done} Until then nothing changes. <a class="underline" href="/records/prices?filter={encodeURIComponent(`from=${from}`)}">See them</a>
        </p>{/if}
      {#if preview}
        <div class="mt-3 border border-hairline bg-sheet px-4 py-3">
          <p><b>{preview.moved.length}</b> prices move, and <b>{preview.buyers.length}</b> buyers of the last twelve months are affected.</p>
          <div class="mt-2 grid max-h-80 gap-6 overflow-auto md:grid-cols-2">
            <ul>
              {#each preview.moved as m (m.item + m.unit + m.currency)}
                <li class="grid grid-cols-[96px_1fr_auto] gap-2 border-b border-hairline py-0.5">
                  <span class="font-mono text-[12px] text-second">{m.item}</span><span class="truncate text-second">{m.unit}</span><span class="text-right"
                    >{fixed(m.before, decimals)} → <b>{fixed(m.after, decimals)}</b> {m.currency}</span
                  >
                </li>
              {/each}
              {#each preview.left as words (words)}<li class="py-0.5 text-notice">stays: {words}</li>{/each}
            </ul>
            <ul>
              {#each preview.buyers as b (b.id)}
                <li class="border-b border-hairline py-0.5">
                  <a class="underline" href="/records/buyers/{b.id}">{b.name}</a> <span class="text-second">{fixed(b.bought, 0)} {b.currency}; {b.feels}</span>
                </li>
              {/each}
            </ul>
          </div>
          <button class="btn mt-3 btn-primary btn-sm" onclick={rise} disabled={preview.moved.length === 0}>Put the new prices in from {shown(from)}</button>
        </div>
      {/if}
    {/if}
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
