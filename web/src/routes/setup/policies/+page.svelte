<script lang="ts">
  import { onMount } from 'svelte';
  import { KeyCap, useKeys } from '$lib/keys';
  import { Lately, PoliciesState, PolicyEditor, Trial } from '$lib/setup';
  import { Problem } from '$lib/shared';

  const all = new PoliciesState();
  const view = $derived(all.view);
  onMount(() => void all.load());
  useKeys(() =>
    view?.mayChange
      ? [
          { key: 'n', words: 'another rule', run: all.begin },
          ...(all.draft ? [{ key: '+', words: 'and…', run: () => void all.and() }] : []),
          { key: 'Escape', words: 'leave it', run: all.leave },
        ]
      : [],
  );
</script>

<svelte:head><title>When somebody must be asked · Solvenda</title></svelte:head>
<Problem words={all.latest.problem} />
{#if view}
  <div class="grid gap-x-8 gap-y-6 pb-8 lg:grid-cols-[minmax(0,1.6fr)_minmax(320px,1fr)]">
    <div>
      <h1 class="font-serif text-[24px]">
        When somebody must be asked <em class="text-second">{view.policies.length} rules, {view.policies.filter((p) => p.holds).length} hold</em>
      </h1>
      <p class="flex justify-between border-b border-strong pt-2 pb-1 text-[11.5px] text-second"><span>rule</span><span>asked in 90 days</span></p>
      {#each view.policies as policy (policy.id)}
        {#if all.open?.id === policy.id && view.mayChange}
          <PolicyEditor state={all} />
        {:else}
          <button class="flex w-full items-start gap-4 border-b border-hairline py-2.5 text-left hover:bg-sheet" onclick={() => all.pick(policy)}>
            <span class="min-w-0 flex-1">
              <span class="font-serif text-[16px]">{policy.sentence}</span>
              {#if policy.scope}<span class="block text-[12.5px] text-second">{policy.scope}</span>{/if}
              {#if !policy.holds}<span class="bg-marker px-0.5 text-[12.5px]">not holding yet</span>{/if}
            </span>
            {#if policy.asked}<span class="text-right">{policy.asked}<span class="block text-second">{policy.granted} granted</span></span>{/if}
          </button>
        {/if}
      {/each}
      {#if view.mayChange}
        {#if all.draft && !all.open}<PolicyEditor state={all} />
        {:else}<p class="py-2"><button onclick={all.begin}><KeyCap>N</KeyCap> another rule</button></p>{/if}
      {/if}
      {#each view.gaps as gap (gap)}<p class="py-0.5 text-notice">● {gap}</p>{/each}
      <Lately changes={view.lately} />
    </div>
    <div class="lg:sticky lg:top-0 lg:self-start">
      {#if all.trial.value && (all.draft || all.open)}<Trial trial={all.trial.value} />
      {:else}<p class="font-serif text-[17px] text-second">Open a rule: what it would have asked in the last ninety days stands here, before it holds.</p>{/if}
    </div>
  </div>
{/if}
