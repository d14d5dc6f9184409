<script lang="ts">
  import { useKeys } from '$lib/keys';
  import type { ListState } from './list.svelte';

  interface Props {
    list: ListState;
    /** How a condition of this list looks. */
    example: string;
    /** What the open ones are called, where the others are not shown by themselves: "that wait". */
    open?: string;
  }
  let { list, example, open }: Props = $props();
  let box = $state<HTMLInputElement>();
  let choosing = $state(false);
  let saving = $state(false);
  let viewName = $state('');
  let viewForAll = $state(false);

  async function save(event: SubmitEvent) {
    event.preventDefault();
    if (await list.saveView(viewName, viewForAll)) [saving, viewName] = [false, ''];
  }

  useKeys(() => [
    { key: 'f', words: 'filter', run: () => box?.focus() },
    { key: 'c', words: 'columns', run: () => (choosing = !choosing) },
    ...(list.mayChoose ? [{ key: 'a', words: 'choose all that fit', run: list.chooseAll }] : []),
  ]);
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1 pb-2">
  <span class="text-second">show</span>
  {#if open}
    <button
      class="rounded-full border border-strong px-3 py-0.5 {list.everything ? '' : 'bg-sheet'}"
      aria-pressed={!list.everything}
      onclick={list.toggleEverything}>{open}</button
    >
  {/if}
  <input
    bind:this={box}
    class="w-[min(420px,80vw)] border-b border-hairline bg-transparent px-1 py-0.5"
    placeholder="words, or a field and a value: {example}"
    value={list.filter}
    aria-label="filter"
    oninput={(e) => list.type(e.currentTarget.value)}
    onkeydown={(e) => {
      e.stopPropagation();
      if (e.key === 'Escape' || e.key === 'Enter') e.currentTarget.blur();
    }}
  />
  <button class="underline decoration-strong" aria-expanded={choosing} onclick={() => (choosing = !choosing)}>columns</button>
  {#each list.views as view (view.id)}
    <span class="rounded-full border border-strong px-3 py-0.5 {list.asked === view.filter && list.sort === view.sort ? 'bg-sheet' : ''}">
      <button onclick={() => list.use(view)}>{view.name}{view.mine ? '' : ', for all'}</button>
      {#if view.mayChange}<button class="ml-1 text-third" aria-label="take the view {view.name} away" onclick={() => list.dropView(view.id)}>×</button>{/if}
    </span>
  {/each}
  <button class="underline decoration-strong" aria-expanded={saving} onclick={() => (saving = !saving)}>keep this view…</button>
  {#if list.kind.fields.some((f) => f.name === 'pile')}<a class="underline decoration-strong" href="/piles">piles</a>{/if}
  <span class="ml-auto max-md:ml-0"
    >export <a class="underline" href={list.exportPath('csv')} download>CSV</a> <a class="underline" href={list.exportPath('xlsx')} download>XLSX</a></span
  >
</div>
{#if saving}
  <form class="flex flex-wrap items-center gap-3 border-t border-hairline py-2" onsubmit={save}>
    <label
      >as <input
        class="border-b border-strong bg-transparent px-1"
        bind:value={viewName}
        required
        maxlength="60"
        onkeydown={(e) => e.stopPropagation()}
      /></label
    >
    {#if list.kind.mayShare}<label class="flex items-center gap-1.5"><input type="checkbox" bind:checked={viewForAll} />for all</label>{/if}
    <button class="btn btn-outline btn-sm">Keep it</button>
  </form>
{/if}
{#if choosing}
  <fieldset class="flex flex-wrap gap-x-4 gap-y-1 border-t border-hairline py-2">
    <legend class="sr-only">columns</legend>
    {#each list.kind.fields.filter((f) => !f.onlyFilter) as field (field.name)}
      <label class="flex items-center gap-1.5"
        ><input type="checkbox" checked={list.columns.includes(field.name)} onchange={() => list.toggleColumn(field.name)} />{field.label}</label
      >
    {/each}
  </fieldset>
{/if}
