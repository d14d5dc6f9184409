<script lang="ts">
  import { KeyCap } from '$lib/keys';
  import { DayField } from '$lib/shared';
  import type { PoliciesState } from './policies.svelte';

  /** A policy as a sentence whose parts are changed where they stand. */
  let { state: all }: { state: PoliciesState } = $props();
  const draft = $derived(all.draft!);
  const choices = $derived(all.view!.choices);
  const policy = $derived(all.open);
  /** Else it is a check of the house's own: it stops, or says so. */
  const asks = $derived(draft.route !== 'stop' && draft.route !== 'notice');
  let timer: ReturnType<typeof setTimeout> | undefined;
  let more = $state(false);

  // Meets the server: whatever is written is tried a moment later.
  $effect(() => {
    void JSON.stringify(draft);
    clearTimeout(timer);
    timer = setTimeout(() => void all.tryIt(), 350);
    return () => clearTimeout(timer);
  });
  const inline = 'border-b border-ink bg-transparent font-serif text-[16px] font-medium';
  const toggle = (list: string[], code: string) => (list.includes(code) ? list.splice(list.indexOf(code), 1) : list.push(code));
</script>

<form
  class="border-l-[3px] border-ink bg-sheet px-4 py-3"
  aria-label={policy ? `policy ${policy.draft.code}` : 'a new policy'}
  onsubmit={(e) => {
    e.preventDefault();
    void all.save();
  }}
>
  <p class="font-serif text-[16px] leading-[2]">
    When
    {#if asks}
      <select class={inline} bind:value={draft.figure} aria-label="when">
        {#each choices.figures as f (f.code)}<option value={f.code}>{f.words}</option>{/each}
      </select>
    {/if}
    {#each draft.when as condition, i (i)}
      <span class="whitespace-nowrap"
        >{asks || i ? 'and' : ''}
        <select class={inline} bind:value={condition.figure} aria-label="condition {i + 1}">
          {#each choices.conditions as f (f.code)}<option value={f.code}>{f.words}</option>{/each}
        </select></span
      >
      is
      <select class={inline} bind:value={condition.over} aria-label="over or under">
        <option value={true}>over</option><option value={false}>under</option>
      </select>
      <input class="{inline} w-24 text-right" type="number" step="any" bind:value={condition.value} aria-label="value of condition {i + 1}" />
      <button type="button" class="text-[13px] text-second underline" onclick={() => all.without(i)}>without</button>
    {:else}{#if !asks}<button type="button" class="border-b border-dashed border-ink" onclick={() => all.and()}>what is so?</button>{/if}{/each}, {asks
      ? 'ask'
      : ''}
    <select class={inline} bind:value={draft.route} aria-label="whom">
      {#each choices.routes as r (r.code)}<option value={r.code}>{r.words}</option>{/each}
    </select>
    {#if draft.route === 'named'}
      <select class={inline} multiple size="3" bind:value={draft.named} aria-label="named">
        {#each choices.named as n (n.code)}<option value={n.code}>{n.words}</option>{/each}
      </select>
    {/if}
    {#if asks}
      within <input class="{inline} w-12 text-right" type="number" min="0" max="400" bind:value={draft.patienceHours} aria-label="working hours" /> working hours;
      then the stand-in, then a level up.
    {/if}
  </p>
  <div class="text-[12.5px]">
    <button type="button" class="text-second underline" onclick={() => (more = !more)}
      >for {draft.families.length || draft.groups.length || draft.channels.length || draft.hands.length
        ? 'some alone'
        : 'all families, buyers, channels and hands'}</button
    >
    {#if more}
      <div class="mt-2 grid gap-2 sm:grid-cols-2">
        {#each [{ label: 'families', list: draft.families, of: choices.families }, { label: 'groups of buyers', list: draft.groups, of: choices.groups }, { label: 'channels', list: draft.channels, of: choices.channels }, { label: 'typed by', list: draft.hands, of: choices.named }] as part (part.label)}
          <fieldset class="max-h-36 overflow-y-auto">
            <legend class="text-second">{part.label}{part.list.length ? '' : ': all'}</legend>
            {#each part.of as one (one.code)}
              <label class="flex min-h-7 items-center gap-2"
                ><input type="checkbox" checked={part.list.includes(one.code)} onchange={() => toggle(part.list, one.code)} /> {one.words}</label
              >
            {/each}
          </fieldset>
        {/each}
        <span>from <DayField bind:value={draft.from} label="holds from" required /></span>
        <span>to <DayField bind:value={() => draft.to ?? '', (v) => (draft.to = v || null)} label="holds to" /></span>
      </div>
    {/if}
  </div>
  {#if !policy}
    <label class="mt-2 flex items-center gap-2 text-second"
      >called <input
        class="border-b border-dashed border-ink bg-transparent font-mono text-[13px] text-ink"
        bind:value={draft.code}
        placeholder="low-margin"
        pattern="[a-z0-9][a-z0-9\-]+"
        required
        aria-label="called"
      /> by machines and in the history</label
    >
  {/if}
  {#if all.problem}<p role="alert" class="mt-2 text-stop">{all.problem}</p>{/if}
  {#if all.trial.problem}<p role="alert" class="mt-2 text-stop">{all.trial.problem}</p>{/if}
  <div class="mt-3 flex flex-wrap items-center gap-2">
    {#if all.changed}<button class="btn btn-primary btn-sm">{policy?.holds ? 'Let it hold like this' : 'Keep it as a draft'}</button>
    {:else if policy && !policy.holds}<button type="button" class="btn btn-primary btn-sm" onclick={() => void all.hold(policy, true)}>Let it hold</button>{/if}
    <button type="button" class="btn btn-outline btn-sm" onclick={() => all.and()}><KeyCap>+</KeyCap> and…</button>
    {#if policy?.holds && !all.changed}<button type="button" class="btn btn-outline btn-sm" onclick={() => void all.hold(policy, false)}>Switch it off</button
      >{/if}
    {#if policy && !policy.holds}<button type="button" class="btn btn-outline btn-sm" onclick={() => void all.drop(policy)}>Drop it</button>{/if}
    <button type="button" class="ml-auto underline" onclick={all.leave}>leave it</button>
  </div>
</form>
