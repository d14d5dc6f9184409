<script lang="ts">
  import { goto } from '$app/navigation';
  import { Day, DeskState } from '$lib/desk';
  import { KeyCap, useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { useSession } from '$lib/session';
  import { fixed, Mark, Problem, since } from '$lib/shared';

  const session = useSession();
  const desk = new DeskState();
  let list = $state<HTMLElement>();

  // Meets the server: at once, and each minute, since what waits grows older; what others do comes by the pulse.
  $effect(() => {
    if (!session.person) return;
    void desk.load();
    const timer = setInterval(() => void desk.load(), 60_000);
    return () => clearInterval(timer);
  });
  usePulse(
    () => true,
    () => void desk.load(),
    5_000,
  );

  function go(step: number) {
    desk.go(step);
    list?.querySelectorAll('[data-item]')[desk.at]?.scrollIntoView({ block: 'nearest' });
  }

  function open() {
    if (desk.chosen) void goto(desk.chosen.path);
  }

  useKeys(() => [
    { key: 'j', words: 'next', run: () => go(1) },
    { key: 'k', words: 'before', run: () => go(-1) },
    { key: 'ArrowDown', words: 'next', run: () => go(1) },
    { key: 'ArrowUp', words: 'before', run: () => go(-1) },
    { key: 'Enter', words: 'open', run: open },
    { key: 'e', words: 'do the obvious', run: open },
    ...(desk.ready.length ? [{ key: 't', words: 'take all that is ready', run: () => void desk.takeAll() }] : []),
  ]);
</script>

<svelte:head><title>Desk · Solvenda</title></svelte:head>

<Problem words={desk.problem} />
{#if desk.view}
  <div class="grid flex-1 gap-7 px-5 pt-3 lg:grid-cols-[1fr_300px]">
    <section bind:this={list} aria-label="what needs you">
      <h1 class="font-serif text-[25px] leading-tight">{desk.today}. <em class="text-second">{desk.count}</em></h1>
      {#each desk.groups as group (group.urgency)}
        <div class="mt-5 flex justify-between border-b border-strong pb-1 text-[12px] text-second">
          <h2>{group.name}</h2>
          <span class="pr-[104px] max-md:hidden">at our prices</span>
        </div>
        <ul>
          {#each group.items as item (DeskState.keyOf(item))}
            {@const n = desk.items.indexOf(item)}
            <li data-item class="border-b border-hairline {n === desk.at ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''}">
              <a
                href={item.path}
                class="grid grid-cols-[1fr_auto] items-baseline gap-x-3 px-2 py-1.5 md:grid-cols-[92px_1fr_110px_130px_96px]"
                onfocus={() => desk.focus(item)}
                onpointermove={(e) => desk.point(item, e.clientX, e.clientY)}
              >
                <span class="font-mono text-[12px] max-md:col-span-2">{item.number}</span>
                <span class="min-w-0">
                  <span class="block font-serif text-[16px] leading-5 md:truncate">{item.buyer}</span>
                  <span class="block truncate text-second"
                    >{#if item.reason}<span class="needs text-ink">{item.reason}</span>&ensp;{/if}{item.rest}</span
                  >
                </span>
                <span class="text-second max-md:hidden">{item.what}<br />{item.since ? since(item.since) : ''}</span>
                <span class="text-right max-md:hidden"
                  >{item.value === null ? '' : `${item.currency} ${fixed(item.value, 2)}`}{#if item.sure != null && item.sure < 100}<br /><span
                      class="text-second">{item.sure} % of it sure</span
                    >{/if}</span
                >
                <span class="text-right"
                  >{#if n === desk.at}<span class="inline-block rounded-[3px] bg-ink px-2.5 py-1 font-semibold text-sheet">{item.act} <KeyCap>E</KeyCap></span
                    >{:else}{item.act}{/if}</span
                >
              </a>
            </li>
          {/each}
        </ul>
      {:else}
        <p class="mt-6 text-second">What buyers send, what colleagues ask of you, and what is about to lapse appears here by itself, most urgent first.</p>
      {/each}
      {#if desk.ready.length}
        <section class="mt-4 border border-strong bg-sheet px-4 py-3" aria-label="ready">
          <div class="flex flex-wrap items-baseline justify-between gap-3">
            <h2 class="font-serif text-[18px]">Ready: {desk.readyCount}, <em class="text-second">nothing left open, {desk.readyWorth}</em></h2>
            <button class="btn btn-outline btn-sm" disabled={desk.taking} onclick={() => void desk.takeAll()}
              >{desk.ready.length === 1 ? 'Take it' : `Take all ${desk.ready.length}`} <KeyCap>T</KeyCap></button
            >
          </div>
          <ul>
            {#each desk.ready as one (one.number)}
              <li class="border-b border-hairline last:border-0">
                <a href={one.path} class="grid grid-cols-[20px_92px_1fr_auto] items-baseline gap-x-3 py-1.5 md:grid-cols-[20px_92px_1fr_1fr_130px_70px]">
                  <Mark outcome="clear" />
                  <span class="font-mono text-[12px]">{one.number}</span>
                  <span class="min-w-0 truncate">{one.buyer}, <span class="text-second">{one.words}</span></span>
                  <span class="min-w-0 truncate text-second max-md:hidden" title={one.says}>{one.says}</span>
                  <span class="text-right">{one.value === null ? '' : `${one.currency} ${fixed(one.value, 2)}`}</span>
                  <span class="text-second max-md:hidden">{one.channel}</span>
                </a>
              </li>
            {/each}
          </ul>
          <p class="pt-1 text-second">Orders are confirmed at once; who asks for a price gets a quote begun.</p>
        </section>
      {/if}
      {#if desk.took}<p class="pt-2" role="status">{desk.took}</p>{/if}
      <p class="py-4 text-second">
        Since yesterday {desk.view.cameSinceYesterday}
        {desk.view.cameSinceYesterday === 1 ? 'request' : 'requests'} came; {desk.view.turnedSinceYesterday}
        {desk.view.turnedSinceYesterday === 1 ? 'was' : 'were'} turned into quotes and orders{desk.view.throughSinceYesterday
          ? `, ${desk.view.throughSinceYesterday} of them by themselves`
          : ''}.
      </p>
    </section>
    <Day marks={desk.view.day} came={desk.view.came ?? []} />
  </div>
{/if}
