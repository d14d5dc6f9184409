<script lang="ts">
  import type { Snippet } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { plain, Problem } from '$lib/shared';
  import FilterBar from './FilterBar.svelte';
  import { ListState, loadKinds, type Field, type Kind, type Row } from './list.svelte';
  import ListTable from './ListTable.svelte';
  import Many from './Many.svelte';
  import UnderWay from './UnderWay.svelte';

  interface Props {
    /** Which list, as in addresses. */
    name: string;
    path: (row: Row) => string;
    /** What will come here, and how to begin. */
    empty: (kind: Kind) => string;
    /** How a condition of this list looks. */
    example: string;
    /** The question that the list answers while only the open ones are shown, and when all are. */
    open?: string;
    all?: string;
    cell?: Snippet<[Field, string, Row]>;
    narrow?: readonly string[];
    /** Where a new one is begun, for those who may. */
    begin?: string;
    /** What else can be begun here. */
    actions?: Snippet<[Kind]>;
  }
  let { name, path, empty, example, open, all, cell, narrow, begin, actions }: Props = $props();
  let list = $state.raw<ListState | null>(null);
  let problem = $state('');

  // Meets the server: another kind, another list; an answer for the one before is dropped.
  $effect(() => {
    const wanted = name;
    const filter = page.url.searchParams.get('filter') ?? '';
    let current = true;
    [list, problem] = [null, ''];
    loadKinds(true).then(
      (kinds) => {
        if (!current) return;
        const kind = kinds.find((k) => k.name === wanted);
        if (!kind) problem = 'There is no such list.';
        else {
          list = new ListState(kind, filter);
          void list.restart();
          void list.loadViews();
          if (kind.deeds.length) void list.findRound();
        }
      },
      (reason: unknown) => current && (problem = reason instanceof Error ? reason.message : 'The list could not be loaded.'),
    );
    return () => (current = false);
  });

  // Documents have numbers, records are known by their kind.
  usePulse(
    (subject) => (open ? /^[A-Z]\d/.test(subject) : subject.startsWith(`${name}:`)),
    () => void list?.refresh(),
    5_000,
  );

  useKeys(() => (begin && list?.kind.mayChange ? [{ key: 'n', words: `new ${list.kind.one}`, run: () => void goto(begin) }] : []));

  const sums = $derived(list?.fields.flatMap((f, c) => (f.type === 'money' ? (list?.foot[c] ?? '').split('; ').filter(Boolean) : [])) ?? []);
</script>

<svelte:head><title>{list?.kind.title ?? 'List'} · Solvenda</title></svelte:head>

<div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
  <Problem words={problem || (list?.problem ?? '')} onclose={() => (problem = '')} />
  {#if list}
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-2">
      <h1 class="font-serif text-[25px] leading-tight">
        {list.kind.title}
        {#if open}<em class="text-second">{list.everything ? all : open}</em>{/if}
      </h1>
      <span class="text-second" aria-live="polite">{list.total === null ? '' : plain(list.total)}{list.done ? ` · ${list.done}` : ''}</span>
      {#if actions}<span class="ml-auto flex flex-wrap items-baseline gap-4">{@render actions(list.kind)}</span>{/if}
    </div>
    <FilterBar {list} {example} {open} />
    <UnderWay {list} />
    <ListTable {list} {path} empty={empty(list.kind)} {cell} {narrow} />
    {#if sums.length}
      <div class="flex flex-wrap items-baseline justify-end gap-x-5 border-t border-ink py-2 font-semibold" aria-label="sums">
        {#each sums as sum, i (i)}<span>{sum}</span>{/each}
      </div>
    {/if}
    {#if list.chosen}<Many {list} />{/if}
  {/if}
</div>
