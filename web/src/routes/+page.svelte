<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap, useKeys } from '$lib/keys';
  import { useSession } from '$lib/session';
  import { fixed, Problem, since } from '$lib/shared';

  const session = useSession();
  let desk = $state.raw<Schemas['DeskView'] | null>(null);
  let problem = $state('');
  // Which one is chosen is remembered by what it is: the list moves by itself.
  let focused = $state<string | null>(null);
  let pointer: { x: number; y: number } | null = null;
  let list = $state<HTMLElement>();

  // Meets the server: at once, and then every few seconds, so that what comes in shows by itself.
  $effect(() => {
    if (!session.person) return;
    const load = () =>
      ask(api.GET('/api/desk')).then(
        (found) => ([desk, problem] = [found, '']),
        (reason: unknown) => (problem = reason instanceof Error ? reason.message : 'The desk could not be loaded.'),
      );
    void load();
    const timer = setInterval(load, 5000);
    return () => clearInterval(timer);
  });

  const groups = $derived(
    (['atOnce', 'today', 'whenThereIsTime'] as const)
      .map((urgency) => ({
        urgency,
        name: { atOnce: 'at once', today: 'today', whenThereIsTime: 'when there is time' }[urgency],
        items: (desk?.items ?? []).filter((i) => i.urgency === urgency),
      }))
      .filter((g) => g.items.length > 0),
  );
  const items = $derived(groups.flatMap((g) => g.items));
  const of = (item: Schemas['DeskItem']) => item.kind + item.number + item.path;
  const at = $derived(
    Math.max(
      0,
      items.findIndex((i) => of(i) === focused),
    ),
  );
  const hours = [8, 10, 12, 14, 16, 18];
  const top = (hour: number) => ((Math.min(Math.max(hour, 8), 18.5) - 8) / 10.5) * 100;
  const hourOf = (iso: string) => new Date(iso).getHours() + new Date(iso).getMinutes() / 60;
  const clock = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

  // Marks of the same hour stand below one another.
  const day = $derived.by(() => {
    let last = -10;
    return (desk?.day ?? []).map((mark) => {
      last = Math.max(top(hourOf(mark.at)), last + 8);
      return { ...mark, top: Math.min(last, 97) };
    });
  });
  const nowHour = $derived(desk ? hourOf(new Date().toISOString()) : 0);

  const count = $derived.by(() => {
    const names = ['Nothing needs you.', 'One thing needs you.', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve'];
    return items.length < 2 ? names[items.length] : `${names[items.length] ?? items.length} things need you.`;
  });
  const today = $derived(
    desk ? new Date(`${desk.today}T12:00:00`).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' }).replace(' ', ', ') : '',
  );

  function go(step: number) {
    const to = Math.min(Math.max(0, at + step), items.length - 1);
    const item = items[to];
    if (item) focused = of(item);
    list?.querySelectorAll('[data-item]')[to]?.scrollIntoView({ block: 'nearest' });
  }

  function open() {
    const item = items[at];
    if (item) void goto(item.path);
  }

  useKeys(() => [
    { key: 'j', words: 'next', run: () => go(1) },
    { key: 'k', words: 'before', run: () => go(-1) },
    { key: 'ArrowDown', words: 'next', run: () => go(1) },
    { key: 'ArrowUp', words: 'before', run: () => go(-1) },
    { key: 'Enter', words: 'open', run: open },
    { key: 'e', words: 'do the obvious', run: open },
  ]);
</script>

<svelte:head><title>Desk · Solvenda</title></svelte:head>

<Problem words={problem} />
{#if desk}
  <div class="grid flex-1 gap-7 px-5 pt-3 lg:grid-cols-[1fr_300px]">
    <section bind:this={list} aria-label="what needs you">
      <h1 class="font-serif text-[25px] leading-tight">{today}. <em class="text-second">{count}</em></h1>
      {#each groups as group (group.urgency)}
        <div class="mt-5 flex justify-between border-b border-strong pb-1 text-[12px] text-second">
          <h2>{group.name}</h2>
          <span>value</span>
        </div>
        <ul>
          {#each group.items as item (of(item))}
            {@const n = items.indexOf(item)}
            <li data-item class="border-b border-hairline {n === at ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''}">
              <a
                href={item.path}
                class="grid grid-cols-[1fr_auto] items-baseline gap-x-3 px-2 py-1.5 md:grid-cols-[92px_1fr_110px_130px_96px]"
                onfocus={() => (focused = of(item))}
                onpointermove={(e) => {
                  // A pointer that rests chooses nothing, though the list comes or moves under it.
                  if (pointer && (pointer.x !== e.clientX || pointer.y !== e.clientY)) focused = of(item);
                  pointer = { x: e.clientX, y: e.clientY };
                }}
              >
                <span class="font-mono text-[12px] max-md:col-span-2">{item.number}</span>
                <span class="min-w-0">
                  <span class="block font-serif text-[16px] leading-5 md:truncate">{item.buyer}</span>
                  <span class="block truncate text-second"
                    >{#if item.reason}<span class="needs text-ink">{item.reason}</span>&ensp;{/if}{item.rest}</span
                  >
                </span>
                <span class="text-second max-md:hidden">{item.what}<br />{since(item.since)}</span>
                <span class="text-right max-md:hidden">{item.value === null ? '–' : `${item.currency} ${fixed(item.value, 2)}`}</span>
                <span class="text-right"
                  >{#if n === at}<span class="inline-block rounded-[3px] bg-ink px-2.5 py-1 font-semibold text-sheet">{item.act} <KeyCap>E</KeyCap></span
                    >{:else}{item.act}{/if}</span
                >
              </a>
            </li>
          {/each}
        </ul>
      {:else}
        <p class="mt-6 text-second">What buyers send, what colleagues ask of you, and what is about to lapse appears here by itself, most urgent first.</p>
      {/each}
      <p class="py-4 text-second">
        Since yesterday {desk.cameSinceYesterday}
        {desk.cameSinceYesterday === 1 ? 'request' : 'requests'} came; {desk.turnedSinceYesterday}
        {desk.turnedSinceYesterday === 1 ? 'was' : 'were'} turned into quotes and orders.
      </p>
    </section>
    <section aria-label="the day" class="max-lg:hidden">
      <h2 class="font-serif text-[19px]">The day</h2>
      <div class="relative mt-4 h-[560px]">
        <div class="absolute top-0 bottom-0 left-11 w-px bg-strong"></div>
        {#each hours as hour (hour)}
          <span class="absolute -translate-y-1/2 text-[11.5px] text-third" style:top="{top(hour)}%">{String(hour).padStart(2, '0')}</span>
          <span class="absolute left-10 h-px w-2.5 bg-strong" style:top="{top(hour)}%"></span>
        {/each}
        {#if nowHour >= 8 && nowHour <= 18.5}<div
            class="absolute right-0 left-10 h-0.5 bg-ink"
            style:top="{top(nowHour)}%"
            role="img"
            aria-label="now"
          ></div>{/if}
        {#each day as mark, i (i)}
          <span class="absolute left-[40px] size-[9px] -translate-y-1/2 rounded-full border border-second bg-ground" style:top="{mark.top}%"></span>
          <p class="absolute right-0 left-16 -translate-y-1/2 leading-snug" style:top="{mark.top}%">
            {#if mark.path}<a href={mark.path} class="hover:underline">{clock(mark.at)} {mark.words}</a>{:else}{clock(mark.at)} {mark.words}{/if}
            <span class="text-second">{mark.rest}</span>
          </p>
        {/each}
      </div>
    </section>
  </div>
{/if}
