<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap, useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { day, Latest, plain, Problem } from '$lib/shared';

  /** The goods of a confirmed order: what went and is on its way, and what is still to go. */
  let { order, mayShip, onmoved }: { order: string; mayShip: boolean; onmoved: () => void } = $props();
  const latest = new Latest<Schemas['OrderGoodsView']>();
  let problem = $state('');
  const load = () => latest.ask(() => ask(api.GET('/api/goods/{order}', { params: { path: { order } } })), 'Its goods could not be loaded.');
  const open = $derived((latest.value?.lines ?? []).filter((l) => l.ordered > l.gone + l.inWork));
  const counter = $derived(latest.value?.atCounter ?? false);
  const here = $derived(open.filter((l) => l.here > 0));
  const shown = $derived((latest.value?.shipments ?? []).filter((s) => s.state !== 'dropped'));

  // Meets the server.
  $effect(() => void load());
  usePulse(
    (subject) => subject === order,
    () => void load(),
  );

  // What is handed over at the counter goes at once, everything else is picked first.
  async function go() {
    problem = '';
    try {
      await ask(api.POST(counter ? '/api/goods/ship' : '/api/goods/release', { body: { order, lines: null } }));
      await load();
      onmoved();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'Nothing was changed.';
    }
  }
  useKeys(() => (mayShip && here.length ? [{ key: 'd', words: counter ? 'hand it over' : 'pick what may go', run: () => void go() }] : []));
  const amount = (quantity: number, unit: string) => `${plain(quantity)} ${unit}`.trim();
</script>

<Problem words={problem || latest.problem} onclose={() => (problem = '')} />
{#if latest.value && !latest.value.isFrame}
  <section class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hairline py-1" aria-label="its goods">
    {#each shown as s (s.number)}
      <span
        ><a class="font-mono text-[12px] hover:underline" href="/goods?shipment={encodeURIComponent(s.number)}">{s.number}</a>
        <span class="text-second"
          >{#if s.state === 'picking'}being picked{:else}went {s.day ? day(s.day) : ''}{s.carrier ? ` with ${s.carrier}` : ''}{s.delivered
              ? `, there ${day(s.delivered)}`
              : ''}{/if}</span
        >
        {#if s.tracking}{#if s.followAt}<a class="font-mono text-[12px] underline" href={s.followAt} target="_blank" rel="noreferrer">{s.tracking}</a
            >{:else}<span class="font-mono text-[12px]">{s.tracking}</span>{/if}{/if}</span
      >
    {/each}
    {#if open.length}
      <span class="text-second" title={open.map((l) => `${amount(l.ordered - l.gone - l.inWork, l.unit)} ${l.words}`).join('; ')}
        >{shown.length ? 'still to go' : 'to go'}: {open.length === 1
          ? `${amount(open[0]!.ordered - open[0]!.gone - open[0]!.inWork, open[0]!.unit)} ${open[0]!.words}`
          : `${plain(open.length)} lines`}, {here.length === open.length
          ? 'all there'
          : here.length
            ? `${plain(here.length)} there`
            : 'none of it there yet'}</span
      >
      {#if mayShip && here.length}<button class="underline" onclick={() => void go()}>{counter ? 'Hand it over' : 'Pick what may go'} <KeyCap>D</KeyCap></button
        >{/if}
    {:else if shown.length}<span class="text-second">all of it {shown.every((s) => s.state === 'gone') ? 'went' : 'is on its way out'}</span>{/if}
  </section>
{/if}
