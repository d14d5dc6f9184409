<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { day, fixed, Mark, plain, Ruler } from '$lib/shared';
  import Build from './Build.svelte';
  import Cell from './Cell.svelte';
  import type { MoreColumn } from './columns';
  import LineSays from './LineSays.svelte';
  import type { LineNotes } from './notes.svelte';
  import type { SheetState } from './sheet.svelte';

  interface Props {
    sheet: SheetState;
    line: Schemas['LineView'];
    /** Of the focused line. */
    notes: LineNotes;
    more: readonly MoreColumn[];
    /** Names of others who are on this line. */
    others: readonly string[];
    oncure: (cure: Schemas['CureView'], finding: Schemas['FindingView']) => void;
    onwaive: (finding: Schemas['FindingView']) => void;
  }

  let { sheet, line, notes, more, others, oncure, onwaive }: Props = $props();
  const here = $derived(sheet.line === line.key);
  const picked = $derived(sheet.picked.has(line.key));
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
  const lost = $derived(here ? (notes.now?.lost ?? []) : []);
  // What the buyer may choose about it.
  const choice = $derived(line.optional ? 'if wanted: ' : !line.says.oneOf ? '' : line.counts ? 'one of these: ' : 'or: ');
  const said = $derived(
    [
      line.says.closedWhy ? `closed short: ${line.says.closedWhy}` : '',
      line.note,
      line.wanted ? `by ${day(line.wanted)}` : '',
      line.says.deliverTo ? `to ${line.says.deliverTo}` : '',
      line.says.shipFrom ? `from ${line.says.shipFrom}` : '',
      line.says.forWarehouse ? `for the warehouse: ${line.says.forWarehouse}` : '',
      line.says.job ? `for ${line.says.job}` : '',
      line.says.orderedBy ? `ordered by ${line.says.orderedBy}` : '',
    ].filter(Boolean),
  );
  const tag = $derived(line.isFree ? 'not in the catalogue' : line.kind === 'charge' ? 'charged' : line.parts.length ? `${line.parts.length} parts` : '');
  // Of an order that is changed what of the line stands.
  const begun = $derived(!sheet.editable || !line.begun ? '' : line.begun < line.quantity ? `${plain(line.begun)} went or in hand` : 'went or in hand');
  const opens = $derived(line.kind !== 'heading' && line.kind !== 'comment');

  function drop(event: DragEvent) {
    event.preventDefault();
    const key = Number(event.dataTransfer?.getData('text/x-line'));
    if (key) sheet.drop(key, line.key);
  }
</script>

<tr
  class="h-[31px] border-b border-hairline max-sm:grid max-sm:h-auto max-sm:grid-cols-[22px_30px_1fr_1fr_auto_1fr] max-sm:gap-y-1 max-sm:py-1.5 {here
    ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]'
    : picked
      ? 'bg-focus-row'
      : ''}"
  ondragover={(e) => e.preventDefault()}
  ondrop={drop}
  aria-current={here ? 'true' : undefined}
  aria-selected={picked || undefined}
  data-line={line.key}
>
  <td class="w-7 pl-2 text-center"
    >{#if picked}<span title="picked">✓<span class="sr-only">picked</span></span>{:else if worst}<Mark outcome={worst.outcome} />{/if}</td
  >
  <td
    class="w-9 cursor-grab text-right text-second"
    draggable={sheet.editable}
    ondragstart={(e) => e.dataTransfer?.setData('text/x-line', String(line.key))}
    title={sheet.editable ? 'drag to another place, or Alt with an arrow' : undefined}>{line.number}</td
  >
  {#if line.kind === 'heading'}
    <Cell {sheet} {line} column="item" class="pt-2 pl-3 max-sm:col-span-3 max-sm:pt-0">
      <em class="font-serif text-[15.5px]">{line.words || 'heading'}</em>
    </Cell>
    <td colspan={5 + more.length} class="max-sm:hidden"></td>
    <td class="pr-3 text-right text-second">{fixed(line.net, decimals)}</td>
    <td class="max-sm:hidden"></td>
  {:else if line.kind === 'comment'}
    <Cell
      {sheet}
      {line}
      column="item"
      colspan={8 + more.length}
      class="max-w-0 truncate pl-3 text-second max-sm:col-span-4 max-sm:max-w-none max-sm:whitespace-normal"
    >
      {line.words || 'a comment'}
    </Cell>
  {:else}
    <Cell {sheet} {line} column="item" class="max-w-0 truncate pl-3 max-sm:col-span-4 max-sm:max-w-none max-sm:whitespace-normal">
      <span class="flex min-w-0 max-sm:flex-wrap {line.counts ? '' : 'text-second'}">
        <span class="truncate max-sm:whitespace-normal">
          {#if line.code}<span class="mr-1.5 font-mono text-[12px] text-second">{line.code}</span>{/if}
          {#if choice}<em class="font-serif">{choice}</em>{/if}
          <span class={here ? 'font-semibold' : ''} class:line-through={line.says.closedWhy} class:needs={!line.code && line.kind === 'item' && !line.isFree}
            >{line.words}</span
          >
          {#each said as words, i (i)}<span class="text-second"> · {words}</span>{/each}
          {#if line.says.inner}<em class="text-second"> ({line.says.inner})</em>{/if}
        </span>
        {#if begun}<span class="ml-1.5 shrink-0 self-center text-[11.5px] text-second">{begun}</span>{/if}
        {#if tag}<span class="ml-1.5 shrink-0 self-center border border-strong px-1 text-[11px] text-second">{tag}</span>{/if}
        {#each others as name (name)}<span class="ml-1.5 shrink-0 self-center text-[11px] text-notice">{name} is here</span>{/each}
      </span>
    </Cell>
    <Cell {sheet} {line} column="quantity" class="w-20 text-right max-sm:col-start-3 max-sm:w-auto max-sm:pl-3 max-sm:text-left"
      ><span class:needs={line.quantity === 0} class:line-through={line.says.closedWhy}>{plain(line.quantity)} {line.unitWord}</span></Cell
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
    {#each more as column (column.name)}
      {#if column.field}
        <Cell {sheet} {line} column={column.field} class="w-20 max-w-28 truncate pl-3 text-right text-second max-md:hidden">{column.text(line, decimals)}</Cell>
      {:else}<td class="w-20 text-right text-second max-md:hidden">{column.text(line, decimals)}</td>{/if}
    {/each}
    <td class="w-24 text-right {asked !== null ? '' : 'hidden'} max-md:hidden" title="their price, in our unit"
      >{#if asked !== null}<span class={asked < (line.netPrice ?? 0) ? 'text-stop' : 'text-second'}>{fixed(asked, 4)}</span>{/if}</td
    >
    <td class="w-24 pr-3 text-right max-sm:w-auto {line.counts ? '' : 'text-second'}" colspan={asked === null ? 2 : 1}>
      {#if line.netPrice !== null}{line.counts ? fixed(line.net, decimals) : `(${fixed(line.net, decimals)})`}{/if}
    </td>
    <td class="w-20 pr-3 text-right {late ? 'text-stop' : 'text-clear'} max-md:hidden">{line.promise && !line.says.closedWhy ? day(line.promise) : ''}</td>
  {/if}
</tr>
{#if here && opens && (line.build.length > 0 || findings.length > 0 || sheet.saying)}
  <tr class="border-b border-hairline bg-focus-row shadow-[inset_3px_0_0_var(--ink)] max-sm:block">
    <td colspan="2" class="max-sm:hidden"></td>
    <td colspan={8 + more.length} class="px-3 pt-1 pb-2 max-sm:block">
      <Build {line} {lost} room={sheet.editable && !needs ? line.headroom : null} />
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
      {#if sheet.saying && sheet.editable}<LineSays {sheet} {line} />{/if}
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
