<script lang="ts">
  import { page } from '$app/state';
  import { CarrierFile, DayLine, GoodsState, Packing, ShipmentState, Waiting, type Wave } from '$lib/goods';
  import { KeyCap, useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { day, fixed, plain, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const goods = new GoodsState();
  const ship = new ShipmentState();
  const view = $derived(goods.view);
  const held = $derived((view?.waiting ?? []).filter((r) => r.why.startsWith('held')).length);
  let going = $state<Wave>();
  const picking = $derived(going?.shipments.length ?? view?.picking.length ?? 0);
  function ask(wave?: Wave) {
    going = wave;
    sendDialog?.open();
  }
  let sendDialog = $state<Words>();
  const short = $derived((view?.waiting ?? []).filter((r) => r.here < r.lines).length);

  // Meets the server, and the address: a shipment that it names is open.
  $effect(() => void goods.load(page.url.searchParams.get('warehouse') ?? undefined));
  $effect(() => {
    const named = page.url.searchParams.get('shipment');
    if (named) void ship.open(named);
  });
  usePulse(
    () => true,
    () => void goods.load(),
    5_000,
  );

  useKeys(() =>
    ship.view
      ? []
      : [
          { key: 'j', words: 'next', run: () => goods.go(1) },
          { key: 'k', words: 'before', run: () => goods.go(-1) },
          { key: 'ArrowDown', words: 'next', run: () => goods.go(1) },
          { key: 'ArrowUp', words: 'before', run: () => goods.go(-1) },
          ...(view?.mayShip
            ? [
                { key: ' ', words: 'choose it, or not', run: () => goods.choose(goods.current) },
                { key: 'r', words: 'pick the chosen ones in one round', run: () => void goods.release() },
                { key: 'g', words: 'all that is being picked goes', run: () => void (view?.picking.length && ask()) },
              ]
            : []),
          { key: 'Enter', words: 'pick the first', run: () => void ship.open(view?.picking[0]?.number ?? '') },
        ],
  );
</script>

<svelte:head><title>Goods · Solvenda</title></svelte:head>
<Problem words={goods.problem || goods.latest.problem} onclose={() => (goods.problem = '')} />
{#if view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h1 class="font-serif text-[25px] leading-tight">
        What may go {view.day === view.today ? 'today' : `on ${day(view.day)}`} <em class="text-second">from {view.warehouse}</em>
      </h1>
      {#each view.warehouses.filter((w) => w !== view.warehouse) as other (other)}
        <button class="text-second underline" onclick={() => void goods.load(other)}>{other}</button>
      {/each}
      <span class="ml-auto text-second"
        >{plain(goods.rows.filter((r) => r.mayGo).length)} may go{held ? ` · ${plain(held)} held` : ''}{short ? ` · ${plain(short)} not all here` : ''}</span
      >
    </div>
    {#if view.day === view.today}<DayLine now={view.now} carriers={view.carriers} />{/if}
    <div class="grid min-h-0 flex-1 gap-x-6 gap-y-4 overflow-auto pb-4 lg:grid-cols-[1fr_400px]">
      <div><Waiting {goods} /></div>
      <div class="pt-4">
        <Packing {goods} {ship} onsend={ask} />
        {#if view.mayShip && view.carriers.length}
          <CarrierFile carriers={view.carriers.map((c) => c.code)} ontaken={(words) => ((goods.done = words), void goods.load())} />
        {/if}
      </div>
    </div>
    <footer class="flex flex-wrap items-center gap-4 border-t border-strong py-3">
      {#if view.mayShip}
        <span><b>{plain(goods.chosen.length)} chosen</b> <span class="text-second">{fixed(goods.weight, goods.weight < 100 ? 1 : 0)} kg</span></span>
        <button class="btn btn-primary btn-sm" disabled={!goods.chosen.length || !!goods.busy} onclick={() => void goods.release()}
          >Pick them in one round <KeyCap>R</KeyCap></button
        >
        <label class="text-second"
          >as wave <input
            class="w-28 border-b border-strong bg-transparent text-ink"
            maxlength="40"
            placeholder={view.nextWave}
            bind:value={goods.wave}
          /></label
        >
      {/if}
      <span class="text-second" role="status">{goods.busy || goods.done}</span>
      {#if view.picking.length}<a
          class="ml-auto text-second underline"
          href="/api/goods/pick-list?warehouse={encodeURIComponent(view.warehouse)}"
          target="_blank"
          rel="noopener">pick lists on paper</a
        >{/if}
      <a class="{view.picking.length ? '' : 'ml-auto'} text-second underline" href="/goods/shipments">all shipments</a>
    </footer>
  </div>
{/if}
<Words
  bind:this={sendDialog}
  title={picking === 1 ? 'It goes?' : `All ${plain(picking)}${going?.name ? ` of wave ${going.name}` : ''} go?`}
  says="What nobody looked at counts as picked whole, also of what others have in hand. Stock falls, and the buyers are told."
  label=""
  button={picking === 1 ? 'It goes' : 'They go'}
  take={async () => void goods.sendAll(going?.shipments)}
/>
