<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ask, type Schemas } from '$lib/api';
  import { AskLimit, Standing } from '$lib/credit';
  import { KeyCap, useKeys } from '$lib/keys';
  import { useSession } from '$lib/session';
  import { day, fixed, Latest, plain, Problem } from '$lib/shared';
  import Months from './Months.svelte';
  import Portals from './Portals.svelte';
  import Talks from './Talks.svelte';

  let { id, code }: { id: number; code: string } = $props();
  const session = useSession();
  const latest = new Latest<Schemas['BuyerAnswersView']>();
  const view = $derived(latest.value);
  let problem = $state('');
  let limit = $state<AskLimit>();

  // Meets the server, for each buyer anew.
  $effect(() => {
    const path = { id };
    latest.take(null);
    void latest.ask(() => ask(api.GET('/api/buyers/{id}/answers', { params: { path } })), 'What they bought could not be loaded.');
  });

  const mayWrite = $derived(session.person?.mayWrite ?? false);

  async function begin(kind: 'quote' | 'order') {
    try {
      const made =
        kind === 'quote'
          ? await ask(api.POST('/api/quotes', { body: { buyerId: id, matter: '' } }))
          : await ask(api.POST('/api/buyers/{id}/orders', { params: { path: { id } } }));
      await goto(`/${made.kind}s/${made.number}`);
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not begun.';
    }
  }

  const kept = [
    ['addresses', 'their addresses'],
    ['contacts', 'their people'],
    ['buyer-codes', 'what they call our items'],
  ] as const;
  const pay = $derived(`/prices?buyer=${encodeURIComponent(code)}`);

  useKeys(() => [
    ...(mayWrite
      ? [
          { key: 'q', words: 'a quote for them', run: () => void begin('quote') },
          { key: 'o', words: 'an order of theirs', run: () => void begin('order') },
        ]
      : []),
    { key: 'p', words: 'what would they pay?', run: () => void goto(pay) },
  ]);
</script>

<Problem words={problem || latest.problem} onclose={() => (problem = '')} />
{#if view}
  {@const c = view.currency}
  <p class="flex flex-wrap items-center gap-3">
    {#if mayWrite}
      <button class="btn btn-primary btn-sm" onclick={() => begin('quote')}>Quote for them <KeyCap>Q</KeyCap></button>
      <button class="btn btn-outline btn-sm" onclick={() => begin('order')}>Order of theirs <KeyCap>O</KeyCap></button>
    {/if}
    <a class="btn btn-outline btn-sm" href={pay}>What would they pay? <KeyCap>P</KeyCap></a>
  </p>
  <dl class="grid grid-cols-2 gap-x-8 gap-y-2 sm:grid-cols-4">
    <div>
      <dt class="text-second">this year</dt>
      <dd class="text-[15.5px] font-semibold">
        {fixed(view.thisYear, 0)}
        {c}{#if view.atRates}<span class="block text-[12px] font-normal text-second">{view.atRates}</span>{/if}
      </dd>
    </div>
    <div>
      <dt class="text-second">last year</dt>
      <dd class="text-[15.5px]">{fixed(view.lastYear, 0)} {c}</dd>
    </div>
  </dl>
  <Months months={view.months.map((m) => ({ month: m.month, value: m.net }))} unit={c} />

  <section aria-label="what they owe">
    <h2 class="border-b border-strong pb-1 font-serif text-[17px]">
      What they owe and will owe <em class="text-second">{view.credit.currency}</em>
    </h2>
    <Standing view={view.credit} />
    {#if mayWrite}<button class="mt-2 underline" onclick={() => limit?.open(view.credit)}>ask for another limit…</button>{/if}
  </section>
  <AskLimit bind:this={limit} {id} />
  <p class="flex flex-wrap gap-x-4 text-second" aria-label="kept of them">
    {#each kept as [kind, words] (kind)}<a class="underline" href="/records/{kind}?filter={encodeURIComponent(`buyer:${code}`)}">{words}</a>{/each}
  </p>
  <Portals {id} {mayWrite} />
  <section aria-label="what is open">
    <h2 class="border-b border-strong pb-1 font-serif text-[17px]">Open</h2>
    <ul>
      {#each view.open as doc (doc.number)}
        <li class="grid grid-cols-[100px_1fr_auto_auto] gap-3 border-b border-hairline py-1">
          <a class="font-mono text-[12px] underline" href="/{doc.kind}s/{doc.number}">{doc.number}</a>
          <span class="truncate">{doc.matter} <span class="text-second">{doc.words}, {day(doc.day)}</span></span>
          <span class="text-right">{fixed(doc.total, 2)}</span><span class="text-second">{doc.currency}</span>
        </li>
      {:else}<li class="py-1 text-second">Nothing is open.</li>{/each}
    </ul>
  </section>
  <section aria-label="agreements">
    <h2 class="border-b border-strong pb-1 font-serif text-[17px]">Agreements</h2>
    <ul>
      {#each view.agreements as a (a.id)}
        <li class="grid grid-cols-[80px_1fr_1fr_auto] gap-3 border-b border-hairline py-1">
          <a class="font-mono text-[12px] underline" href="/records/agreements/{a.id}">{a.code}</a>
          <span class="truncate">{a.words} <span class="text-second">{a.covers}{a.ofGroup ? ', of the group' : ''}</span></span>
          <span class="truncate">{a.breaks}</span>
          <span class={a.endsSoon ? 'text-stop' : 'text-second'}>{a.to ? `to ${day(a.to)}` : 'open end'}</span>
        </li>
      {:else}<li class="py-1 text-second">
          None holds today. <a class="underline" href="/records/agreements/new?buyer={encodeURIComponent(code)}">Make one</a>
        </li>{/each}
    </ul>
  </section>
  <section aria-label="what they bought">
    <h2 class="border-b border-strong pb-1 font-serif text-[17px]">Bought in two years</h2>
    <ul>
      {#each view.items as item (item.code)}
        <li class="grid grid-cols-[100px_1fr_auto_80px_90px] gap-3 border-b border-hairline py-1">
          <span class="font-mono text-[12px] text-second">{item.code}</span><span class="truncate">{item.words}</span>
          <span class="text-right">{plain(item.quantity)} {item.unitWord}</span><span class="text-right text-second">{day(item.last)}</span><span
            class="text-right">{fixed(item.net, 2)}</span
          >
        </li>
      {:else}<li class="py-1 text-second">Nothing yet.</li>{/each}
    </ul>
  </section>
  <Talks buyer={id} {mayWrite} talks={view.talks} onkept={(kept) => latest.take({ ...view, talks: [kept, ...view.talks] })} />
{/if}
