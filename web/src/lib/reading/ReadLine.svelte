<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { day, fixed, Latest, plain } from '$lib/shared';
  import { SURE } from './parts';
  import type { RequestState } from './request.svelte';

  /** One line that was read, and below it, where the keys are, what it could be. */
  let { state: request, line: l, count }: { state: RequestState; line: Schemas['ReadLineView']; count: number } = $props();
  let first = $state('');
  let search = $state('');
  const hits = new Latest<Schemas['ItemHits']>();
  const here = $derived(request.line === l.no);

  const look = () => (search.trim().length > 1 ? hits.ask(() => ask(api.GET('/api/items', { params: { query: { q: search } } }))) : hits.take(null));

  function pick(code: string) {
    const quantity = hits.value?.quantity ?? null;
    search = '';
    hits.take(null);
    void request.settle(l, code, quantity, null);
  }
</script>

<tr
  class="border-b border-hairline align-top {here || request.lit === String(l.no) ? 'bg-focus-row' : ''} {here ? 'shadow-[inset_3px_0_0_var(--ink)]' : ''}"
  data-reads={l.no}
  onmouseenter={() => (request.lit = String(l.no))}
  onmouseleave={() => (request.lit = null)}
>
  <td class="py-1.5 pl-2 text-second">{l.no}</td>
  <td class="py-1.5">
    <button class="text-left" onclick={() => (request.line = l.no)}>
      {#if l.itemCode}<span class="font-mono text-[12px] text-second">{l.itemCode}</span>
        <span class="{here ? 'font-semibold' : ''} {l.needsYou && l.itemSure < SURE ? 'needs' : ''}"
          >{l.itemWords}{l.needsYou && l.itemSure < SURE ? ' ?' : ''}</span
        >
      {:else}<span class="needs">{l.words}{l.theirCode ? `, ${l.theirCode}` : ''}?</span>{/if}
      {#if l.takenBack}<span class="text-stop"> · taken back</span>{/if}
      {#if l.wanted?.value}<span class="text-second"> · by {day(l.wanted.value)}</span>{/if}
      {#if l.note}<span class="text-second"> · {l.note}</span>{/if}
    </button>
    {#if here}<div class="text-[12px] text-second">
        “{l.words}” · {l.itemHow}{l.quantityHow && l.quantityHow !== l.itemHow ? `; quantity ${l.quantityHow}` : ''}
      </div>{/if}
  </td>
  <td class="py-1.5 text-right whitespace-nowrap">
    <span class:needs={l.needsYou && l.itemCode !== null && l.itemSure >= SURE}
      >{l.quantity === null ? '?' : plain(l.quantity)} {l.unitWord}{l.needsYou && l.itemCode && l.itemSure >= SURE ? ' ?' : ''}</span
    >
  </td>
  <td class="py-1.5 pl-3 text-right whitespace-nowrap" title={l.withTax ? 'with tax' : undefined}
    >{l.price === null ? '' : `${fixed(l.price, 2)}${l.priceBase === 1 ? '' : ` / ${plain(l.priceBase)}`}`}</td
  >
  <td class="py-2.5 pl-3"
    ><div class="h-[4px] bg-hairline" role="img" aria-label="{Math.round(l.sure * 100)} percent sure">
      <div class="h-[4px] bg-ink" style:width="{l.sure * 100}%"></div>
    </div></td
  >
</tr>
{#if here && request.open}
  <tr class="border-b border-hairline bg-focus-row shadow-[inset_3px_0_0_var(--ink)]">
    <td></td>
    <td colspan="4" class="pb-2">
      <ul>
        {#each l.proposals as p, i (i)}
          <li>
            <button class="flex min-h-6 w-full items-baseline gap-2 py-0.5 text-left" onclick={() => void request.settle(l, p.code, p.quantity, p.unit)}>
              <KeyCap>{i + 1}</KeyCap><b>{plain(p.quantity)} {p.unitWord}</b>
              {#if p.code !== l.itemCode}<span class="font-mono text-[12px] text-second">{p.code}</span> {p.words}{/if}
              <span class="ml-auto pr-1 text-second">{p.why}</span>
            </button>
          </li>
        {/each}
      </ul>
      <div class="mt-1 flex flex-wrap items-center gap-3">
        <input
          class="w-72 border border-strong bg-sheet px-2 py-0.5"
          placeholder="another item, and how much: cleat 8 x 24"
          aria-label="another item for line {l.no}"
          bind:value={search}
          oninput={look}
          onkeydown={(e) => e.key === 'Enter' && hits.value?.items[0] && pick(hits.value.items[0].code)}
        />
        {#if l.itemCode && l.needsYou}<button onclick={() => void request.settle(l, l.itemCode ?? '', l.quantity, l.unit)}
            ><KeyCap>Y</KeyCap> it is right as read</button
          >{/if}
        <button onclick={() => void request.leaveOut(l)}><KeyCap>L</KeyCap> not an item</button>
        {#if (l.quantity ?? 0) > 0}
          <label class="text-second"
            >split: first <input
              class="w-14 border-b border-strong bg-transparent text-right"
              inputmode="decimal"
              bind:value={first}
              onkeydown={(e) => {
                e.stopPropagation();
                if (e.key === 'Enter' && Number(first.replace(',', '.')) > 0) {
                  void request.split(l, Number(first.replace(',', '.')));
                  first = '';
                }
              }}
            /></label
          >
        {/if}
        {#if l.no < count}<button onclick={() => void request.join(l)}><KeyCap>M</KeyCap> join with the next</button>{/if}
        <label class="flex items-center gap-1.5 text-second"><input type="checkbox" bind:checked={request.forAll} />remember for everybody</label>
      </div>
      {#if hits.value}
        <ul class="mt-1">
          {#each hits.value.items as item (item.code)}
            <li>
              <button class="flex min-h-6 w-full gap-2 py-0.5 text-left hover:bg-sheet" onclick={() => pick(item.code)}
                ><span class="font-mono text-[12px] text-second">{item.code}</span> {item.words}</button
              >
            </li>
          {:else}<li class="text-second">Nothing is called so.</li>{/each}
        </ul>
      {/if}
    </td>
  </tr>
{/if}
