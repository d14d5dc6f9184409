<script lang="ts">
  import '../app.css';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { Finder } from '$lib/finder';
  import { KeyHelp, provideKeys, useKeys } from '$lib/keys';
  import { loadKinds } from '$lib/list';
  import { providePulse } from '$lib/pulse';
  import { provideNotices } from '$lib/notices';
  import { provideSession } from '$lib/session';
  import { roomsFor } from '$lib/setup';
  import { Problem } from '$lib/shared';

  let { children } = $props();
  const session = provideSession();
  const keys = provideKeys();
  const pulse = providePulse();
  const notices = provideNotices();
  let ready = $state(false);
  let problem = $state('');
  let finder = $state<Finder>();
  let help = $state<KeyHelp>();

  // The buyer's page and the doors need nobody signed in, and have no places.
  const bare = $derived(/^\/(offer|ask|step-in|first|welcome)(\/|$)/.test(page.url.pathname));
  const places = $derived([
    { path: '/', name: 'Desk' },
    { path: '/requests', name: 'Requests' },
    { path: '/quotes', name: 'Quotes' },
    { path: '/orders', name: 'Orders' },
    { path: '/records/buyers', name: 'Buyers' },
    { path: '/records/items', name: 'Items' },
    { path: '/prices', name: 'Prices' },
    ...(session.person?.ships ? [{ path: '/goods', name: 'Goods' }] : []),
    ...(session.person?.seesLedger || session.person?.bills ? [{ path: '/ledger', name: 'Ledger' }] : []),
    ...(session.person?.plans ? [{ path: '/planning', name: 'Planning' }] : []),
    ...(session.person?.seesCredit ? [{ path: '/credit', name: 'Credit' }] : []),
    ...(session.person?.seesSetup ? [{ path: '/setup', name: 'Setup' }] : []),
    ...(session.view?.demo ? [{ path: '/post', name: 'Post room' }] : []),
  ]);
  const here = (path: string) => (path === '/' ? page.url.pathname === '/' : page.url.pathname.startsWith(path));

  onMount(async () => {
    session.theme = localStorage.getItem('theme') === 'night' ? 'night' : 'paper';
    const density = localStorage.getItem('density');
    session.density = density === 'close' || density === 'roomy' ? density : 'usual';
    try {
      await session.load();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'Solvenda does not answer.';
    }
    ready = true;
    if (!session.person && !bare) await goto('/step-in');
  });

  // Meets the server: what others do shows on the open page by itself.
  $effect(() => (session.person ? pulse.start() : undefined));

  // Meets the server: what one is told is counted beside one's name.
  $effect(() => {
    if (!session.person?.id) return;
    return notices.hear();
  });

  // Meets the document: the theme stands on its root.
  $effect(() => {
    document.documentElement.dataset.theme = session.theme;
    document.documentElement.dataset.density = session.density;
  });

  function turn() {
    session.theme = session.theme === 'paper' ? 'night' : 'paper';
    localStorage.setItem('theme', session.theme);
  }

  // Every list there is can be gone to by its name, also those that have no place of their own.
  let lists = $state.raw<{ path: string; name: string }[]>([]);
  $effect(() => {
    if (!session.person) return;
    loadKinds(true).then(
      (kinds) => (lists = kinds.filter((k) => k.calls).map((k) => ({ path: `/records/${k.name}`, name: k.title }))),
      () => (lists = []),
    );
  });

  const actions = $derived([
    ...places.map((p) => ({ words: `go to ${p.name}`, run: () => void goto(p.path) })),
    ...lists.filter((l) => places.every((p) => p.path !== l.path)).map((l) => ({ words: `go to ${l.name}`, quiet: true, run: () => void goto(l.path) })),
    ...(session.person?.seesSetup ? [{ words: 'go to Asks: who asked, who decided', run: () => void goto('/asks') }] : []),
    ...(session.person?.mayWrite
      ? [
          { words: 'take in a file', quiet: true, run: () => void goto('/requests?take') },
          { words: 'on the phone: type what they say', quiet: true, run: () => void goto('/phone') },
          { words: 'photo order from the road', quiet: true, run: () => void goto('/field') },
          { words: 'import items', quiet: true, run: () => void goto('/records/items/import') },
          { words: 'import prices', quiet: true, run: () => void goto('/records/prices/import') },
          { words: 'not received: what we sent and they do not have', quiet: true, run: () => void goto('/missing') },
        ]
      : []),
    ...(session.person?.seesSetup ? roomsFor(session.person.runsHouse) : []).map((r) => ({
      words: `set ${r.name}`,
      quiet: true,
      run: () => void goto(r.path),
    })),
    { words: 'what I was told, my settings', run: () => void goto('/own') },
    { words: session.theme === 'paper' ? 'night shift: dark' : 'day shift: light', run: turn },
    { words: session.view?.demo ? 'step in as somebody else' : 'sign out', run: leave },
  ]);

  async function leave() {
    if (!session.view?.demo) await session.signOut();
    await goto('/step-in');
  }

  useKeys(() =>
    bare
      ? []
      : [
          { key: '/', words: 'find or do', run: () => finder?.open() },
          { key: 'Ctrl+k', words: 'find or do', run: () => finder?.open() },
          { key: '?', words: 'these keys', run: () => help?.open() },
        ],
  );
</script>

<svelte:window onkeydown={keys.handle} />

{#if ready}
  {#if bare || !session.person}
    {#if problem}<div class="p-6"><Problem words={problem} /></div>{/if}
    {@render children()}
  {:else}
    <div class="flex h-dvh flex-col">
      <header class="flex h-[38px] shrink-0 items-center gap-5 border-b border-strong px-5">
        <a href="/" class="font-serif text-[19px] italic">Solvenda</a>
        <nav class="flex h-full items-center gap-5 max-sm:gap-3 max-sm:overflow-x-auto" aria-label="places">
          {#each places as place (place.path)}
            <a
              href={place.path}
              class="flex h-full items-center whitespace-nowrap {here(place.path)
                ? 'border-b-2 border-ink font-semibold text-ink'
                : 'border-b-2 border-transparent text-second'}"
              aria-current={here(place.path) ? 'page' : undefined}>{place.name}</a
            >
          {/each}
        </nav>
        <div class="ml-auto flex items-center gap-6">
          <div class="max-md:hidden"><Finder bind:this={finder} {actions} mayWrite={session.person.mayWrite} /></div>
          <a class="whitespace-nowrap text-second" href="/own" aria-label={notices.unseen ? `${notices.unseen} new for you` : 'yours'}
            >{#if notices.unseen}<span class="bg-marker px-1 text-ink">{notices.unseen} new</span>{:else}yours{/if}</a
          >
          <button
            class="whitespace-nowrap"
            onclick={leave}
            aria-label="{session.person.name}, {session.view?.demo ? 'step in as somebody else' : 'sign out'}"
            title={session.view?.demo ? 'step in as somebody else' : 'sign out'}
            ><span class="max-md:hidden">{session.person.name}</span><span class="md:hidden" aria-hidden="true"
              >{session.person.name
                .split(' ')
                .map((n) => n[0])
                .join('')}</span
            ></button
          >
        </div>
      </header>
      <main class="flex min-h-0 flex-1 flex-col overflow-y-auto">{@render children()}</main>
    </div>
    <KeyHelp bind:this={help} />
  {/if}
{/if}
