<script lang="ts">
  import { tick } from 'svelte';
  import { KeyCap, useKeys } from '$lib/keys';
  import { day, fixed, plain, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';
  import type { GoodsState, Wave } from './goods.svelte';
  import type { ShipmentState } from './shipment.svelte';

  /** What is being picked: the list of it, or the one that somebody has in hand. */
  let { goods, ship, onsend }: { goods: GoodsState; ship: ShipmentState; onsend: (wave?: Wave) => void } = $props();
  let dropDialog = $state<Words>();
  let typed = $state('');
  let field = $state<HTMLInputElement>();
  let packing = $state(false);
  let parcels = $state(1);
  let weight = $state(0);
  let carrier = $state('');
  const list = $derived(goods.view?.picking ?? []);
  const waves = $derived(goods.waves);
  const may = $derived(goods.view?.mayShip ?? false);

  async function type(what: 'part' | 'serials' | 'lots') {
    ship.typing = what;
    typed = what === 'serials' ? (ship.current?.serials.join(' ') ?? '') : what === 'lots' ? ship.current?.lots || ship.current?.lotInFront || '' : '';
    await tick();
    field?.focus();
  }
  const whole = async () => {
    await ship.whole(ship.current);
    if (ship.typing) await type(ship.typing);
  };
  const take = async (event: SubmitEvent) => {
    event.preventDefault();
    const asked = ship.typing;
    await (asked === 'serials' ? ship.numbers(ship.current, typed) : asked === 'lots' ? ship.lots(ship.current, typed) : ship.part(ship.current, typed));
    // What goes by lot is asked for its lots once it is known how much is there.
    if (asked === 'part' && ship.typing === 'lots') await type('lots');
  };
  const partWords = $derived(ship.mayBeMore ? 'part of it, or more' : 'only part is there');
  const asks = $derived(
    ship.typing === 'serials'
      ? { label: 'numbers of', button: 'so much', hint: `${plain(ship.current?.quantity ?? 0)} numbers, scanned or typed` }
      : ship.typing === 'lots'
        ? { label: 'lots of', button: 'of these', hint: 'its lot; of several: L2408A 12, L2409B 3' }
        : { label: 'how much is there of', button: 'so much', hint: ship.hint },
  );
  async function send() {
    if (await ship.send()) {
      const went = ship.number;
      await goods.load();
      goods.done = `${went} went.`;
      await ship.open(goods.view?.picking[0]?.number ?? '');
    }
  }
  function pack() {
    const view = ship.view;
    if (!view) return;
    [packing, parcels, weight, carrier] = [true, view.parcels || 1, view.weightKg ?? 0, view.carrier];
  }
  async function packed(event: SubmitEvent) {
    event.preventDefault();
    if (await ship.pack(parcels, weight, carrier)) packing = false;
  }
  async function drop(reason: string) {
    if (!(await ship.drop(reason))) return;
    await goods.load();
    await ship.open('');
  }

  useKeys(() =>
    ship.picking
      ? [
          { key: 'Enter', words: 'all of it is there', run: () => void whole() },
          { key: 's', words: partWords, run: () => void type('part') },
          { key: 'p', words: 'parcels and weight', run: pack },
          { key: 'g', words: 'close it, it goes', run: () => void send() },
          { key: 'j', words: 'next on the way', run: () => ship.go(1) },
          { key: 'k', words: 'the one before', run: () => ship.go(-1) },
          { key: 'Escape', words: 'to all that is being picked', run: () => void ship.open('') },
        ]
      : [],
  );
</script>

<aside class="border border-hairline bg-sheet p-4" aria-label="being picked">
  {#if ship.view}
    {@const view = ship.view}
    <div class="flex items-baseline justify-between gap-3">
      <h2 class="font-serif text-[19px]">
        <a class="hover:underline" href="/orders/{view.order}">{view.number}</a>
        <em class="text-second"
          >{view.state === 'picking' ? (view.byName ? `with ${view.byName}` : 'to be picked') : view.state === 'gone' ? 'gone' : 'dropped'}</em
        >
      </h2>
      <span class="whitespace-nowrap text-second">{view.picks.length - ship.left} of {view.picks.length}</span>
    </div>
    <p class="text-second">{view.buyer}, {view.deliverTo}</p>
    {#if view.forWarehouse}<p class="mt-1 bg-focus-row px-2 py-1">{view.forWarehouse}</p>{/if}
    <Problem words={ship.problem || ship.latest.problem} onclose={() => (ship.problem = '')} />
    <ol class="mt-2 list-none" aria-label="in walking order">
      {#each view.picks as pick, i (`${pick.line}-${pick.item}`)}
        {@const here = i === ship.at && ship.picking}
        <li
          class="border-b border-hairline py-1.5 {here ? '-mx-4 bg-focus-row px-4 shadow-[inset_3px_0_0_var(--ink)]' : ''}"
          aria-current={here ? 'true' : undefined}
        >
          <div class="grid grid-cols-[48px_1fr_auto] items-baseline gap-x-2">
            <span class="font-mono text-[12px]">{pick.bin || '–'}</span>
            <span class="truncate" title={pick.words}><span class="font-mono text-[12px]">{pick.item}</span> {pick.words}</span>
            <span class="text-right whitespace-nowrap"
              >{#if pick.picked === null}{plain(pick.quantity)} {pick.unit}{:else if pick.picked >= pick.quantity}<span class="text-clear"
                  >✓ {plain(pick.picked)} {pick.unit}{pick.picked > pick.quantity ? `, ${plain(pick.picked - pick.quantity)} beyond it` : ''}</span
                >{:else}<span class="needs">{plain(pick.picked)} of {plain(pick.quantity)} {pick.unit}</span>{/if}</span
            >
          </div>
          {#if pick.forWarehouse}<p class="pl-[56px] text-second">{pick.forWarehouse}</p>{/if}
          {#if pick.serials.length}<p class="pl-[56px] font-mono text-[12px] text-second">{pick.serials.join(' ')}</p>{/if}
          {#if pick.lots}<p class="pl-[56px] font-mono text-[12px] text-second">lot {pick.lots}</p>
          {:else if pick.byLot && pick.lotInFront}<p class="pl-[56px] font-mono text-[12px] text-second">lot {pick.lotInFront} lies in front</p>{/if}
          {#if here}
            {#if ship.typing}
              <form class="mt-1 flex items-baseline gap-2 pl-[56px]" onsubmit={take}>
                <input
                  bind:this={field}
                  bind:value={typed}
                  class="w-56 border-b border-strong bg-transparent"
                  aria-label="{asks.label} {pick.item}"
                  placeholder={asks.hint}
                  inputmode={ship.typing === 'part' ? 'decimal' : 'text'}
                />
                <button class="btn btn-outline btn-xs">{asks.button}</button>
              </form>
            {:else}
              <p class="mt-1 flex flex-wrap gap-x-3 pl-[56px] text-second">
                <button onclick={() => void whole()}><KeyCap>Enter</KeyCap> {pick.bySerial ? 'its numbers' : pick.byLot ? 'its lot' : 'all there'}</button>
                <button onclick={() => void type('part')}><KeyCap>S</KeyCap> {partWords}</button>
              </p>
            {/if}
          {/if}
        </li>
      {/each}
    </ol>
    {#each view.services as service (service)}<p class="border-b border-hairline py-1.5 pl-[56px] text-second">{service}, goes with it</p>{/each}
    <h3 class="mt-3 border-b border-hairline pb-0.5 text-second">parcels</h3>
    {#if packing}
      <form class="mt-1 flex flex-wrap items-baseline gap-2" onsubmit={packed}>
        <input type="number" min="1" max="999" class="w-14 border-b border-strong bg-transparent text-right" bind:value={parcels} aria-label="parcels" /> of
        <input
          type="number"
          min="0.001"
          step="any"
          class="w-20 border-b border-strong bg-transparent text-right"
          bind:value={weight}
          aria-label="kilograms in all"
        />
        kg in all,
        <select class="border-b border-strong bg-transparent" bind:value={carrier} aria-label="carried by">
          <option value="">handed over</option>
          {#each goods.view?.carriers ?? [] as c (c.code)}<option value={c.code}>{c.code}</option>{/each}
        </select>
        <button class="btn btn-outline btn-xs">Packed</button>
      </form>
    {:else}
      <p class="py-1">
        {view.parcels ? `${view.parcels} ${view.parcels === 1 ? 'parcel' : 'parcels'}, ` : ''}{view.weightKg === null
          ? 'not weighed'
          : `${fixed(view.weightKg, 1)} kg`}
        <span class="text-second">· {view.carrier || 'nobody carries it'}{view.tracking ? `, ${view.tracking}` : ''}</span>
        {#if ship.picking}<button class="ml-2 text-second" onclick={pack}><KeyCap>P</KeyCap> otherwise</button>{/if}
      </p>
    {/if}
    {#if ship.picking}
      <button class="btn mt-2 w-full btn-primary btn-sm" disabled={ship.left > 0} onclick={() => void send()}>Close it, it goes <KeyCap>G</KeyCap></button>
      <p class="mt-1 text-center text-second">
        {ship.left ? `${plain(ship.left)} still to pick` : 'stock falls, the buyer gets a letter with the delivery note'}
      </p>
      <p class="mt-2 flex justify-between text-second">
        <button class="underline" onclick={() => void ship.open('')}>all that is being picked</button>
        <a class="underline" href="/api/goods/pick-list?shipment={encodeURIComponent(view.number)}" target="_blank" rel="noopener">on paper</a>
        <button class="underline" onclick={() => dropDialog?.open()}>put it back…</button>
      </p>
    {:else}
      {#if view.day}<p class="text-second">
          It left on {day(view.day)}{view.delivered ? `, and was handed over on ${day(view.delivered)}` : ''}.
          {#if view.hasNote}<a class="underline" href="/api/shipments/{view.number}/note" target="_blank" rel="noopener">delivery note</a>{/if}
          {#if view.leavesUnion}
            <a class="underline" href="/api/shipments/{view.number}/customs/commercial-invoice" target="_blank" rel="noopener">commercial invoice</a>
            <a class="underline" href="/api/shipments/{view.number}/customs/packing-list" target="_blank" rel="noopener">packing list</a>
          {/if}
          {#if view.followAt}<a class="underline" href={view.followAt} target="_blank" rel="noreferrer">follow it</a>{/if}
        </p>{/if}
      <button class="mt-2 text-second underline" onclick={() => void ship.open('')}>all that is being picked</button>
    {/if}
  {:else}
    <div class="flex items-baseline justify-between">
      <h2 class="font-serif text-[19px]">Being picked</h2>
      <span class="text-second">{plain(goods.view?.goneToday ?? 0)} went today</span>
    </div>
    {#each waves as wave (wave.name)}
      {#if wave.name || waves.length > 1}
        <h3 class="mt-2 flex items-baseline gap-3 border-b border-hairline pb-0.5 text-second">
          <span>{wave.name ? `wave ${wave.name}` : 'released alone'}</span><span>{plain(wave.shipments.length)}</span>
          {#if wave.name}<a
              class="ml-auto underline"
              href="/api/goods/pick-list?warehouse={encodeURIComponent(goods.view?.warehouse ?? '')}&wave={encodeURIComponent(wave.name)}"
              target="_blank"
              rel="noopener"
              aria-label="pick lists of wave {wave.name} on paper">on paper</a
            >{/if}
          {#if may && waves.length > 1}<button
              class="{wave.name ? '' : 'ml-auto'} underline"
              onclick={() => onsend(wave)}
              aria-label="all {wave.name ? `of wave ${wave.name}` : 'that were released alone'} go">they go…</button
            >{/if}
        </h3>
      {/if}
      {#each wave.shipments as one (one.number)}
        <button
          class="grid w-full grid-cols-[96px_1fr_auto] items-baseline gap-x-2 border-b border-hairline py-1.5 text-left"
          onclick={() => void ship.open(one.number)}
        >
          <span class="font-mono text-[12px]">{one.number}</span><span class="truncate">{one.buyer}</span><span class="text-second"
            >{one.picked} of {one.picks}</span
          >
        </button>
      {/each}
    {:else}<p class="py-2 text-second">Nothing is being picked. What is chosen at the left is released with one key.</p>{/each}
    {#if list.length && may}
      <button class="btn mt-3 w-full btn-outline btn-sm" onclick={() => onsend()}
        >{list.length === 1 ? 'It goes' : `All ${list.length} go`}, as asked… <KeyCap>G</KeyCap></button
      >
      <p class="mt-1 text-center text-second">what nobody looked at counts as picked whole</p>
    {/if}
  {/if}
</aside>
<Words
  bind:this={dropDialog}
  title="Put {ship.number} back?"
  says="It does not go; what was to go with it waits again."
  label="why?"
  button="Put it back"
  take={drop}
/>
