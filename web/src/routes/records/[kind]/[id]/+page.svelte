<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, ask, Refusal, type Schemas } from '$lib/api';
  import { KeyCap, useKeys } from '$lib/keys';
  import { loadKinds } from '$lib/list';
  import { PaperText, RecordForm, SwitchOff } from '$lib/records';
  import { day, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';
  import { BuyerAnswers, ItemAnswers } from '$lib/answers';

  let kind = $state.raw<Schemas['KindView'] | null>(null);
  let record = $state.raw<Schemas['RecordView'] | null>(null);
  let draft = $state.raw<Record<string, string>>({});
  let refused = $state.raw<Record<string, string>>({});
  let problem = $state('');
  let off = $state<SwitchOff>();
  /** What somebody else has to be asked about before it is kept, and the words for it. */
  let first = $state.raw<{ values: Record<string, string>; words: string } | null>(null);
  let asking = $state<Words>();
  const name = $derived(page.params.kind ?? '');
  const isNew = $derived(page.params.id === 'new');
  const id = $derived(Number(page.params.id));
  const path = $derived({ kind: name, id });

  // Meets the server, for each record anew.
  $effect(() => {
    const [of, which, fresh] = [name, id, isNew];
    [first, record, draft, refused, problem] = [null, null, Object.fromEntries(page.url.searchParams), {}, ''];
    let current = true;
    Promise.all([loadKinds(), fresh ? null : ask(api.GET('/api/records/{kind}/{id}', { params: { path: { kind: of, id: which } } }))]).then(
      ([kinds, found]) => current && ([kind, record] = [kinds.find((k) => k.name === of) ?? null, found]),
      (reason: unknown) => current && (problem = reason instanceof Error ? reason.message : 'It could not be opened.'),
    );
    return () => (current = false);
  });

  function refuse(reason: unknown) {
    if (reason instanceof Refusal && reason.code === 'record_field' && Array.isArray(reason.facts))
      refused = Object.fromEntries((reason.facts as { field: string; words: string }[]).map((f) => [f.field, f.words]));
    else if (reason instanceof Refusal && reason.field) refused = { [reason.field]: reason.message };
    else problem = reason instanceof Error ? reason.message : 'It was not kept.';
  }

  // What is beyond one's own authority is kept here until somebody was asked, or it is let go.
  function takeFirst(reason: unknown, values: Record<string, string>) {
    if (!(reason instanceof Refusal) || reason.code !== 'asks_first') return false;
    first = { values, words: reason.message };
    return true;
  }

  async function askFirst(why: string, urgent: boolean) {
    if (!first) return;
    const body = { values: first.values, why, urgent, id: isNew ? null : id };
    const made = await ask(api.POST('/api/records/{kind}/ask', { params: { path: { kind: name } }, body }));
    await goto(`/asks/${made.id}`);
  }

  async function set(field: string, value: string) {
    [refused, problem, first] = [{}, '', null];
    if (isNew) {
      draft = { ...draft, [field]: value };
      return;
    }
    if (!record) return;
    try {
      record = await ask(
        api.PUT('/api/records/{kind}/{id}', { params: { path, header: { 'If-Match': `"${record.version}"` } }, body: { values: { [field]: value } } }),
      );
    } catch (reason) {
      if (!takeFirst(reason, { [field]: value })) refuse(reason);
      // The form shows what is kept.
      record = await ask(api.GET('/api/records/{kind}/{id}', { params: { path } })).catch(() => record);
    }
  }

  async function make() {
    [refused, problem] = [{}, ''];
    try {
      const made = await ask(api.POST('/api/records/{kind}', { params: { path: { kind: name } }, body: { values: draft } }));
      await goto(`/records/${name}/${made.id}`);
    } catch (reason) {
      if (!takeFirst(reason, draft)) refuse(reason);
    }
  }

  async function turn(on: boolean, why: string | null, values: Record<string, string> = {}) {
    if (record)
      record = await ask(
        api.POST('/api/records/{kind}/{id}/switch', { params: { path, header: { 'If-Match': `"${record.version}"` } }, body: { on, why, values } }),
      );
  }

  const title = $derived(isNew ? `New ${kind?.one ?? ''}` : (record?.calls ?? ''));
  useKeys(() => (isNew && kind?.mayChange ? [{ key: 'm', words: `make the ${kind.one}`, run: () => void make() }] : []));
</script>

<svelte:head><title>{title} · Solvenda</title></svelte:head>

<div class="px-5 pt-3 pb-8">
  <Problem words={problem} onclose={() => (problem = '')} />
  {#if first}
    <p role="alert" class="mb-2 border-l-[3px] border-stop bg-sheet px-3 py-2">
      {first.words}
      <button class="btn ml-3 btn-primary btn-sm" onclick={() => asking?.open()}>Ask…</button>
      <button class="ml-2 text-second underline" onclick={() => (first = null)}>let it be</button>
    </p>
  {/if}
  {#if kind && (isNew || record)}
    <p class="text-second"><a class="underline" href="/records/{name}">{kind.title}</a></p>
    <div class="flex flex-wrap items-baseline gap-4 pb-3">
      <h1 class="font-serif text-[25px] leading-tight">
        {title}
        {#if record && !record.active}<em class="text-second">switched off</em>{/if}
        {#if record?.values.words}<em class="text-second">{record.values.words}</em>{/if}
      </h1>
      <span class="ml-auto flex gap-3">
        {#if isNew && kind.mayChange}
          <button class="btn btn-primary btn-sm" onclick={make}>Make it <KeyCap>M</KeyCap></button>
        {:else if record && kind.mayChange}
          {#if record.active}<button class="btn btn-outline btn-sm" onclick={() => off?.open()}>Switch off…</button>
          {:else}<button class="btn btn-outline btn-sm" onclick={() => turn(true, null).catch(refuse)}>Switch on again</button>{/if}
        {/if}
      </span>
    </div>
    <div class="grid gap-8 {isNew && name !== 'paper-texts' ? 'max-w-[760px]' : 'lg:grid-cols-[minmax(380px,5fr)_7fr]'}">
      <section class="self-start border border-hairline bg-sheet px-4 py-2 {isNew ? '' : 'max-lg:order-last'}" aria-label="what is kept">
        <RecordForm fields={kind.fields} values={isNew ? draft : (record?.values ?? {})} {refused} onset={set} />
        {#if isNew}<p class="py-2 text-second">
            {kind.fields
              .filter((f) => f.required)
              .map((f) => f.label)
              .join(', ')}: needed.
          </p>{/if}
      </section>
      {#if name === 'paper-texts' && isNew}<PaperText values={draft} />{/if}
      {#if record}
        <div class="grid content-start gap-6">
          {#if name === 'paper-texts' && kind.mayChange}<PaperText values={record.values} />{/if}
          {#if name === 'buyers'}<BuyerAnswers id={record.id} code={record.values.code ?? ''} />{:else if name === 'items'}<ItemAnswers
              id={record.id}
              code={record.values.code ?? ''}
              mayChange={kind.mayChange}
            />{/if}
          <section aria-label="history">
            <h2 class="border-b border-strong pb-1 font-serif text-[17px]">What was changed</h2>
            <ul>
              {#each record.history as change, i (i)}
                <li class="flex flex-wrap gap-x-3 border-b border-hairline py-1">
                  <span class="w-16 shrink-0 text-second">{day(change.at)}</span><span class="text-second">{change.who}</span>
                  <span>{change.words}</span>
                  {#if change.before !== null}<span class="text-third line-through">{change.before || 'nothing'}</span>{/if}
                  {#if change.after !== null}<span>{change.after || 'nothing'}</span>{/if}
                  {#if change.why}<em class="font-serif">“{change.why}”</em>{/if}
                </li>
              {:else}
                <li class="py-1 text-second">Nothing since it came into the house.</li>
              {/each}
            </ul>
          </section>
        </div>
      {/if}
    </div>
  {/if}
</div>

<Words
  bind:this={asking}
  title="Ask first"
  says="{first?.words ?? ''} It is kept as you typed it once it is granted."
  label="why?"
  tick="the answer is wanted today"
  button="Ask"
  take={askFirst}
/>
{#if kind && record}<SwitchOff bind:this={off} {kind} {record} take={(why, values) => turn(false, why, values)} />{/if}
