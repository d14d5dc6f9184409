<script lang="ts">
  import { api, ask, Refusal, type Schemas } from '$lib/api';
  import Reference from '$lib/records/Reference.svelte';
  import { day as shown, DayField, fixed, Problem } from '$lib/shared';

  /** A rise of a whole family: looked at first, with whom it touches, and then put in. */
  let family = $state('');
  let list = $state('house');
  let percent = $state('');
  let from = $state(new Date(new Date().getFullYear(), new Date().getMonth() + 1, 1).toLocaleDateString('sv-SE'));
  let decimals = $state(2);
  let preview = $state.raw<Schemas['RisePreview'] | null>(null);
  let riseProblem = $state('');
  let done = $state('');
  const body = () => ({ family, list, percent: Number(percent.replace(',', '.').replace('−', '-')), from, decimals });

  async function look(event: SubmitEvent) {
    event.preventDefault();
    [riseProblem, done, preview] = ['', '', null];
    try {
      preview = await ask(api.POST('/api/prices/rise/preview', { body: body() }));
    } catch (reason) {
      riseProblem = reason instanceof Refusal ? reason.message : 'It could not be worked out.';
    }
  }

  async function rise() {
    try {
      const moved = await ask(api.POST('/api/prices/rise', { body: body() }));
      done = `${moved.moved} prices are put in from ${shown(from)}.`;
      preview = null;
    } catch (reason) {
      riseProblem = reason instanceof Refusal ? reason.message : 'Nothing was changed.';
    }
  }
</script>

<h2 class="mt-8 pb-2 font-serif text-[19px]">A rise of a family</h2>
<form class="grid grid-cols-[80px_1fr] items-center gap-x-3 gap-y-1 border border-hairline bg-sheet px-4 py-3" onsubmit={look}>
  <label class="text-second" for="r-family">family</label><Reference
    id="r-family"
    of="families"
    value={family}
    set={(v) => (family = v)}
    placeholder="code or words"
  />
  <label class="text-second" for="r-list">list</label><Reference id="r-list" of="price-lists" value={list} set={(v) => (list = v)} />
  <label class="text-second" for="r-percent">by</label>
  <span class="flex flex-wrap items-center gap-3"
    ><input
      id="r-percent"
      class="h-7 w-20 border-b border-hairline bg-transparent text-right outline-none focus:border-ink"
      inputmode="decimal"
      bind:value={percent}
      required
      onkeydown={(e) => e.stopPropagation()}
    />
    %
    <span class="text-second">from</span><DayField bind:value={from} label="from" required />
    <span class="text-second">rounded to</span><select class="bg-transparent" aria-label="decimals" bind:value={decimals}
      ><option value={2}>0.01</option><option value={4}>0.0001</option></select
    >
    <button class="btn btn-outline btn-sm" disabled={!family || !percent}>See what moves</button></span
  >
</form>
<Problem words={riseProblem} />
{#if done}<p class="mt-2" role="status">
    {done} Until then nothing changes. <a class="underline" href="/records/prices?filter={encodeURIComponent(`from=${from}`)}">See them</a>
  </p>{/if}
{#if preview}
  <div class="mt-3 border border-hairline bg-sheet px-4 py-3">
    <p><b>{preview.moved.length}</b> prices move, and <b>{preview.buyers.length}</b> buyers of the last twelve months are affected.</p>
    <div class="mt-2 grid max-h-80 gap-6 overflow-auto md:grid-cols-2">
      <ul>
        {#each preview.moved as m (m.item + m.unit + m.currency)}
          <li class="grid grid-cols-[96px_1fr_auto] gap-2 border-b border-hairline py-0.5">
            <span class="font-mono text-[12px] text-second">{m.item}</span><span class="truncate text-second">{m.unit}</span><span class="text-right"
              >{fixed(m.before, decimals)} → <b>{fixed(m.after, decimals)}</b> {m.currency}</span
            >
          </li>
        {/each}
        {#each preview.left as words (words)}<li class="py-0.5 text-notice">stays: {words}</li>{/each}
      </ul>
      <ul>
        {#each preview.buyers as b (b.id)}
          <li class="border-b border-hairline py-0.5">
            <a class="underline" href="/records/buyers/{b.id}">{b.name}</a> <span class="text-second">{fixed(b.bought, 0)} {b.currency}; {b.feels}</span>
          </li>
        {/each}
      </ul>
    </div>
    <button class="btn mt-3 btn-primary btn-sm" onclick={rise} disabled={preview.moved.length === 0}>Put the new prices in from {shown(from)}</button>
  </div>
{/if}
