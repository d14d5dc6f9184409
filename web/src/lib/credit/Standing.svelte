<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, fixed } from '$lib/shared';

  /** What a buyer owes and will owe, part by part, against the limit; with an order, what it adds and what would help. */
  let { view }: { view: Schemas['CreditView'] } = $props();
  const money = (value: number) => fixed(value, 2).replace('-', '\u2212');
  const all = $derived(view.exposure + (view.thisOrder ?? 0));
  const scale = $derived(Math.max(all, view.limit ?? 0, 1) * 1.06);
  const share = (value: number) => `${Math.min(100, Math.max(0, (value / scale) * 100))}%`;
  const over = $derived(view.limit !== null && all > view.limit);
  const late = $derived(
    view.daysLate === null
      ? 'nothing paid in two years'
      : view.daysLate === 0
        ? 'on the day'
        : `${fixed(Math.abs(view.daysLate), 1).replace(/\.0$/, '')} days ${view.daysLate > 0 ? 'late' : 'early'} on average`,
  );
</script>

{#if view.blocked}<p class="mb-2 border-l-[3px] border-stop pl-2 text-stop">Blocked: {view.blocked}</p>{/if}
{#if view.missingRate}<p class="mb-2 text-stop">There is no rate for {view.missingRate}: not all of it could be added up.</p>{/if}
<div
  class="relative my-2 h-4"
  role="img"
  aria-label="{money(view.exposure)} owed and to come{view.thisOrder ? `, ${money(view.thisOrder)} with this order` : ''}, of {view.limit === null
    ? 'no limit'
    : money(view.limit)} {view.currency}"
>
  <span class="absolute inset-x-0 top-2 border-t border-strong"></span>
  <span class="absolute top-0.5 left-0 h-3 bg-second/60" style:width={share(view.exposure)}></span>
  {#if view.thisOrder}<span
      class="absolute top-0.5 h-3 border border-ink {over ? 'bg-stop/30' : 'bg-sheet'}"
      style:left={share(view.exposure)}
      style:width={share(view.thisOrder)}
    ></span>{/if}
  {#if view.limit !== null}<span class="absolute top-0 h-4 border-l-2 border-stop" style:left={share(view.limit)} title="limit"></span>{/if}
</div>
<table class="w-full border-collapse" aria-label="what they owe and will owe, {view.currency}">
  <tbody>
    {#each view.parts as part (part.label)}
      <tr class="border-b border-hairline">
        <td class="py-1">{part.label} <span class="text-second">{part.rest}</span></td>
        <td class="text-right {part.amount < 0 ? 'text-stop' : ''}">{money(part.amount)}</td>
      </tr>
    {/each}
    <tr class="border-b border-strong font-semibold"><td class="py-1">they owe and will owe</td><td class="text-right">{money(view.exposure)}</td></tr>
    {#if view.thisOrder !== null}
      <tr class="border-b border-hairline">
        <td class="py-1"
          >this order {#if view.thisOrder === 0}<span class="text-second">is confirmed, and counted above</span>{/if}</td
        >
        <td class="text-right">{money(view.thisOrder)}</td>
      </tr>
    {/if}
    <tr class="border-b border-hairline">
      <td class="py-1"
        >limit
        <span class={view.ended ? 'text-stop' : 'text-second'}
          >{view.until ? `${view.ended ? 'ended' : 'until'} ${day(view.until)}` : ''}
          {view.setBy ? `· set by ${view.setBy}` : ''}
          {view.sharedWith ? `· shared by all of ${view.sharedWith}` : ''}</span
        ></td
      >
      <td class="text-right">{view.limit === null ? 'none' : money(view.limit)}</td>
    </tr>
    {#if view.limit !== null}
      <tr class="font-semibold">
        <td class="py-1">{over ? 'over the limit' : 'left'}</td>
        <td class="text-right {over ? 'text-stop' : ''}">{money(Math.abs(view.limit - all))} {view.currency}</td>
      </tr>
    {/if}
  </tbody>
</table>
<dl class="mt-2 grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5">
  <dt class="text-second">invoices by age</dt>
  <dd class="text-right">
    {#each view.ages.filter((a) => a.amount !== 0) as age, i (age.label)}{i ? ' · ' : ''}<span class={age.label === 'not due' ? '' : 'text-stop'}
        >{money(age.amount)} {age.label}</span
      >{:else}none open{/each}
  </dd>
  <dt class="text-second">oldest</dt>
  <dd class="text-right {view.overdueDays > view.graceDays ? 'text-stop' : ''}">
    {view.overdueDays > 0 ? `${view.overdueDays} days overdue, ${view.graceDays} allowed` : 'nothing overdue'}
  </dd>
  <dt class="text-second">they pay</dt>
  <dd class="text-right">{late}</dd>
  {#if view.insured !== null}
    <dt class="text-second">insured</dt>
    <dd class="text-right">{money(view.insured)}{view.uninsured > 0 ? `, ${money(view.uninsured)} is our own risk` : ''}</dd>
  {/if}
</dl>
{#if view.offers.length}
  <h3 class="mt-3 mb-1 font-serif text-[16px]">What would get it through</h3>
  <table class="w-full border-collapse">
    <thead class="text-[11.5px] text-second"
      ><tr class="border-b border-strong"><th class="py-1 text-left font-normal">way</th><th class="text-right font-normal">they owe then</th></tr></thead
    >
    <tbody>
      {#each view.offers as offer (offer.code)}
        <tr class="border-b border-hairline"><td class="py-1">{offer.words}</td><td class="text-right">{money(offer.exposure)}</td></tr>
      {/each}
    </tbody>
  </table>
{/if}
{#each view.letPass as pass, i (i)}
  <p class="mt-2 text-second">
    {pass.by} let {pass.upTo > 0 ? money(pass.upTo) : 'it'} pass{pass.until ? ` until ${day(pass.until)}` : ''}{#if pass.why}:
      <em class="font-serif text-[15px] text-ink">“{pass.why}”</em>{/if}
  </p>
{/each}
