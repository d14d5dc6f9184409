<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { day, fixed, plain } from '$lib/shared';
  import { SURE } from './parts';

  interface Props {
    request: Schemas['RequestView'];
    lit: string | null;
    /** The line where the keys go. */
    line: number | null;
    open: boolean;
    onlight: (of: string | null) => void;
    onsettle: (line: Schemas['ReadLineView'], code: string, quantity: number | null, unit: string | null) => void;
    onleaveout: (line: Schemas['ReadLineView']) => void;
    onsplit: (line: Schemas['ReadLineView'], first: number) => void;
    onjoin: (line: Schemas['ReadLineView']) => void;
    /** Whether what is settled is remembered for everybody, not for this buyer alone. */
    forAll: boolean;
    oncorrect: (field: string, value: string) => void;
  }

  let { request, lit, line = $bindable(), open, onlight, onsettle, onleaveout, onsplit, onjoin, forAll = $bindable(), oncorrect }: Props = $props();
  let first = $state('');
  const reading = $derived(request.reading);
  let editing = $state<string | null>(null);
  let search = $state('');
  let hits = $state.raw<Schemas['ItemHits'] | null>(null);
  let buyers = $state.raw<Schemas['Found'][]>([]);
  let asked = 0;

  const kinds: Record<Schemas['MessageKind'], string> = {
    unclear: 'unclear',
    requestForQuotation: 'a request for a quote',
    order: 'an order',
    change: 'a change of an order',
    cancellation: 'a cancellation',
    question: 'a question',
    answerToQuote: 'an answer to our quote',
    notForUs: 'not for us',
  };
  const rows = $derived(
    !reading
      ? []
      : [
          { id: 'contact', label: 'person', field: reading.contact, show: reading.contact.value },
          { id: 'poNumber', label: 'their PO', field: reading.poNumber, show: reading.poNumber.value },
          { id: 'quoteNumber', label: 'our quote', field: reading.quoteNumber, show: reading.quoteNumber?.value ?? null },
          { id: 'wanted', label: 'there by', field: reading.wanted, show: reading.wanted.value ? day(reading.wanted.value) : null },
          { id: 'deliverTo', label: 'where to', field: reading.deliverTo, show: reading.deliverTo.value },
          {
            id: 'incoterm',
            label: 'terms',
            field: reading.incoterm,
            show: [reading.incoterm.value, reading.incotermPlace.value].filter(Boolean).join(' ') || null,
          },
          { id: 'currency', label: 'currency', field: reading.currency, show: reading.currency.value },
          { id: 'paymentDays', label: 'pays in', field: reading.paymentDays, show: reading.paymentDays.value ? `${reading.paymentDays.value} days` : null },
          { id: 'goods', label: 'lines make', field: reading.goods, show: reading.goods?.value ? fixed(Number(reading.goods.value), 2) : null },
        ].filter((r) => r.show || r.id === 'poNumber' || r.id === 'wanted' || r.id === 'deliverTo'),
  );
  const editable = ['contact', 'poNumber', 'wanted', 'deliverTo', 'incoterm', 'currency', 'paymentDays'];

  async function look() {
    const mine = ++asked;
    const found = search.trim().length > 1 ? await ask(api.GET('/api/items', { params: { query: { q: search } } })) : null;
    if (mine === asked) hits = found;
  }

  async function lookBuyer(text: string) {
    buyers = text.trim().length > 1 ? (await ask(api.GET('/api/find', { params: { query: { q: text } } }))).filter((f) => f.kind === 'buyer') : [];
  }

  function pick(l: Schemas['ReadLineView'], code: string) {
    const quantity = hits?.quantity ?? null;
    [search, hits, editing] = ['', null, null];
    onsettle(l, code, quantity, null);
  }
</script>

<section class="min-h-0 overflow-auto border border-l-0 border-hairline bg-sheet p-5 max-lg:border-l" aria-label="the reading">
  {#if reading}
    <dl>
      <div class="grid grid-cols-[110px_1fr_auto] gap-2 border-b border-hairline py-1">
        <dt class="text-second">it is</dt>
        <dd class="font-semibold">
          {#if open}
            <select class="-ml-1 bg-transparent" aria-label="it is" value={reading.kind} onchange={(e) => oncorrect('kind', e.currentTarget.value)}>
              {#each Object.entries(kinds) as [value, words] (value)}<option {value}>{words}</option>{/each}
            </select>
          {:else}{kinds[reading.kind]}{/if}
        </dd>
      </div>
      <div class="grid grid-cols-[110px_1fr_auto] gap-2 border-b border-hairline py-1 {lit === 'buyer' ? 'bg-focus-row' : ''}">
        <dt class="text-second">buyer</dt>
        <dd class="font-semibold">
          {#if editing === 'buyer'}
            <input
              class="w-full border border-ink bg-sheet px-1"
              aria-label="buyer"
              placeholder="part of the name"
              {@attach (i: HTMLInputElement) => i.focus()}
              oninput={(e) => lookBuyer(e.currentTarget.value)}
              onkeydown={(e) => e.key === 'Escape' && (editing = null)}
            />
            {#each buyers as b (b.id)}<button
                class="block w-full py-0.5 text-left hover:bg-focus-row"
                onclick={() => ((editing = null), oncorrect('buyer', String(b.id)))}>{b.words}</button
              >{/each}
          {:else}
            <button disabled={!open} class:needs={reading.buyerId === null} onclick={() => (editing = 'buyer')}>{reading.buyer.value ?? 'who is it?'}</button>
          {/if}
        </dd>
        <dd class="text-[12px] text-second">{reading.buyer.how}</dd>
      </div>
      {#each (reading.buyerCandidates?.length ?? 0) > 1 ? (reading.buyerCandidates ?? []) : [] as candidate (candidate.id)}
        <div class="grid grid-cols-[110px_1fr_auto] gap-2 border-b border-hairline py-0.5">
          <dt></dt>
          <dd>
            <button class="needs" disabled={!open} onclick={() => oncorrect('buyer', String(candidate.id))}>it is {candidate.name}</button>
          </dd>
          <dd class="text-[12px] text-second">{candidate.how}</dd>
        </div>
      {/each}
      {#each rows as row (row.id)}
        <!-- svelte-ignore a11y_no_static_element_interactions -->
        <div
          class="grid grid-cols-[110px_1fr_auto] gap-2 border-b border-hairline py-1 {lit === row.id ? 'bg-focus-row' : ''}"
          data-reads={row.id}
          onmouseenter={() => onlight(row.id)}
          onmouseleave={() => onlight(null)}
        >
          <dt class="text-second">{row.label}</dt>
          <dd>
            {#if editing === row.id}
              <input
                class="border border-ink bg-sheet px-1"
                type={row.id === 'wanted' ? 'date' : 'text'}
                aria-label={row.label}
                value={row.field?.value ?? ''}
                {@attach (i: HTMLInputElement) => i.focus()}
                onkeydown={(e) => {
                  if (e.key === 'Enter') oncorrect(row.id, e.currentTarget.value);
                  if (e.key === 'Enter' || e.key === 'Escape') editing = null;
                }}
              />
            {:else if editable.includes(row.id) && open}
              <button onclick={() => (editing = row.id)}>{row.show ?? '–'}</button>
            {:else}{row.show}{/if}
          </dd>
          <dd class="text-right text-[12px] {row.id === 'wanted' && row.field?.value && row.field.sure < 0.55 ? 'text-stop' : 'text-second'}">
            {row.field?.value ? row.field.how : ''}
          </dd>
        </div>
      {/each}
    </dl>
    <table class="mt-3 w-full">
      <thead>
        <tr class="border-b border-strong text-[11.5px] text-second">
          <th class="w-6"><span class="sr-only">line</span></th><th class="py-1 text-left font-normal">what</th><th class="text-right font-normal">quantity</th>
          <th class="pl-3 text-right font-normal">their price</th><th class="w-16 text-right font-normal">sure</th>
        </tr>
      </thead>
      <tbody>
        {#each reading.lines as l (l.no)}
          {@const here = line === l.no}
          <tr
            class="border-b border-hairline align-top {here || lit === String(l.no) ? 'bg-focus-row' : ''} {here ? 'shadow-[inset_3px_0_0_var(--ink)]' : ''}"
            data-reads={l.no}
            onmouseenter={() => onlight(String(l.no))}
            onmouseleave={() => onlight(null)}
          >
            <td class="py-1.5 pl-2 text-second">{l.no}</td>
            <td class="py-1.5">
              <button class="text-left" onclick={() => (line = l.no)}>
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
          {#if here && open}
            <tr class="border-b border-hairline bg-focus-row shadow-[inset_3px_0_0_var(--ink)]">
              <td></td>
              <td colspan="4" class="pb-2">
                <ul>
                  {#each l.proposals as p, i (i)}
                    <li>
                      <button class="flex min-h-6 w-full items-baseline gap-2 py-0.5 text-left" onclick={() => onsettle(l, p.code, p.quantity, p.unit)}>
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
                    onkeydown={(e) => e.key === 'Enter' && hits?.items[0] && pick(l, hits.items[0].code)}
                  />
                  {#if l.itemCode && l.needsYou}<button onclick={() => onsettle(l, l.itemCode ?? '', l.quantity, l.unit)}
                      ><KeyCap>Y</KeyCap> it is right as read</button
                    >{/if}
                  <button onclick={() => onleaveout(l)}><KeyCap>L</KeyCap> not an item</button>
                  {#if (l.quantity ?? 0) > 0}
                    <label class="text-second"
                      >split: first <input
                        class="w-14 border-b border-strong bg-transparent text-right"
                        inputmode="decimal"
                        bind:value={first}
                        onkeydown={(e) => {
                          e.stopPropagation();
                          if (e.key === 'Enter' && Number(first.replace(',', '.')) > 0) {
                            onsplit(l, Number(first.replace(',', '.')));
                            first = '';
                          }
                        }}
                      /></label
                    >
                  {/if}
                  {#if l.no < reading.lines.length}<button onclick={() => onjoin(l)}><KeyCap>M</KeyCap> join with the next</button>{/if}
                  <label class="flex items-center gap-1.5 text-second"><input type="checkbox" bind:checked={forAll} />remember for everybody</label>
                </div>
                {#if hits}
                  <ul class="mt-1">
                    {#each hits.items as item (item.code)}
                      <li>
                        <button class="flex min-h-6 w-full gap-2 py-0.5 text-left hover:bg-sheet" onclick={() => pick(l, item.code)}
                          ><span class="font-mono text-[12px] text-second">{item.code}</span> {item.words}</button
                        >
                      </li>
                    {:else}<li class="text-second">Nothing is called so.</li>{/each}
                  </ul>
                {/if}
              </td>
            </tr>
          {/if}
        {/each}
      </tbody>
    </table>
    {#each reading.charges as charge (charge.kind)}<p class="mt-2 text-second">{charge.kind} on their order: {fixed(charge.amount, 2)}</p>{/each}
    {#if reading.note}<p class="mt-2 text-second">They say: “{reading.note}”</p>{/if}
    {#each reading.warnings as warning (warning)}<p class="mt-2 text-notice">{warning}</p>{/each}
    {#if reading.lines.length === 0}<p class="mt-4 text-second">No lines could be read out of it. It can be put aside, with a word about what was done.</p>{/if}
  {:else}
    <p class="text-second">There is no reading: {request.reason}</p>
  {/if}
</section>
