<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api';
  import { KeyCap, useKeys } from '$lib/keys';
  import { loadKinds, RecordList, RecordListState } from '$lib/records';
  import { plain, Problem } from '$lib/shared';

  let list = $state.raw<RecordListState | null>(null);
  let problem = $state('');
  let done = $state('');
  let choosing = $state(false);
  let filterBox = $state<HTMLInputElement>();
  let views = $state.raw<Schemas['SavedView'][]>([]);
  let viewName = $state('');
  let viewForAll = $state(false);
  let saving = $state(false);
  let bulkField = $state('');
  let bulkValue = $state('');
  const kind = $derived(page.params.kind ?? '');

  // Meets the server: another kind, another list.
  $effect(() => {
    const name = kind;
    const filter = page.url.searchParams.get('filter') ?? '';
    list = null;
    loadKinds(true).then(
      (kinds) => {
        const of = kinds.find((k) => k.name === name);
        if (!of) problem = 'There is no such list.';
        else {
          list = new RecordListState(of, filter);
          void list.restart();
          ask(api.GET('/api/views/{kind}', { params: { path: { kind: name } } })).then(
            (found) => (views = found),
            (reason: unknown) => (problem = reason instanceof Error ? reason.message : 'The saved views could not be loaded.'),
          );
        }
      },
      (reason: unknown) => (problem = reason instanceof Error ? reason.message : 'The list could not be loaded.'),
    );
  });

  let timer = 0;
  function filtered(text: string) {
    if (!list) return;
    list.filter = text;
    clearTimeout(timer);
    timer = window.setTimeout(() => void list?.restart(), 200);
  }

  function column(name: string) {
    if (!list) return;
    list.columns = list.columns.includes(name) ? list.columns.filter((c) => c !== name) : [...list.columns, name];
    void list.restart();
  }

  function use(view: Schemas['SavedView']) {
    if (!list) return;
    [list.filter, list.sort, list.down] = [view.filter, view.sort, view.down];
    if (view.columns.length) list.columns = view.columns;
    void list.restart();
  }

  async function saveView(event: SubmitEvent) {
    event.preventDefault();
    if (!list) return;
    try {
      views = await ask(
        api.POST('/api/views/{kind}', {
          params: { path: { kind } },
          body: { name: viewName, forAll: viewForAll, filter: list.filter, columns: list.columns, sort: list.sort, down: list.down },
        }),
      );
      [saving, viewName, problem] = [false, '', ''];
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'The view was not kept.';
    }
  }

  async function dropView(id: number) {
    try {
      await ask(api.DELETE('/api/views/{kind}/{id}', { params: { path: { kind, id } } }));
      views = views.filter((v) => v.id !== id);
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'The view is still there.';
    }
  }

  async function bulk(event: SubmitEvent) {
    event.preventDefault();
    if (!list) return;
    try {
      const answer = await ask(
        api.POST('/api/records/{kind}/bulk', {
          params: { path: { kind } },
          body: list.all
            ? { filter: list.filter, count: list.total ?? 0, values: { [bulkField]: bulkValue } }
            : { ids: [...list.picked], count: list.picked.length, values: { [bulkField]: bulkValue } },
        }),
      );
      done = `${answer.changed} changed.`;
      problem = '';
      await list.restart();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'Nothing was changed.';
    }
  }

  const changeable = $derived(list?.kind.fields.filter((f: Schemas['RecordField']) => f.mayChange) ?? []);

  useKeys(() => [
    ...(list?.kind.mayChange ? [{ key: 'n', words: `new ${list.kind.one}`, run: () => void goto(`/records/${kind}/new`) }] : []),
    { key: 'f', words: 'filter', run: () => filterBox?.focus() },
    { key: 'c', words: 'columns', run: () => (choosing = !choosing) },
    ...(list?.kind.mayChange ? [{ key: 'a', words: 'choose all that fit', run: () => list?.chooseAll() }] : []),
  ]);
</script>

<svelte:head><title>{list?.kind.title ?? 'Records'} · Solvenda</title></svelte:head>

<div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
  <Problem words={problem || (list?.problem ?? '')} onclose={() => (problem = '')} />
  {#if list}
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-2">
      <h1 class="font-serif text-[25px] leading-tight">{list.kind.title}</h1>
      <span class="text-second" aria-live="polite">{list.total === null ? '' : plain(list.total)}{done ? ` · ${done}` : ''}</span>
      <span class="ml-auto flex flex-wrap items-baseline gap-4">
        {#if list.kind.mayChange}<a class="underline" href="/records/{kind}/import">import…</a>{/if}
        <span
          >export <a class="underline" href={list.exportPath('csv')} download>CSV</a>
          <a class="underline" href={list.exportPath('xlsx')} download>XLSX</a></span
        >
        {#if list.kind.mayChange}<a class="btn btn-primary btn-sm" href="/records/{kind}/new">New {list.kind.one} <KeyCap>N</KeyCap></a>{/if}
      </span>
    </div>
    <div class="flex flex-wrap items-center gap-3 pb-2">
      <span class="text-second">show</span>
      <input
        bind:this={filterBox}
        class="w-[min(460px,80vw)] border-b border-hairline bg-transparent px-1 py-0.5"
        placeholder="words, or a field and a value: {list.kind.name === 'items'
          ? 'family:rope weight>0.1'
          : list.kind.name === 'prices'
            ? 'item:BB2 price>5 to<2027-01-01'
            : 'active:no'}"
        value={list.filter}
        aria-label="filter"
        oninput={(e) => filtered(e.currentTarget.value)}
        onkeydown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape' || e.key === 'Enter') e.currentTarget.blur();
        }}
      />
      <button class="underline decoration-strong" aria-expanded={choosing} onclick={() => (choosing = !choosing)}>columns</button>
      {#each views as view (view.id)}
        <span class="rounded-full border border-strong px-3 py-0.5 {list.filter === view.filter && list.sort === view.sort ? 'bg-sheet' : ''}">
          <button onclick={() => use(view)}>{view.name}{view.mine ? '' : ', for all'}</button>
          {#if view.mayChange}<button class="ml-1 text-third" aria-label="take the view {view.name} away" onclick={() => dropView(view.id)}>×</button>{/if}
        </span>
      {/each}
      <button class="underline decoration-strong" aria-expanded={saving} onclick={() => (saving = !saving)}>keep this view…</button>
    </div>
    {#if saving}
      <form class="flex flex-wrap items-center gap-3 border-t border-hairline py-2" onsubmit={saveView}>
        <label
          >as <input
            class="border-b border-strong bg-transparent px-1"
            bind:value={viewName}
            required
            maxlength="60"
            onkeydown={(e) => e.stopPropagation()}
          /></label
        >
        {#if list.kind.mayChange}<label class="flex items-center gap-1.5"><input type="checkbox" bind:checked={viewForAll} />for all</label>{/if}
        <button class="btn btn-outline btn-sm">Keep it</button>
      </form>
    {/if}
    {#if choosing}
      <fieldset class="flex flex-wrap gap-x-4 gap-y-1 border-t border-hairline py-2">
        <legend class="sr-only">columns</legend>
        {#each list.kind.fields as field (field.name)}
          <label class="flex items-center gap-1.5"
            ><input type="checkbox" checked={list.columns.includes(field.name)} onchange={() => column(field.name)} />{field.label}</label
          >
        {/each}
      </fieldset>
    {/if}
    <RecordList {list} path={(id) => `/records/${kind}/${id}`} empty="There is no {list.kind.one} yet. Make one with N, or import a file." />
    {#if list.chosen}
      <form class="flex flex-wrap items-center gap-3 border-t-2 border-ink py-2" onsubmit={bulk}>
        <b>{plain(list.chosen)} chosen</b>
        {#if !list.all && list.picked.length < (list.total ?? 0)}
          <button type="button" class="underline" onclick={() => list?.chooseAll()}>all {plain(list.total ?? 0)} that {list.filter ? 'fit' : 'are here'}</button
          >
        {/if}
        <label
          >set <select class="bg-transparent" bind:value={bulkField} required>
            <option value=""></option>{#each changeable as f (f.name)}<option value={f.name}>{f.label}</option>{/each}</select
          ></label
        >
        <label>to <input class="border-b border-strong bg-transparent px-1" bind:value={bulkValue} onkeydown={(e) => e.stopPropagation()} /></label>
        <button class="btn btn-outline btn-sm">Change all of them</button>
        <button type="button" class="text-second underline" onclick={() => list?.chooseNone()}>choose none</button>
      </form>
    {/if}
  {/if}
</div>
