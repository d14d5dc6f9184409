<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { formKeys } from '$lib/keys';
  import { DayField, plain } from '$lib/shared';
  import type { ListState } from './list.svelte';

  /** What can be done with the chosen rows. */
  let { list }: { list: ListState } = $props();
  let field = $state('');
  let value = $state('');
  let deed = $state('');
  let given = $state('');
  let piling = $state(false);
  let piles = $state.raw<readonly Schemas['PileView'][]>([]);
  let pile = $state('');
  let name = $state('');
  let shared = $state(false);
  const changeable = $derived(list.kind.fields.filter((f) => f.mayChange));
  const doing = $derived(list.kind.deeds.find((d) => d.name === deed) ?? list.kind.deeds[0]);
  const pileable = $derived(list.kind.fields.some((f) => f.name === 'pile'));

  async function run(event: SubmitEvent) {
    event.preventDefault();
    if (piling) {
      if (await list.putOnPile(pile || null, name.trim(), shared)) piling = false;
    } else if (list.kind.mayChange) await list.setAll(field, value);
    else if (doing && (await list.doAll(doing.name, given))) given = '';
  }

  function putOn() {
    [piling, name] = [true, ''];
    // Without those that are there a new one can be made all the same.
    void ask(api.GET('/api/piles')).then(
      (found) => (piles = found),
      () => undefined,
    );
  }
</script>

<form class="flex flex-wrap items-center gap-3 border-t-2 border-ink py-2" onsubmit={run} {@attach formKeys}>
  <b>{plain(list.chosen)} chosen</b>
  {#if !list.all && list.picked.length < (list.total ?? 0)}
    <button type="button" class="underline" onclick={list.chooseAll}>all {plain(list.total ?? 0)} that {list.filter ? 'fit' : 'are here'}</button>
  {/if}
  {#if piling}
    <label
      >on the pile <select class="bg-transparent" bind:value={pile}
        ><option value="">a new one…</option>{#each piles as p (p.key)}<option value={p.key}>{p.name}{p.mine ? '' : `, ${p.owner}’s`}</option>{/each}</select
      ></label
    >
    {#if !pile}
      <label
        >called <input
          class="w-48 border-b border-strong bg-transparent px-1"
          bind:value={name}
          required
          maxlength="60"
          {@attach (input: HTMLInputElement) => input.focus()}
          onkeydown={(e) => e.stopPropagation()}
        /></label
      >
      <label class="flex items-center gap-1"><input type="checkbox" bind:checked={shared} /> for everybody</label>
    {/if}
    <button class="btn btn-outline btn-sm">Put them there</button>
    <button type="button" class="text-second underline" onclick={() => (piling = false)}>not there</button>
  {:else if list.kind.mayChange}
    <label
      >set <select class="bg-transparent" bind:value={field} required>
        <option value=""></option>{#each changeable as f (f.name)}<option value={f.name}>{f.label}</option>{/each}</select
      ></label
    >
    <label>to <input class="border-b border-strong bg-transparent px-1" bind:value onkeydown={(e) => e.stopPropagation()} /></label>
    <button class="btn btn-outline btn-sm">Change all of them</button>
  {:else if doing}
    {#if list.kind.deeds.length > 1}
      <select class="bg-transparent" bind:value={deed} onchange={() => (given = '')} aria-label="what to do"
        >{#each list.kind.deeds as d (d.name)}<option value={d.name}>{d.words}</option>{/each}</select
      >
    {/if}
    {#if doing.takes === 'reason'}
      <label
        >because <input
          class="w-64 border-b border-strong bg-transparent px-1"
          bind:value={given}
          required
          maxlength="300"
          onkeydown={(e) => e.stopPropagation()}
        /></label
      >
    {:else if doing.takes === 'day'}
      <span>to <DayField bind:value={given} label="the day" /></span>
    {/if}
    <button class="btn btn-outline btn-sm">{doing.words}</button>
  {/if}
  {#if list.printPath && !piling}<a class="underline" href={list.printPath} target="_blank" rel="noopener">print</a>{/if}
  {#if pileable && !piling}
    {#if list.pile}<button type="button" class="underline" onclick={() => void list.takeOffPile()}>off the pile</button>{/if}
    <button type="button" class="underline" onclick={putOn}>put on a pile…</button>
  {/if}
  <button type="button" class="text-second underline" onclick={list.chooseNone}>choose none</button>
</form>
