<script lang="ts">
  import { fixed, Mark, plain, Ruler } from '$lib/shared';
  import { useKeys } from '$lib/keys';
  import type { SheetState } from './sheet.svelte';

  let { sheet }: { sheet: SheetState } = $props();
  const tally = $derived(sheet.view.tally);
  const d = $derived(sheet.view.decimals);
  const reach = $derived(sheet.view.headroom);
  const whole = $derived(sheet.view.findings.filter((f) => f.line === null));
  let editing = $state(false);

  const say = $derived.by(() => {
    const [you, next, after] = reach;
    if (!you || sheet.view.lines.length === 0) return '';
    if (you.upToPercent === null || you.upToPercent === undefined) return next ? `as it stands it is ${next.name}’s to decide` : '';
    if (you.upToPercent >= 100) return '';
    const beyond = next ? `; beyond that it is ${next.name}` : '';
    const further = next?.upToPercent != null && next.upToPercent > you.upToPercent && after ? `, beyond ${plain(next.upToPercent)} % ${after.name}` : '';
    const without = sheet.stops.some((f) => f.check === 'approval' && f.line !== null) ? 'without the stopped lines you could give ' : 'you could give ';
    return `${without}${plain(you.upToPercent)} % on all${beyond}${further}`;
  });

  // "5" is percent, "250 EUR" an amount, "= 30000" what it is to come to in all.
  async function takeOff(text: string) {
    editing = false;
    if (!text.trim().startsWith('=')) return void sheet.set(null, 'sheetDiscount', text);
    await sheet.endAt(text.trim().slice(1));
  }

  useKeys(() => (sheet.editable ? [{ key: 'd', words: 'discount on the sheet', run: () => (editing = true) }] : []));

  function taxWords(tax: { category: string; percent: number }) {
    return { S: `tax ${plain(tax.percent)} %`, K: 'reverse charge', G: 'export, no tax', E: 'exempt', Z: 'tax 0 %' }[tax.category] ?? `tax ${tax.category}`;
  }
</script>

<footer class="mt-3 mb-3 flex shrink-0 flex-wrap items-center gap-x-7 gap-y-2 border-t-2 border-ink bg-sheet px-3.5 py-2.5" aria-label="tally">
  <div class="w-52">
    <div class="text-[12px] text-second">
      margin {tally.marginPercent === null ? 'unknown' : `${fixed(tally.marginPercent, 1)} %`}{#if tally.linesWithoutCost}, {tally.linesWithoutCost} without cost{/if}
    </div>
    {#if tally.marginPercent !== null}
      <Ruler
        from={Math.min(0, tally.marginPercent)}
        to={Math.max(50, tally.marginPercent)}
        at={tally.marginPercent}
        limit={tally.leastMarginPercent}
        cost={0}
        over={tally.leastMarginPercent !== null && tally.marginPercent < tally.leastMarginPercent}
        label="margin {tally.marginPercent} percent, floor {tally.leastMarginPercent ?? 'unknown'} percent"
      />
    {/if}
  </div>
  <div class="min-w-0 flex-1 basis-72" aria-live="polite">
    {#if sheet.stops.length}<Mark outcome="stop" /> <b>{sheet.stops.length} {sheet.stops.length === 1 ? 'stop' : 'stops'}</b>{/if}
    {#if sheet.notices.length}<span class={sheet.stops.length ? 'ml-2' : ''}><Mark outcome="notice" /></span>
      <b>{sheet.notices.length} {sheet.notices.length === 1 ? 'notice' : 'notices'}</b>{/if}
    {#if !sheet.stops.length && !sheet.notices.length && sheet.view.lines.length}<Mark outcome="clear" /> nothing stops it{/if}
    {#if say}<span class="text-second"> · {say}</span>{/if}
    {#if whole.length && sheet.stops.every((f) => f.line !== null)}<span class="text-second"> · {whole[0]!.words}</span>{/if}
  </div>
  <dl class="flex items-end gap-6 text-right">
    <div>
      <dt class="text-[12px] text-second">goods</dt>
      <dd class="font-semibold">{fixed(tally.goods, d)}</dd>
    </div>
    {#if tally.sheetDiscount || editing}
      <div>
        <dt class="text-[12px] text-second">less{tally.sheetDiscountPercent === null ? '' : ` ${plain(tally.sheetDiscountPercent)} %`}</dt>
        <dd class="font-semibold">
          {#if editing}
            <input
              class="w-28 border border-ink bg-sheet px-1 text-right font-normal"
              aria-label="discount on the sheet: percent, an amount, or = what it is to come to"
              placeholder="5, 250 {sheet.view.currency}, = 30000"
              value={tally.sheetDiscountPercent ?? ''}
              {@attach (input: HTMLInputElement) => input.focus()}
              onblur={() => (editing = false)}
              onkeydown={(e) => {
                e.stopPropagation();
                if (e.key === 'Enter') void takeOff(e.currentTarget.value);
                if (e.key === 'Escape') editing = false;
              }}
            />
          {:else}{fixed(-tally.sheetDiscount, d)}{/if}
        </dd>
      </div>
    {/if}
    {#each tally.chargeLines as charge (charge.kind)}
      <div>
        <dt class="text-[12px] text-second">
          {charge.words}{charge.kind === 'freight' && tally.paid === null && sheet.terms['incoterm']?.value
            ? ` ${sheet.terms['incoterm'].value}`
            : ''}{charge.byHand ? ', typed' : ''}
        </dt>
        <dd class="font-semibold">{fixed(charge.amount, d)}</dd>
      </div>
    {/each}
    {#each tally.taxes as tax (tax.category + tax.percent)}
      <div class="max-md:hidden">
        <dt class="text-[12px] text-second">{taxWords(tax)}</dt>
        <dd class="font-semibold">{fixed(tax.tax, d)}</dd>
      </div>
    {/each}
    <div class="max-lg:hidden">
      <dt class="text-[12px] text-second">without tax</dt>
      <dd class="font-semibold">{fixed(tally.totalWithoutTax, d)}</dd>
    </div>
    <div>
      <dt class="text-[12px] text-second">
        {#if tally.totalHome !== null}{fixed(tally.totalHome, 2)} {tally.homeCurrency}{:else}in all{/if}
      </dt>
      <dd class="text-[15.5px] font-bold">{fixed(tally.totalWithTax, d)}</dd>
    </div>
    {#if tally.paid !== null}
      <div>
        <dt class="text-[12px] text-second">paid{tally.rounding === null ? '' : `, ${fixed(tally.rounding, d)} rounding`}</dt>
        <dd class="font-semibold">{fixed(tally.paid, d)}</dd>
      </div>
    {/if}
  </dl>
</footer>
