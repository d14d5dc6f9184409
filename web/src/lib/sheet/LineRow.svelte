<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { day, fixed, Mark, plain, Ruler } from '$lib/shared';
  import Cell from './Cell.svelte';
  import type { SheetState } from './sheet.svelte';

  interface Props {
    sheet: SheetState;
    line: Schemas['LineView'];
    number: number;
    /** Sum of the lines under a heading. */
    sum: number;
    oncure: (cure: Schemas['CureView'], finding: Schemas['FindingView']) => void;
    onwaive: (finding: Schemas['FindingView']) => void;
  }

  let { sheet, line, number, sum, oncure, onwaive }: Props = $props();
  const here = $derived(sheet.line === line.key);
  const findings = $derived(sheet.findingsOf(line.key));
  const worst = $derived(findings.find((f) => f.outcome === 'stop') ?? findings[0]);
  const decimals = $derived(sheet.view.decimals);
  const below = $derived(line.floor !== null && line.netPrice !== null && line.netPrice < line.floor);
  const wanted = $derived(line.wanted ?? sheet.terms['wanted']?.value);
  const late = $derived(!!line.promise && !!wanted && line.promise > wanted);
  const asked = $derived(line.asked?.priceInOurs ?? null);
  // Yellow only where somebody is needed: a figure typed by hand that a stop is about.
  const needs = $derived(findings.some((f) => f.outcome === 'stop' && f.check === 'approval'));
  const left = $derived(Math.min(line.cost ?? 0, line.netPrice ?? 0) * 0.85);

  function drop(event: DragEvent) {
    event.preventDefault();
    const key = Number(event.dataTransfer?.getData('text/x-line'));
    if (key) sheet.drop(key, line.key);
  }
</script>

<tr
  class="h-[31px] border-b border-hairline max-sm:grid max-sm:h-auto max-sm:grid-cols-[22px_26px_1fr_1fr_auto_1fr] max-sm:gap-y-1 max-sm:py-1.5 {here
    ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]'
    : ''}"
  ondragover={(e) => e.preventDefault()}
  ondrop={drop}
  aria-current={here ? 'true' : undefined}
  data-line={line.key}
>
  <td class="w-7 pl-2 text-center"
    >{#if worst}<Mark outcome={worst.outcome} />{/if}</td
  >
  <td
    class="w-8 cursor-grab text-right text-second"
    draggable={sheet.editable}
    ondragstart={(e) => e.dataTransfer?.setData('text/x-line', String(line.key))}
    title={sheet.editable ? 'drag to another place, or Alt with an arrow' : undefined}>{line.kind === 'heading' ? '' : number}</td
  >
  {#if line.kind === 'heading'}
    <Cell {sheet} {line} column="item" class="pt-2 pl-3 max-sm:col-span-3 max-sm:pt-0">
      <em class="font-serif text-[15.5px]">{line.words || 'heading'}</em>
    </Cell>
    <td colspan="5" class="max-sm:hidden"></td>
    <td class="pr-3 text-right text-second">{fixed(sum, decimals)}</td>
    <td class="max-sm:hidden"></td>
  {:else}
    <Cell {sheet} {line} column="item" class="max-w-0 truncate pl-3 max-sm:col-span-4 max-sm:max-w-none max-sm:whitespace-normal">
      <span class="flex min-w-0 max-sm:flex-wrap">
        <span class="truncate max-sm:whitespace-normal">
          {#if line.code}<span class="mr-1.5 font-mono text-[12px] text-second">{line.code}</span>{/if}
          {#if line.optional}<em class="font-serif">if wanted: </em>{/if}
          <span class={here ? 'font-semibold' : ''} class:needs={!line.code && !line.isFree}>{line.words}</span>
          {#if line.note}<span class="text-second"> · {line.note}</span>{/if}
        </span>
        {#if line.wanted}<span class="shrink-0 whitespace-pre text-second"> · by {day(line.wanted)}</span>{/if}
        {#if line.isFree}<span class="ml-1.5 shrink-0 self-center border border-strong px-1 text-[11px] text-second">not in the catalogue</span>{/if}
      </span>
    </Cell>
    <Cell {sheet} {line} column="quantity" class="w-20 text-right max-sm:col-start-3 max-sm:w-auto max-sm:pl-3 max-sm:text-left"
      ><span class:needs={line.quantity === 0}>{plain(line.quantity)} {line.unitWord}</span></Cell
    >
    <Cell {sheet} {line} column="price" class="w-24 text-right max-sm:w-auto">
      {#if line.netPrice === null}<span class="text-stop">no price</span>{:else}{fixed(
          line.handKind === 'discountPercent' ? (line.basePrice ?? 0) : line.netPrice,
          4,
        )}{#if line.priceBase !== 1}<span class="text-second">/{plain(line.priceBase)}</span>{/if}{/if}
    </Cell>
    <Cell {sheet} {line} column="discount" class="w-16 text-right max-sm:w-14">
      {#if line.discountPercent === 0}<span class="text-third sm:hidden">less</span>{:else}<span class:needs
          >{plain(Number(line.discountPercent.toFixed(2)))} %</span
        >{/if}
    </Cell>
    <Cell {sheet} {line} column="margin" class="w-[130px] pl-3 max-md:hidden">
      {#if line.netPrice !== null && line.listPrice !== null}
        <Ruler
          from={left}
          to={Math.max(line.listPrice, line.netPrice)}
          at={line.netPrice}
          cost={line.cost}
          limit={line.floor}
          over={below}
          label="net {line.netPrice}, cost {line.cost ?? 'unknown'}, floor {line.floor ?? 'none'}, list {line.listPrice}; margin {line.marginPercent ??
            'unknown'} percent"
        />
      {:else if line.isFree && (sheet.editable || line.cost !== null)}
        <span class="text-[12px] text-second">{line.cost === null ? 'costs us –' : `costs us ${fixed(line.cost, 2)}`}</span>
      {/if}
    </Cell>
    <td class="w-24 text-right {asked !== null ? '' : 'hidden'} max-md:hidden" title="their price, in our unit"
      >{#if asked !== null}<span class={asked < (line.netPrice ?? 0) ? 'text-stop' : 'text-second'}>{fixed(asked, 4)}</span>{/if}</td
    >
    <td class="w-24 pr-3 text-right max-sm:w-auto" colspan={asked === null ? 2 : 1}>
      {#if line.netPrice !== null}{line.optional ? `(${fixed(line.net, decimals)})` : fixed(line.net, decimals)}{/if}
    </td>
    <td class="w-20 pr-3 text-right {late ? 'text-stop' : 'text-clear'} max-md:hidden">{line.promise ? day(line.promise) : ''}</td>
  {/if}
</tr>
{#if here && line.kind === 'item' && (line.build.length > 0 || findings.length > 0)}
  <tr class="border-b border-hairline bg-focus-row shadow-[inset_3px_0_0_var(--ink)] max-sm:block">
    <td colspan="2" class="max-sm:hidden"></td>
    <td colspan="8" class="px-3 pt-1 pb-2 max-sm:block">
      {#if line.build.length > 0}
        <ol class="flex flex-wrap items-start gap-x-2 gap-y-1" aria-label="price build">
          {#each line.build as step, i (i)}
            {#if i > 0}<li class="pt-1 text-second" aria-hidden="true">→</li>{/if}
            <li>
              <div class="font-semibold">{fixed(step.price, 4)}</div>
              <div class="text-[12px] text-second">
                {step.words}{#if step.to}, to {day(step.to)}{/if}
              </div>
            </li>
          {/each}
          {#if line.marginPercent !== null}
            <li class="pt-1 text-second" aria-hidden="true">→</li>
            <li>
              <div class="font-semibold {below ? 'text-stop' : ''}">{fixed(line.marginPercent, 1)} % margin</div>
              <div class="text-[12px] text-second">
                floor {line.floor === null ? 'none' : fixed(line.floor, 4)}, cost {line.cost === null ? 'unknown' : fixed(line.cost, 4)}
              </div>
            </li>
          {/if}
          {#if sheet.editable && line.headroom !== null && !needs}
            <li class="ml-auto pt-1 text-[12px] text-second">up to {plain(line.headroom)} % without asking</li>
          {/if}
        </ol>
      {/if}
      {#if line.ruleCharges.length}
        <p class="mt-1 text-second">
          with {line.ruleCharges.map((c) => `${c.words} ${fixed(c.amount, decimals)}`).join(', ')}
        </p>
      {/if}
      {#if line.arrivals.length}
        <p class="mt-1 text-second">
          as it comes: {line.arrivals.map((a) => `${plain(a.quantity)} ${line.unitWord} by ${day(a.arrives)}`).join(', ')}
        </p>
      {/if}
      {#if line.parts.length}
        <ul class="mt-1" aria-label="parts of the bundle">
          {#each line.parts as part (part.code)}
            <li class="grid max-w-[560px] grid-cols-[96px_1fr_90px_80px] gap-3 text-second">
              <span class="font-mono text-[12px]">{part.code}</span><span class="truncate">{part.words}</span><span class="text-right"
                >{plain(part.quantity)} {part.unitWord}</span
              ><span class="text-right">{fixed(part.net, decimals)}</span>
            </li>
          {/each}
        </ul>
      {/if}
      <div aria-live="polite">
        {#each findings as finding, n (n)}
          <p class="mt-1 {finding.outcome === 'stop' ? 'text-stop' : 'text-notice'}">
            {finding.words}
            {#if finding.waivedBy}<span class="text-second">{finding.waivedBy} let it pass: “{finding.waivedWhy}”</span>{/if}
            {#if sheet.view.editable}
              {#each sheet.editable ? finding.cures : [] as cure, c (c)}
                <button class="ml-2 text-ink" onclick={() => oncure(cure, finding)}><KeyCap>{cure.key}</KeyCap> {cure.words}</button>
              {/each}
              {#if finding.mayWaive}
                <button class="ml-2 text-ink" onclick={() => onwaive(finding)}><KeyCap>W</KeyCap> let it pass…</button>
              {/if}
            {/if}
          </p>
        {/each}
      </div>
    </td>
  </tr>
{/if}
