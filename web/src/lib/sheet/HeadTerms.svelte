<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { day, Mark } from '$lib/shared';
  import type { SheetState } from './sheet.svelte';

  interface Props {
    sheet: SheetState;
    isOrder: boolean;
    oncure: (cure: Schemas['CureView'], finding: Schemas['FindingView']) => void;
    onwaive: ((finding: Schemas['FindingView']) => void) | null;
  }

  let { sheet, isOrder, oncure, onwaive }: Props = $props();
  // What a buyer has by default; where a sheet differs from it, the value stands out.
  const ofBuyer = [
    'paymentDays',
    'incoterm',
    'incotermPlace',
    'deliverTo',
    'deliverToCountry',
    'shipFrom',
    'billTo',
    'shippingRule',
    'language',
    'documentsBy',
  ];
  const rules = ['whole lines', 'all together', 'as it comes', 'on call'];
  const ways = ['mail', 'edi', 'paper'];
  let open = $state<string | null>(null);
  const head = $derived(sheet.view.head);
  const fromBuyer = $derived(head.fromBuyer ?? []);
  const findings = $derived(sheet.view.findings.filter((f) => f.line === null));
  const missing = $derived(new Set(findings.filter((f) => f.outcome === 'stop').map((f) => f.field)));

  const fields = $derived([
    ...(isOrder
      ? [{ id: 'poNumber', label: 'their PO', value: head.poNumber ?? '', type: 'text' }]
      : [{ id: 'validUntil', label: 'holds until', value: head.validUntil ?? '', type: 'date' }]),
    { id: 'wanted', label: 'wanted', value: head.wanted ?? '', type: 'date' },
    { id: 'paymentDays', label: 'days to pay', value: head.paymentDays?.toString() ?? '', type: 'text' },
    { id: 'incoterm', label: 'Incoterm', value: head.incoterm ?? '', type: 'text' },
    { id: 'incotermPlace', label: 'place', value: head.incotermPlace ?? '', type: 'text' },
    { id: 'deliverTo', label: 'deliver to', value: head.deliverTo ?? '', type: 'text' },
    { id: 'deliverToCountry', label: 'country', value: head.deliverToCountry ?? '', type: 'text' },
    { id: 'billTo', label: 'invoice to', value: head.billTo ?? '', type: 'text' },
    { id: 'shipFrom', label: 'ship from', value: head.shipFrom ?? '', type: 'text' },
    { id: 'shippingRule', label: 'shipped', value: head.shippingRule ?? '', type: 'text' },
    { id: 'documentsBy', label: 'documents by', value: head.documentsBy ?? '', type: 'text' },
    { id: 'language', label: 'in', value: head.language, type: 'text' },
    { id: 'freightService', label: 'service', value: head.freightService ?? '', type: 'text' },
    {
      id: 'freight',
      label: 'freight',
      value: sheet.view.tally.chargeLines.find((c) => c.kind === 'freight')?.amount.toFixed(sheet.view.decimals) ?? '',
      type: 'text',
    },
  ]);

  // What may be chosen in place of typing: the buyer's addresses, and the shipping rules.
  function choices(field: string): { value: string; words: string }[] {
    if (field === 'shippingRule') return rules.map((r) => ({ value: r, words: r }));
    if (field === 'documentsBy') return ways.map((w) => ({ value: w, words: w }));
    if (field === 'language') return (head.languages ?? []).map((l) => ({ value: l.code, words: l.name }));
    const use = { deliverTo: 'deliver-to', billTo: 'bill-to' }[field];
    return (head.addresses ?? [])
      .filter((a) => a.use === use)
      .map((a) => ({ value: a.words, words: `${a.code}, ${a.country}${a.receivingDays ? `, receives ${a.receivingDays}` : ''}` }));
  }

  function shown(field: string, value: string) {
    return field === 'language' ? (head.languages?.find((l) => l.code === value)?.name ?? value) : value;
  }

  // Where a term came from: the buyer's page, or somebody who typed it.
  function source(field: string) {
    if (fromBuyer.includes(field)) return 'as the buyer has it by default';
    if (field === 'freight') {
      const charge = sheet.view.tally.chargeLines.find((c) => c.kind === 'freight');
      const { freight } = sheet.view;
      return !charge ? undefined : charge.byHand ? 'typed' : `worked out: zone ${freight.zone}, ${freight.service}, ${freight.kilograms.toFixed(1)} kg`;
    }
    return fields.find((f) => f.id === field)?.value ? 'set here' : undefined;
  }

  export function focus(field: string) {
    open = field;
  }

  function keys(event: KeyboardEvent & { currentTarget: HTMLInputElement }, field: string) {
    event.stopPropagation();
    if (event.key === 'Enter') void sheet.set(null, field, event.currentTarget.value);
    if (event.key === 'Enter' || event.key === 'Escape') open = null;
  }
</script>

<dl class="flex flex-wrap gap-x-5 gap-y-0.5 py-1.5">
  {#each fields as field (field.id)}
    <div class="flex items-baseline gap-1.5">
      <dt class="text-second" title={source(field.id)}>{field.label}</dt>
      <dd>
        {#if open === field.id}
          <input
            type={field.type}
            class="h-6 border border-ink bg-sheet px-1"
            value={field.value}
            list={choices(field.id).length ? `choices-${field.id}` : undefined}
            aria-label={field.label}
            {@attach (input: HTMLInputElement) => input.focus()}
            onkeydown={(e) => keys(e, field.id)}
            onblur={(e) => {
              if (open === field.id && e.currentTarget.value !== field.value) void sheet.set(null, field.id, e.currentTarget.value);
              open = null;
            }}
          />
          {#if choices(field.id).length}
            <datalist id="choices-{field.id}">
              {#each choices(field.id) as choice (choice.value)}<option value={choice.value}>{choice.words}</option>{/each}
            </datalist>
          {/if}
        {:else}
          <button
            class="min-h-6 max-w-64 truncate align-bottom decoration-strong {ofBuyer.includes(field.id) && field.value && !fromBuyer.includes(field.id)
              ? 'font-semibold'
              : ''} {sheet.editable ? 'hover:underline' : 'cursor-default'} {missing.has(field.id) ? 'needs' : ''}"
            disabled={!sheet.editable}
            title={source(field.id)}
            onclick={() => (open = field.id)}
          >
            {#if fromBuyer.includes(field.id)}<span class="sr-only">by default: </span>{/if}{field.value
              ? field.type === 'date'
                ? day(field.value)
                : shown(field.id, field.value)
              : missing.has(field.id)
                ? 'missing'
                : '–'}
          </button>
        {/if}
      </dd>
    </div>
  {/each}
</dl>
{#if findings.length}
  <ul class="pb-2" aria-live="polite">
    {#each findings as finding (finding.check + finding.words)}
      <li class="flex flex-wrap items-baseline gap-2">
        <Mark outcome={finding.outcome} />
        <span class={finding.outcome === 'stop' ? 'text-stop' : 'text-second'}>{finding.words}</span>
        {#if finding.waivedBy}<span class="text-second">{finding.waivedBy} let it pass: “{finding.waivedWhy}”</span>{/if}
        {#each finding.documents as document (document)}
          <a class="underline" href="/{document.startsWith('S') ? 'orders' : 'requests'}/{document}">{document}</a>
        {/each}
        {#if sheet.view.editable && finding.outcome === 'stop'}
          {#each sheet.editable ? finding.cures : [] as cure (cure.key)}
            <button onclick={() => oncure(cure, finding)}><KeyCap>{cure.key}</KeyCap> {cure.words}</button>
          {/each}
          {#if onwaive && finding.waiveBy !== 'nobody'}
            <button onclick={() => onwaive(finding)}><KeyCap>W</KeyCap> let it pass…</button>
          {/if}
        {/if}
      </li>
    {/each}
  </ul>
{/if}
