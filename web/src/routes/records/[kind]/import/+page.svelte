<script lang="ts">
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api';
  import { loadKinds } from '$lib/list';
  import { plain, Problem } from '$lib/shared';

  let kind = $state.raw<Schemas['KindView'] | null>(null);
  let view = $state.raw<Schemas['ImportView'] | null>(null);
  let problem = $state('');
  const name = $derived(page.params.kind ?? '');

  // Meets the server: the fields of the kind.
  $effect(() => {
    const of = name;
    loadKinds().then(
      (kinds) => (kind = kinds.find((k) => k.name === of) ?? null),
      (reason: unknown) => (problem = reason instanceof Error ? reason.message : 'It could not be opened.'),
    );
  });

  const busy = $derived(view?.state === 'looking' || view?.state === 'taking');

  // Meets the server: while it works, how far it is.
  $effect(() => {
    if (!busy || !view) return;
    const id = view.id;
    const timer = setInterval(() => {
      ask(api.GET('/api/imports/{id}', { params: { path: { id } } })).then(
        (found) => (view = found),
        (reason: unknown) => (problem = reason instanceof Error ? reason.message : 'The server does not answer.'),
      );
    }, 400);
    return () => clearInterval(timer);
  });

  async function run(act: () => Promise<Schemas['ImportView']>) {
    problem = '';
    try {
      view = await act();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'Nothing was changed.';
    }
  }

  async function bring(file: File | undefined) {
    if (!file) return;
    await run(async () => {
      const answer = await fetch(`/api/records/${name}/imports?filename=${encodeURIComponent(file.name)}`, { method: 'POST', body: file });
      if (answer.ok) return (await answer.json()) as Schemas['ImportView'];
      throw new Error(((await answer.json()) as { title?: string }).title ?? 'The file was not taken.');
    });
  }

  const say = (head: string, field: string) =>
    run(() => ask(api.POST('/api/imports/{id}/columns', { params: { path: { id: view!.id } }, body: { columns: { [head]: field } } })));
  const take = () => run(() => ask(api.POST('/api/imports/{id}/take', { params: { path: { id: view!.id } } })));
</script>

<svelte:head><title>Import {kind?.title ?? ''} · Solvenda</title></svelte:head>

<div class="max-w-[980px] px-5 pt-3 pb-8">
  <Problem words={problem} onclose={() => (problem = '')} />
  {#if kind}
    <p class="text-second"><a class="underline" href="/records/{name}">{kind.title}</a></p>
    <h1 class="pb-3 font-serif text-[25px] leading-tight">Import <em class="text-second">{kind.title.toLowerCase()} from CSV or XLSX</em></h1>
    <label class="block border border-dashed border-strong bg-sheet px-4 py-5">
      <span class="text-second">The first row names the columns. It is looked at first; nothing changes before you say so.</span><br />
      <input
        class="mt-2"
        type="file"
        accept=".csv,.txt,.tsv,.xlsx"
        disabled={busy}
        onchange={(e) => {
          void bring(e.currentTarget.files?.[0]);
          // A mended file of the same name is a choice of its own.
          e.currentTarget.value = '';
        }}
      />
    </label>
    {#if view}
      <section class="mt-4 border border-hairline bg-sheet px-4 py-3" aria-live="polite" aria-label="the import">
        <p>
          <b>{view.fileName}</b>
          {#if view.state === 'looking'}is being looked at, {plain(view.done)} rows so far.
          {:else if view.state === 'taking'}is being taken, {plain(view.done)} rows so far.
          {:else if view.state === 'taken'}is taken: {plain(view.new)} new, {plain(view.changed)} changed, {plain(view.same)} as they were.
          {:else if view.state === 'failed'}<span class="text-stop">{view.problem}</span>
          {:else}has {plain(view.total)} rows: <b>{plain(view.new)}</b> new, <b>{plain(view.changed)}</b> changed, {plain(view.same)} the same{view.refusedCount
              ? `, and ${plain(view.refusedCount)} cells that cannot be taken.`
              : '.'}{/if}
        </p>
        {#if busy}<progress class="mt-2 h-1 w-full" aria-label="progress"></progress>{/if}
        {#if view.head.length && (view.state === 'looked' || view.state === 'failed')}
          <h2 class="mt-3 font-semibold">Columns</h2>
          <ul class="grid gap-x-8 sm:grid-cols-2">
            {#each view.head as head (head)}
              <li class="flex items-baseline gap-3 border-b border-hairline py-1">
                <span class="min-w-0 flex-1 truncate">{head}</span>
                <select
                  class="w-48 bg-transparent {view.columns[head] ? '' : 'text-second'}"
                  aria-label="field of {head}"
                  value={view.columns[head] ?? ''}
                  onchange={(e) => void say(head, e.currentTarget.value)}
                >
                  <option value="">left out</option>
                  {#each kind.fields as f (f.name)}<option value={f.name}>{f.label}</option>{/each}
                </select>
              </li>
            {/each}
          </ul>
        {/if}
        {#if view.refusedCount}
          <h2 class="mt-4 font-semibold">Refused <a class="font-normal underline" href="/api/imports/{view.id}/refused" download>all of them as CSV</a></h2>
          <ul class="max-h-96 overflow-auto">
            {#each view.refused as r, i (i)}
              <li class="grid grid-cols-[80px_140px_1fr_2fr] gap-3 border-b border-hairline py-0.5">
                <span class="text-second">line {r.line}</span><span class="truncate">{r.column}</span><span class="truncate font-mono text-[12px]"
                  >{r.value}</span
                ><span class="text-stop">{r.why}</span>
              </li>
            {/each}
          </ul>
          <p class="mt-2 text-second">Mend the file and bring it again: it is taken whole or not at all.</p>
        {:else if view.state === 'looked'}
          <button class="btn mt-4 btn-primary btn-sm" onclick={take} disabled={view.new + view.changed === 0}>Take {plain(view.new + view.changed)} rows</button
          >
        {/if}
      </section>
    {/if}
  {/if}
</div>
