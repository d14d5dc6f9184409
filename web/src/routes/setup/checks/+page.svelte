<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { useSession } from '$lib/session';
  import { plain, Problem, readNumber } from '$lib/shared';

  type Check = Schemas['CheckView'];
  type Set = Schemas['CheckSetView'];

  const session = useSession();
  const mayChange = $derived(session.person?.runsHouse ?? false);
  const levels = [
    ['asItIs', 'as it is', 'as it is'],
    ['off', 'says nothing', 'off'],
    ['notice', 'is a notice', 'notice'],
    ['stop', 'stops', 'stop'],
  ] as const;
  const waivers = [
    ['', 'as it is'],
    ['nobody', 'nobody'],
    ['writer', 'whoever writes orders'],
    ['lead', 'a lead'],
    ['credit', 'credit control'],
  ] as const;
  let checks = $state.raw<readonly Check[]>([]);
  let problem = $state('');

  const load = async () => {
    try {
      checks = await ask(api.GET('/api/setup/checks'));
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'The checks could not be loaded.';
    }
  };
  onMount(load);

  const whole = (check: Check) => check.set.find((s) => !s.document && !s.channel);
  const numbersOf = (set: Set | undefined) =>
    Object.entries(set?.numbers ?? {})
      .map(([name, value]) => `${name} ${value}`)
      .join('; ');

  // One setting is one record, with its own history; what is all as the check says is switched off.
  async function keep(check: Check, set: Set | undefined, values: Record<string, string>) {
    problem = '';
    const all: Record<string, string> = {
      level: levels.find(([l]) => l === (set?.level ?? 'asItIs'))?.[2] ?? 'as it is',
      waivedBy: set?.waivedBy ?? '',
      numbers: numbersOf(set),
      ...values,
    };
    try {
      if (set)
        await ask(
          api.PUT('/api/records/{kind}/{id}', {
            params: { path: { kind: 'checks', id: set.id }, header: { 'If-Match': `"${set.version}"` } },
            body: { values: all },
          }),
        );
      else await ask(api.POST('/api/records/{kind}', { params: { path: { kind: 'checks' } }, body: { values: { check: check.code, ...all } } }));
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not kept.';
    }
    await load();
  }

  function number(check: Check, set: Set | undefined, name: string, text: string) {
    const value = text.trim() === '' ? null : readNumber(text);
    if (value === null && text.trim() !== '') {
      problem = `“${text}” is not a number; nothing was changed.`;
      return;
    }
    const numbers = { ...set?.numbers };
    if (value === null) delete numbers[name];
    else numbers[name] = value;
    const kept = Object.entries(numbers)
      .map(([key, of]) => `${key} ${of}`)
      .join('; ');
    if (kept !== numbersOf(set)) void keep(check, set, { numbers: kept });
  }
</script>

<svelte:head><title>Checks · Solvenda</title></svelte:head>
<Problem words={problem} onclose={() => (problem = '')} />
<div class="flex flex-wrap items-baseline gap-4 pb-2">
  <h1 class="font-serif text-[24px]">Checks</h1>
  <p class="text-second">
    What every quote and order must meet; a stop that nobody may let pass stays one, whatever is set. <a class="underline" href="/records/checks"
      >All settings, with those for one kind of document or one channel</a
    >
  </p>
</div>
<div class="overflow-x-auto pb-8">
  <table class="w-full min-w-[820px] border-collapse">
    <thead class="text-left text-[11.5px] text-second">
      <tr class="border-b border-strong">
        <th class="py-1 font-normal">that …</th><th class="px-2 font-normal whitespace-nowrap">where it is not so, it</th><th class="px-2 font-normal"
          >let pass by</th
        ><th class="px-2 font-normal">numbers</th><th class="pl-2 font-normal">only for</th>
      </tr>
    </thead>
    <tbody>
      {#each checks as check (check.code)}
        {@const set = whole(check)}
        <tr class="border-b border-hairline align-baseline">
          <td class="py-1.5 whitespace-nowrap">{check.does} <span class="font-mono text-[11.5px] text-second">{check.code}</span></td>
          {#if check.fixed}
            <td class="px-2 text-second" colspan="2" title="without it something wrong would go out">stays as it is</td>
          {:else if mayChange}
            <td class="px-2"
              ><select
                class="bg-transparent {set && set.level !== 'asItIs' ? 'font-semibold' : ''}"
                aria-label="level of {check.code}"
                value={set?.level ?? 'asItIs'}
                onchange={(e) => void keep(check, set, { level: levels.find(([l]) => l === e.currentTarget.value)?.[2] ?? 'as it is' })}
              >
                {#each levels as [value, words] (value)}<option {value}>{words}</option>{/each}
              </select></td
            >
            <td class="px-2"
              ><select
                class="bg-transparent {set?.waivedBy ? 'font-semibold' : ''}"
                aria-label="who lets {check.code} pass"
                value={set?.waivedBy ?? ''}
                onchange={(e) => void keep(check, set, { waivedBy: e.currentTarget.value })}
              >
                {#each waivers as [value, words] (value)}<option {value}>{words}</option>{/each}
              </select></td
            >
          {:else}
            <td class="px-2">{levels.find(([l]) => l === (set?.level ?? 'asItIs'))?.[1]}</td>
            <td class="px-2">{waivers.find(([w]) => w === (set?.waivedBy ?? ''))?.[1]}</td>
          {/if}
          <td class="px-2">
            {#each check.numbers as n (n.name)}
              <label class="mr-3 whitespace-nowrap"
                ><input
                  class="w-14 border-b border-dashed border-ink bg-transparent text-right {set && n.name in set.numbers ? 'font-semibold' : ''}"
                  inputmode="decimal"
                  value={plain(set?.numbers[n.name] ?? n.usual)}
                  disabled={!mayChange}
                  aria-label="{n.words} of {check.code}"
                  title="usually {plain(n.usual)}"
                  onchange={(e) => number(check, set, n.name, e.currentTarget.value)}
                /> <span class="text-second">{n.words}</span></label
              >
            {/each}
          </td>
          <td class="pl-2">
            {#each check.set.filter((s) => s.document || s.channel) as narrow (narrow.id)}
              <a class="mr-2 underline" href="/records/checks/{narrow.id}"
                >{[narrow.document, narrow.channel && `by ${narrow.channel}`].filter(Boolean).join(' ')}: {levels.find(([l]) => l === narrow.level)?.[1]}</a
              >
            {/each}
            {#if mayChange && !check.fixed}<a class="text-second" href="/records/checks/new?check={check.code}" aria-label="only for some: {check.code}">…</a
              >{/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
