<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { formKeys } from '$lib/keys';

  /** How the numbers of each series look: typed, seen as the next one, and kept. */
  type Series = Schemas['NumbersView'];
  let all = $state.raw<readonly Series[]>([]);
  let at = $state.raw<Series | null>(null);
  let pattern = $state('');
  let from = $state('');
  let tried = $state.raw<Schemas['NumbersTried'] | null>(null);
  let said = $state('');
  let asked = 0;

  onMount(() => void ask(api.GET('/api/setup/numbers')).then((found) => (all = found)));

  function open(series: Series) {
    [at, pattern, from, said, tried] = [series, series.pattern, String(series.count), '', { next: series.next, fault: '' }];
  }

  const counted = () => (/^\d{1,8}$/.test(from.trim()) ? Number(from) : undefined);

  // What is typed while an answer is under way is asked again; the older answer is let go.
  async function look() {
    if (!at) return;
    const mine = ++asked;
    const answer = await ask(api.GET('/api/setup/numbers/{series}/tried', { params: { path: { series: at.series }, query: { pattern, next: counted() } } }));
    if (mine === asked) tried = answer;
  }

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    if (!at) return;
    try {
      const kept = await ask(
        api.PUT('/api/setup/numbers/{series}', {
          params: { path: { series: at.series } },
          body: { pattern, seen: at.pattern, next: counted() ?? null },
        }),
      );
      all = all.map((s) => (s.series === kept.series ? kept : s));
      open(kept);
      said = 'Kept; numbers that were given stay as they are.';
    } catch (reason) {
      said = reason instanceof Error ? reason.message : 'It was not kept; what you typed is still here.';
    }
  }
</script>

<section class="mb-6" aria-label="numbers">
  <h2 class="mb-1 font-serif text-[17px]">Numbers</h2>
  {#each all as series (series.series)}
    <div class="border-b border-hairline py-1.5">
      <p class="grid grid-cols-[80px_1fr_auto] items-baseline gap-2 sm:grid-cols-[80px_130px_1fr_auto]">
        <span class="text-second">{series.words}</span>
        <span class="font-mono text-[13px] max-sm:hidden">{series.pattern}</span>
        <span class="text-second">the next is <span class="font-mono text-[13px] text-ink">{series.next}</span></span>
        {#if at?.series === series.series}<button type="button" class="underline" onclick={() => (at = null)}>leave it</button>
        {:else}<button type="button" class="underline" aria-label="change the numbers of {series.words}" onclick={() => open(series)}>change</button>{/if}
      </p>
      {#if at?.series === series.series}
        <form class="mt-2 grid gap-2 border-l-2 border-ink pb-2 pl-3" onsubmit={keep} {@attach formKeys}>
          <p class="flex flex-wrap items-baseline gap-x-3 gap-y-2">
            <label>
              <span class="text-second">pattern</span>
              <input class="w-44 border-b border-ink bg-transparent font-mono" bind:value={pattern} oninput={look} maxlength="40" spellcheck="false" />
            </label>
            <label>
              <span class="text-second">counting from</span>
              <input class="w-24 border-b border-ink bg-transparent text-right" bind:value={from} oninput={look} inputmode="numeric" maxlength="8" />
            </label>
            <button class="btn btn-primary btn-sm" disabled={!!tried?.fault}>Keep it</button>
          </p>
          <p role="status">
            {#if said}{said}
            {:else if tried?.fault}{tried.fault}
            {:else}the next would be <b class="font-mono text-[13px]">{tried?.next}</b>{/if}
          </p>
          <p class="text-second">
            Capital letters, digits, points and dashes stand as they are; {'{yy}'} or {'{yyyy}'} is the year, and a series with it begins anew each year;
            {'{00000}'} counts.
          </p>
        </form>
      {/if}
    </div>
  {/each}
</section>
