<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Schemas } from '$lib/api';
  import { fill, fixedIn, plainIn } from '$lib/shared';

  /** A quote as the buyer sees it; the figures are the server's. */
  interface Props {
    offer: Schemas['OfferView'];
    /** Hears the keys of the options and alternatives that they would take; without it nothing can be chosen. */
    onchoose?: (chosen: number[]) => void;
    children?: Snippet;
  }

  let { offer, onchoose, children }: Props = $props();

  const w = $derived(offer.words);
  const tag = $derived(offer.language === 'en' ? 'en-IE' : offer.language);
  const long = (iso: string) =>
    new Date(`${iso}T12:00:00`).toLocaleDateString(tag === 'en-IE' ? 'en-GB' : tag, { day: 'numeric', month: 'long', year: 'numeric' });
  const fixed = (value: number, decimals: number) => fixedIn(tag, value, decimals);
  const plain = (value: number) => plainIn(tag, value);
  const d = $derived(offer.decimals);
  const choosable = (line: Schemas['OfferLine']) => line.optional || line.oneOf !== '';

  function choose(line: Schemas['OfferLine'], wanted: boolean) {
    const others = offer.lines.filter((l) => choosable(l) && l.counts && l.key !== line.key && (!line.oneOf || l.oneOf !== line.oneOf));
    onchoose?.([...others.map((l) => l.key), ...(wanted ? [line.key] : [])]);
  }
</script>

<article lang={offer.language} class="border border-hairline bg-sheet p-5 sm:p-10">
  <header class="flex flex-wrap items-end justify-between gap-3 border-b border-ink pb-3">
    <p class="font-serif text-[24px] leading-tight">{offer.seller}</p>
    <p class="text-right text-[12px] text-second">
      {#each offer.sellerLines as line (line)}{line}<br />{/each}
    </p>
  </header>
  <div class="mt-5 flex flex-wrap justify-between gap-6">
    <p>
      <b>{offer.buyer}</b><br />{#if offer.contact}{fill(w['for'], offer.contact)}{/if}
    </p>
    <dl class="grid grid-cols-[auto_1fr] gap-x-4">
      <dt class="text-second">{w.date}</dt>
      <dd>{long(offer.date)}</dd>
      <dt class="text-second">{w.holdsUntil}</dt>
      <dd>{long(offer.validUntil)}</dd>
      {#if offer.payment !== null}<dt class="text-second">{w.payment}</dt>
        <dd>{offer.payment}</dd>{/if}
      {#if offer.incoterm}<dt class="text-second">{w.delivery}</dt>
        <dd>{offer.incoterm} {offer.incotermPlace ?? ''}</dd>{/if}
      {#if offer.deliverTo}<dt class="text-second">{w.deliverTo}</dt>
        <dd>{offer.deliverTo}</dd>{/if}
    </dl>
  </div>
  <h1 class="mt-7 font-serif text-[21px]">
    {w.quote} <span class="font-mono text-[14px]">{offer.number}·{offer.revision}</span> <em class="text-second">{offer.matter}</em>
  </h1>
  <div class="overflow-x-auto">
    <table class="mt-3 w-full">
      <thead>
        <tr class="border-b border-ink text-[12px] text-second">
          <th class="w-7 text-left font-normal"><span class="sr-only">{w['offer.line']}</span></th><th class="py-1 text-left font-normal">{w.what}</th><th
            class="px-2 text-right font-normal">{w.quantity}</th
          >
          <th class="px-2 text-right font-normal max-sm:hidden">{w.price}</th><th class="px-2 text-right font-normal max-sm:hidden">{w.less}</th><th
            class="text-right font-normal">{offer.currency}</th
          >
        </tr>
      </thead>
      <tbody>
        {#each offer.lines as line, i (i)}
          {#if line.kind === 'heading'}
            <tr
              ><td colspan="5" class="pt-3 font-serif text-[16px] italic">{line.words}</td><td class="pt-3 text-right text-second"
                >{line.amount ? fixed(line.amount, d) : ''}</td
              ></tr
            >
          {:else if line.kind === 'comment'}
            <tr><td></td><td colspan="5" class="py-1.5 text-second">{line.words}</td></tr>
          {:else}
            <tr class="border-b border-hairline align-top {line.counts ? '' : 'text-second'}">
              <td class="py-1.5 text-second">{line.number}</td>
              <td class="py-1.5"
                >{#if onchoose && choosable(line)}<label class="flex gap-2"
                    ><input
                      type={line.oneOf ? 'radio' : 'checkbox'}
                      class="mt-0.5 size-4 shrink-0 accent-(--ink)"
                      name={line.oneOf ? `choice-${line.oneOf}` : undefined}
                      checked={line.counts}
                      aria-label="{w['offer.take']}: {line.words}"
                      onchange={(e) => choose(line, e.currentTarget.checked)}
                    />{line.words}</label
                  >{:else}{line.words}<br />{/if}<span class="text-second"
                  ><span class="font-mono text-[11.5px]">{line.code}</span>{line.note ? ` · ${line.note}` : ''}</span
                ></td
              >
              <td class="px-2 py-1.5 text-right whitespace-nowrap">{plain(line.quantity)} {line.unitWord}</td>
              <td class="px-2 py-1.5 text-right max-sm:hidden"
                >{line.price === null ? '' : fixed(line.price, 4)}{line.priceBase === 1 ? '' : ` / ${plain(line.priceBase)}`}</td
              >
              <td class="px-2 py-1.5 text-right max-sm:hidden">{line.discountPercent ? `${plain(line.discountPercent)} %` : ''}</td>
              <td class="py-1.5 text-right">{line.counts ? fixed(line.amount, d) : `(${fixed(line.amount, d)})`}</td>
            </tr>
          {/if}
        {/each}
      </tbody>
    </table>
  </div>
  <dl class="mt-4 ml-auto grid w-full max-w-80 grid-cols-[1fr_auto] gap-y-0.5">
    <dt class="text-second">{w.goods}</dt>
    <dd class="text-right">{fixed(offer.goods, d)}</dd>
    {#if offer.sheetDiscount}<dt class="text-second">{w.less}</dt>
      <dd class="text-right">{fixed(-offer.sheetDiscount, d)}</dd>{/if}
    {#each offer.charges as charge (charge.kind)}<dt class="text-second">{charge.words}</dt>
      <dd class="text-right">{fixed(charge.amount, d)}</dd>{/each}
    <dt class="text-second">{w.withoutTax}</dt>
    <dd class="text-right">{fixed(offer.totalWithoutTax, d)}</dd>
    {#each offer.taxes as tax (tax.words)}<dt class="text-second">{fill(w.taxLine, tax.words, fixed(tax.basis, d))}</dt>
      <dd class="text-right">{fixed(tax.tax, d)}</dd>{/each}
    <dt class="mt-1 border-t border-ink pt-1 font-semibold">{fill(w.inAll, offer.currency)}</dt>
    <dd class="mt-1 border-t border-ink pt-1 text-right font-semibold">{fixed(offer.totalWithTax, d)}</dd>
  </dl>
  {#if offer.note}<p class="mt-5">{offer.note}</p>{/if}
  {@render children?.()}
</article>
