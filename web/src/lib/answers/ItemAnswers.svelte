<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { day, fixed, Latest, plain, Problem } from '$lib/shared';
  import Months from './Months.svelte';

  let { id, code, mayChange }: { id: number; code: string; mayChange: boolean } = $props();
  const held = new Latest<Schemas['ItemFileView'][]>();
  const files = $derived(held.value ?? []);
  const latest = new Latest<Schemas['ItemAnswersView']>();
  const view = $derived(latest.value);
  let problem = $state('');

  // Meets the server, for each item anew.
  $effect(() => {
    const path = { id };
    held.take(null);
    latest.take(null);
    void held.ask(() => ask(api.GET('/api/items/{id}/files', { params: { path } })), 'Its files could not be loaded.');
    void latest.ask(() => ask(api.GET('/api/items/{id}/answers', { params: { path } })), 'Its stock could not be loaded.');
  });

  async function bring(file: File | undefined) {
    if (!file) return;
    const answer = await fetch(`/api/items/${id}/files?filename=${encodeURIComponent(file.name)}`, { method: 'POST', body: file });
    if (answer.ok) held.take((await answer.json()) as Schemas['ItemFileView'][]);
    else problem = ((await answer.json()) as { title?: string }).title ?? 'The file was not kept.';
  }

  async function drop(file: number) {
    try {
      await ask(api.DELETE('/api/items/{id}/files/{file}', { params: { path: { id, file } } }));
      held.take(files.filter((f) => f.id !== file));
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'The file is still there.';
    }
  }
</script>

<Problem words={problem || held.problem || latest.problem} />
{#if view}
  <section aria-label="stock">
    <h2 class="border-b border-strong pb-1 font-serif text-[17px]">
      Stock {#if view.stocked}<a class="font-sans text-[13px] underline" href="/planning/{id}">its outlook</a>{/if}
    </h2>
    {#if view.stock.length}
      <table class="w-full">
        <thead
          ><tr class="text-[11.5px] text-second"
            ><th class="text-left font-normal">warehouse</th><th class="text-right font-normal">on hand</th><th class="text-right font-normal">promised</th><th
              class="text-right font-normal">free</th
            ><th class="text-right font-normal">comes</th></tr
          ></thead
        >
        <tbody>
          {#each view.stock as s (s.warehouse)}
            <tr class="border-t border-hairline"
              ><td class="py-1">{s.warehouse}</td><td class="text-right">{plain(s.onHand)}</td><td class="text-right">{plain(s.committed)}</td><td
                class="text-right font-semibold">{plain(s.free)} {view.unitWord}</td
              ><td class="text-right">{plain(s.incoming)}</td></tr
            >
          {/each}
        </tbody>
      </table>
    {:else}<p class="py-1 text-second">{view.stocked ? 'Nothing was counted or came yet; count it in its outlook.' : 'It is not kept in stock.'}</p>{/if}
    {#if view.ahead.length}
      <ul class="mt-2">
        {#each view.ahead as a, i (i)}
          <li class="grid grid-cols-[70px_90px_1fr_auto] gap-3 border-t border-hairline py-1">
            <span class="text-second">{day(a.day)}</span><span class="text-right {a.quantity > 0 ? 'text-clear' : ''}"
              >{a.quantity > 0 ? '+' : ''}{plain(a.quantity)} {view.unitWord}</span
            >
            <span class="truncate">{a.words}</span>{#if a.order}<a class="font-mono text-[12px] underline" href="/orders/{a.order}">{a.order}</a>{/if}
          </li>
        {/each}
      </ul>
    {/if}
  </section>
  <section aria-label="what moved">
    <h2 class="border-b border-strong pb-1 font-serif text-[17px]">Sold, by month</h2>
    <Months months={view.months.map((m) => ({ month: m.month, value: m.quantity }))} unit={view.unitWord} />
  </section>
  <section aria-label="prices">
    <h2 class="border-b border-strong pb-1 font-serif text-[17px]">
      Prices <a class="font-sans text-[13px] underline" href="/prices?item={code}">what would somebody pay?</a>
    </h2>
    <ul>
      {#each view.prices as p, i (i)}
        <li class="grid grid-cols-[1fr_70px_110px_auto] gap-3 border-b border-hairline py-1">
          <span>{p.words}</span><span class="font-mono text-[12px]">{p.unit}</span><span class="text-right"
            >{fixed(p.price, 4)} {p.currency}{p.priceBase === 1 ? '' : ` / ${plain(p.priceBase)}`}</span
          >
          <span class="text-second">from {day(p.from)}{p.to ? ` to ${day(p.to)}` : ''}</span>
        </li>
      {:else}<li class="py-1 text-stop">
          It has no price: on a sheet that is a stop. <a class="underline" href="/records/prices/new?item={code}">Make one</a>
        </li>{/each}
      <li class="py-1 text-second">
        cost {view.cost === null ? 'unknown' : fixed(view.cost, 4)}{view.partOf.length ? ` · part of ${view.partOf.join(', ')}` : ''}
      </li>
    </ul>
  </section>
  <section aria-label="pictures and data sheets">
    <h2 class="border-b border-strong pb-1 font-serif text-[17px]">Pictures and data sheets</h2>
    <ul class="flex flex-wrap items-end gap-4 py-2">
      {#each files as f (f.id)}
        <li>
          <a href="/api/items/{id}/files/{f.id}" class="block underline" target="_blank" rel="noopener"
            >{#if f.isPicture}<img src="/api/items/{id}/files/{f.id}" alt={f.name} class="max-h-32 border border-hairline" />{:else}{f.name}{/if}</a
          >
          {#if mayChange}<button class="text-third underline" onclick={() => drop(f.id)}>take {f.name} away</button>{/if}
        </li>
      {:else}<li class="text-second">None yet.</li>{/each}
    </ul>
    {#if mayChange}<label class="text-second"
        >add one <input
          type="file"
          onchange={(e) => {
            void bring(e.currentTarget.files?.[0]);
            e.currentTarget.value = '';
          }}
        /></label
      >{/if}
  </section>
  <section aria-label="sold to">
    <h2 class="border-b border-strong pb-1 font-serif text-[17px]">Sold to</h2>
    <ul>
      {#each view.sales as s, i (i)}
        <li class="grid grid-cols-[70px_1fr_auto_110px] gap-3 border-b border-hairline py-1">
          <span class="text-second">{day(s.day)}</span><span class="truncate">{s.buyer}</span><span class="text-right">{plain(s.quantity)} {s.unitWord}</span
          ><span class="text-right">{fixed(s.netPrice, 4)} {s.currency}</span>
        </li>
      {:else}<li class="py-1 text-second">To nobody yet.</li>{/each}
    </ul>
  </section>
{/if}
