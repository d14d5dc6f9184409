<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { Latest, Problem } from '$lib/shared';

  const table = new Latest<Schemas['RightsView']>();
  onMount(() => void table.ask(() => ask(api.GET('/api/setup/rights'))));
  const year = new Date().getFullYear();
  const words = (act: string) => act.replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`).toLowerCase();
</script>

<svelte:head><title>What each role may · Solvenda</title></svelte:head>
<Problem words={table.problem} />
{#if table.value}
  <h1 class="font-serif text-[24px]">What each role may <em class="text-second">one table; the server decides by it</em></h1>
  <p class="py-1">
    <a class="underline" href="/api/setup/decisions?from={year}-01-01&to={year}-12-31" download>Who decided what this year, on which figures</a>
    <span class="text-second">as CSV, each with the hash of its event</span>
  </p>
  <div class="overflow-x-auto pb-8">
    <table class="w-full min-w-[900px] border-collapse">
      <thead class="text-[11.5px] text-second">
        <tr class="border-b border-strong">
          <th class="py-1 text-left font-normal">right</th>
          {#each table.value.roles as role (role)}<th class="px-2 text-center font-normal">{role}</th>{/each}
          <th class="px-2 text-left font-normal">a machine’s key</th>
          <th class="text-left font-normal">what is done with it</th>
        </tr>
      </thead>
      <tbody>
        {#each table.value.rights as right (right.code)}
          <tr class="border-b border-hairline align-top">
            <td class="py-1.5 pr-3"><span class="font-mono text-[12px]">{right.code}</span><span class="block text-second">{right.words}</span></td>
            {#each right.by as may, i (i)}<td class="px-2 py-1.5 text-center">{may ? '✓' : ''}<span class="sr-only">{may ? 'may' : 'may not'}</span></td>{/each}
            <td class="px-2 py-1.5 font-mono text-[12px]">{right.scope ?? ''}</td>
            <td class="py-1.5 text-[12.5px] text-second">{right.acts.map(words).join(', ')}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
