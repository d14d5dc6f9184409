<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { useSession } from '$lib/session';
  import { documentPath, Latest, Problem, ago } from '$lib/shared';

  const session = useSession();
  const latest = new Latest<readonly Schemas['MissingView'][]>();
  let problem = $state('');
  onMount(() => void latest.ask(() => ask(api.GET('/api/missing')), 'They could not be loaded.'));

  async function settle(key: string, again: boolean) {
    problem = '';
    try {
      latest.take(await ask(api.POST('/api/missing/{key}', { params: { path: { key } }, body: { again } })));
    } catch (why) {
      problem = why instanceof Error ? why.message : 'It was not done.';
    }
  }

  const pathOf = (number: string) =>
    number.startsWith('R') ? `/requests/${number}` : documentPath({ kind: number.startsWith('Q') ? 'quote' : 'order', number });
</script>

<svelte:head><title>Not received · Solvenda</title></svelte:head>
<Problem words={problem || latest.problem} onclose={() => (problem = '')} />
<div class="max-w-[1000px] px-5 pt-3">
  <h1 class="font-serif text-[25px]">Not received <em class="text-second">what we sent and they do not have</em></h1>
  <ul class="mt-4 border-t border-strong">
    {#each latest.value ?? [] as one (one.key)}
      <li class="grid items-baseline gap-x-4 border-b border-hairline py-2 md:grid-cols-[110px_1fr_auto]">
        <a class="font-mono text-[12px] underline" href={pathOf(one.number)}>{one.number}</a>
        <div>
          <span class="font-serif text-[16px]">{one.to}</span>
          <span class="text-second">{one.what}{one.sentAt ? `, sent ${ago(one.sentAt)}` : ''}</span>
          <p><span class="needs">{one.why}</span></p>
        </div>
        {#if session.person?.mayWrite}
          <div class="flex gap-2">
            <button class="btn btn-primary btn-sm" onclick={() => void settle(one.key, true)}>Send it again</button>
            <button class="btn btn-outline btn-sm" onclick={() => void settle(one.key, false)}>They have it</button>
          </div>
        {/if}
      </li>
    {:else}
      <li class="py-3 text-second">Everything that went out has arrived, as far as anybody says so.</li>
    {/each}
  </ul>
</div>
