<script lang="ts">
  import { onMount } from 'svelte';
  import { KeyCap, useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { Reference } from '$lib/records';
  import { Lately, WayAsks, WayRules, WaysState, WayTest, WayTrial } from '$lib/setup';
  import { day, plain, Problem } from '$lib/shared';

  const ways = new WaysState();
  let run = $state<number | null>(null);
  onMount(() => void ways.load());
  usePulse(
    (subject) => subject === `ways:${ways.view?.line.channel}`,
    () => void ways.refresh(),
  );
  const clock = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  const share = (line: { came: number; through: number }) => (line.came ? `, ${Math.round((100 * line.through) / line.came)} % by themselves` : '');
  useKeys(() => (ways.view?.line.runs && ways.view.mayChange ? [{ key: 'r', words: 'look now', run: () => void ways.runNow() }] : []));
</script>

<svelte:head><title>Ways in · Solvenda</title></svelte:head>
<Problem words={ways.list.problem || ways.latest.problem || ways.problem} onclose={() => (ways.problem = '')} />
<div class="grid gap-x-8 gap-y-6 pb-8 lg:grid-cols-[260px_1fr_330px]">
  <nav aria-label="ways in">
    <h2 class="border-b border-strong pb-1 font-serif text-[19px]">Ways in</h2>
    {#each ways.list.value ?? [] as line (line.channel)}
      <button
        class="block w-full border-b border-hairline px-2 py-2 text-left {line.channel === ways.view?.line.channel
          ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]'
          : ''}"
        aria-current={line.channel === ways.view?.line.channel}
        onclick={() => void ways.open(line.channel)}
      >
        <b>{line.channel}</b> <span class="text-second">{line.words}{line.open ? '' : ', closed'}</span>
        <span class="block text-second">{plain(line.came)} this week{share(line)}{line.waits ? `; ${plain(line.waits)} wait` : ''}</span>
      </button>
    {/each}
  </nav>
  {#if ways.view}
    {@const view = ways.view}
    <div>
      <div class="flex flex-wrap items-baseline justify-between gap-3">
        <h1 class="font-serif text-[24px]">
          {view.line.channel} <em class="text-second">{view.line.open ? 'is open' : 'is closed'}{view.says ? `, ${view.says}` : ''}</em>
        </h1>
        {#if view.line.runs && view.mayChange}<button class="btn btn-outline btn-sm" onclick={() => void ways.runNow()}>Look now <KeyCap>R</KeyCap></button
          >{/if}
      </div>
      <div class="mt-2 flex flex-wrap items-baseline gap-x-4 border-b border-strong pb-1 text-second">
        <button class={ways.whose === null ? 'font-semibold text-ink' : ''} onclick={() => ways.pick(null)}>for everybody</button>
        {#each view.buyers as rule (rule.said.buyer)}
          <button class={ways.whose === rule.said.buyer ? 'font-semibold text-ink' : ''} onclick={() => ways.pick(rule.said.buyer)}>{rule.buyerName}</button>
        {/each}
        {#if view.mayChange}
          <span class="w-56"
            ><Reference id="way-buyer" of="buyers" value="" placeholder="a buyer with rules of their own" set={(code) => void ways.begin(code)} /></span
          >
        {/if}
        {#if ways.whose !== null && view.mayChange && ways.kept}<button class="underline" onclick={() => void ways.drop()}>as all others again</button>{/if}
      </div>
      <section class="pt-3" aria-label="what may go through by itself"><WayRules {ways} {view} /><WayAsks {ways} {view} /></section>
      {#if ways.trial.value}
        <WayTrial trial={ways.trial.value} draft={ways.draft} />
      {/if}
      <WayTest {ways} />
      <Lately changes={view.lately} />
    </div>
    <section aria-label="what it brought">
      <h2 class="font-serif text-[19px]">What it brought</h2>
      <div class="grid grid-cols-[auto_1fr_56px_56px] gap-x-3 border-b border-strong pb-1 text-[11.5px] text-second">
        <span>run</span><span></span><span class="text-right">taken</span><span class="text-right">failed</span>
      </div>
      {#each view.runs as one (one.id)}
        <button
          class="grid w-full grid-cols-[auto_1fr_56px_56px] gap-x-3 border-b border-hairline py-1 text-left"
          aria-expanded={run === one.id}
          onclick={() => (run = run === one.id ? null : one.id)}
        >
          <b>{clock(one.at)}</b><span class="text-second">{day(one.at)}</span><span class="text-right">{plain(one.taken)}</span><span
            class="text-right {one.failed ? 'text-stop' : ''}">{plain(one.failed)}</span
          >
        </button>
        {#if run === one.id}
          <div class="border-b border-hairline bg-sheet px-3 py-2 font-mono text-[12px] leading-5">
            {#each one.log as words, i (i)}<p>{words}</p>{/each}
          </div>
        {/if}
      {:else}
        <p class="py-2 text-second">
          {view.line.runs ? 'Nothing came yet. What comes is listed here, run by run.' : 'It comes when somebody brings it; there are no runs.'}
        </p>
      {/each}
    </section>
  {/if}
</div>
