<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { fixed } from '$lib/shared';

  /** Two documents beside each other: lines added, gone, changed, in words and money. */
  let { choices, now }: { choices: Schemas['BesideChoice'][]; now: string } = $props();
  let dialog = $state<HTMLDialogElement>();
  let view = $state.raw<Schemas['BesideView'] | null>(null);
  let then = $state('');
  let all = $state(false);
  let problem = $state('');

  export async function open(name = choices[0]?.name) {
    if (!name) return;
    dialog?.showModal();
    await look(name);
  }

  async function look(name: string) {
    [then, problem] = [name, ''];
    try {
      view = await ask(api.GET('/api/beside', { params: { query: { then: name, now } } }));
    } catch (reason) {
      [view, problem] = [null, reason instanceof Error ? reason.message : 'They could not be put beside each other.'];
    }
  }

  const d = $derived(view?.decimals ?? 2);
  const pairs = $derived((view?.pairs ?? []).filter((p) => all || p.change !== 'same'));
  const same = $derived((view?.pairs ?? []).filter((p) => p.change === 'same').length);
  const more = $derived(view && view.totalThen !== null && view.totalNow !== null ? view.totalNow - view.totalThen : null);
  const words = { added: 'new', gone: 'gone', changed: '', same: '' } as const;
  const signed = (value: number) => (value > 0 ? '+' : '') + fixed(value, d);
</script>

{#snippet side(line: Schemas['BesideLine'] | null, moved: Schemas['FieldMoved'][], change: string, edge: string)}
  {#if line}
    <td class="w-8 py-1 text-right text-second {edge}">{line.number}</td>
    <td class="truncate pl-3 {change === 'gone' ? 'line-through decoration-second' : ''}" title={line.words}
      ><span class="font-mono text-[12px] text-second">{line.name === line.words ? '' : line.name}</span> {line.words}</td
    >
    <td class="pl-3 text-right whitespace-nowrap {moved.some((m) => m.field === 'quantity') ? 'font-semibold' : ''}">{line.amounts ?? ''}</td>
    <td class="pl-3 text-right whitespace-nowrap {moved.some((m) => m.field === 'price') ? 'font-semibold' : ''}">{line.price ?? ''}</td>
    <td class="pr-3 pl-3 text-right whitespace-nowrap">{line.net === null ? '' : fixed(line.net, d)}</td>
  {:else}
    <td colspan="5" class={edge}></td>
  {/if}
{/snippet}

<dialog
  bind:this={dialog}
  class="m-auto max-h-[88vh] w-[min(1240px,97vw)] overflow-auto border border-strong bg-sheet p-5 text-ink"
  aria-label="beside each other"
  closedby="any"
>
  <div class="flex flex-wrap items-baseline justify-between gap-4">
    <h2 class="font-serif text-lg">
      <label
        >{#if choices.length > 1}<select
            class="border-b border-strong bg-transparent"
            value={then}
            onchange={(e) => void look(e.currentTarget.value)}
            aria-label="what it is put beside"
          >
            {#each choices as choice (choice.name)}<option value={choice.name}>{choice.words}</option>{/each}
          </select>{:else}{choices[0]?.words ?? ''}{/if}</label
      >
      <em class="text-second">beside</em>
      {now}
    </h2>
    <button class="text-second underline" onclick={() => dialog?.close()}>close</button>
  </div>
  {#if problem}<p role="alert" class="mt-2 text-stop">{problem}</p>{/if}
  {#if view}
    <p class="mt-1">
      {#if more !== null}
        {fixed(view.totalThen ?? 0, d)} → <b>{fixed(view.totalNow ?? 0, d)}</b>
        {view.currency} without tax{#if more !== 0}, <b class={more < 0 ? 'text-stop' : ''}>{fixed(Math.abs(more), d)} {more < 0 ? 'less' : 'more'}</b>{:else},
          the same{/if}
      {/if}
      {#if view.rateThen !== null && view.rateNow !== null && view.rateThen !== view.rateNow}
        · rate {view.rateThen} → {view.rateNow}
      {/if}
    </p>
    {#if view.terms.length}
      <ul class="mt-1 text-second" aria-label="terms that moved">
        {#each view.terms as term (term.field)}<li>{term.label}: {term.then ?? 'nothing'} → <b class="text-ink">{term.now ?? 'nothing'}</b></li>{/each}
      </ul>
    {/if}
    <table class="mt-3 w-full min-w-[900px] table-fixed">
      <colgroup>
        {#each [0, 1] as i (i)}<col class="w-9" /><col /><col class="w-24" /><col class="w-24" /><col class="w-24" />{/each}
        <col class="w-28" />
      </colgroup>
      <thead>
        <tr class="border-b border-strong text-[12px] text-second">
          <th colspan="5" class="text-left font-normal">{choices.find((c) => c.name === then)?.words ?? then}</th>
          <th colspan="5" class="border-l border-dashed border-strong pl-3 text-left font-normal">{now}</th>
          <th class="pl-3 text-right font-normal">more</th>
        </tr>
      </thead>
      <tbody>
        {#each pairs as pair, i (i)}
          <tr class="border-b border-hairline {pair.change === 'same' ? 'text-second' : ''}">
            {@render side(pair.then, [], pair.change, '')}
            {@render side(pair.now, pair.moved, pair.change, 'border-l border-dashed border-strong')}
            <td class="pl-3 text-right whitespace-nowrap {pair.more !== null && pair.more < 0 ? 'text-stop' : ''}"
              >{#if words[pair.change]}<span class="mr-2 text-second">{words[pair.change]}</span>{/if}{pair.more ? signed(pair.more) : ''}</td
            >
          </tr>
        {:else}
          <tr><td colspan="11" class="py-4 text-second">Line for line the same.</td></tr>
        {/each}
      </tbody>
    </table>
    {#if same}
      <button class="mt-2 text-second underline" onclick={() => (all = !all)}
        >{all ? 'only what moved' : `and ${same === 1 ? 'one line' : `${same} lines`} that are the same`}</button
      >
    {/if}
  {/if}
</dialog>
