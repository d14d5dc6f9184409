<script lang="ts">
  import { formKeys } from '$lib/keys';
  import { plain } from '$lib/shared';
  import type { ListState } from './list.svelte';

  /** What can be done with the chosen rows. */
  let { list }: { list: ListState } = $props();
  let field = $state('');
  let value = $state('');
  let deed = $state('');
  let reason = $state('');
  const changeable = $derived(list.kind.fields.filter((f) => f.mayChange));
  const doing = $derived(list.kind.deeds.find((d) => d.name === deed) ?? list.kind.deeds[0]);

  async function run(event: SubmitEvent) {
    event.preventDefault();
    if (list.kind.mayChange) await list.setAll(field, value);
    else if (doing && (await list.doAll(doing.name, reason))) reason = '';
  }
</script>

<form class="flex flex-wrap items-center gap-3 border-t-2 border-ink py-2" onsubmit={run} {@attach formKeys}>
  <b>{plain(list.chosen)} chosen</b>
  {#if !list.all && list.picked.length < (list.total ?? 0)}
    <button type="button" class="underline" onclick={list.chooseAll}>all {plain(list.total ?? 0)} that {list.filter ? 'fit' : 'are here'}</button>
  {/if}
  {#if list.kind.mayChange}
    <label
      >set <select class="bg-transparent" bind:value={field} required>
        <option value=""></option>{#each changeable as f (f.name)}<option value={f.name}>{f.label}</option>{/each}</select
      ></label
    >
    <label>to <input class="border-b border-strong bg-transparent px-1" bind:value onkeydown={(e) => e.stopPropagation()} /></label>
    <button class="btn btn-outline btn-sm">Change all of them</button>
  {:else if doing}
    {#if list.kind.deeds.length > 1}
      <select class="bg-transparent" bind:value={deed} aria-label="what to do"
        >{#each list.kind.deeds as d (d.name)}<option value={d.name}>{d.words}</option>{/each}</select
      >
    {/if}
    {#if doing.withReason}
      <label
        >because <input
          class="w-64 border-b border-strong bg-transparent px-1"
          bind:value={reason}
          required
          maxlength="300"
          onkeydown={(e) => e.stopPropagation()}
        /></label
      >
    {/if}
    <button class="btn btn-outline btn-sm">{doing.words}</button>
  {/if}
  <button type="button" class="text-second underline" onclick={list.chooseNone}>choose none</button>
</form>
