<script lang="ts">
  import { formKeys, KeyCap, useKeys } from '$lib/keys';
  import { usePulse } from '$lib/pulse';
  import { plain, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';
  import { ReturnsState, type ReturnView } from './returns.svelte';

  /** What comes back of an order: asked, allowed or not, here, and what the buyer gets for it. */
  let { order, onmoved }: { order: string; onmoved: () => void } = $props();
  const back = new ReturnsState(
    () => order,
    () => onmoved(),
  );
  const view = $derived(back.view);
  const may = $derived(!!view?.mayAsk && view.lines.length > 0);
  let dialog = $state<HTMLDialogElement>();
  let what = $state<'credit' | 'replacement'>('credit');
  let [reason, problem] = $state(['', '']);
  let decide = $state<Words>();
  let one = $state<ReturnView>();
  let allow = $state(true);

  // Meets the server.
  $effect(() => void back.load());
  usePulse(
    (subject) => subject === order,
    () => void back.load(),
  );
  useKeys(() => (may ? [{ key: 'z', words: 'goods come back', run: open }] : []));

  function open() {
    [reason, problem, what] = ['', '', 'credit'];
    back.asked = {};
    dialog?.showModal();
  }
  async function submit(event: SubmitEvent) {
    event.preventDefault();
    try {
      await back.ask(what, reason);
      dialog?.close();
    } catch (no) {
      problem = no instanceof Error ? no.message : 'It was not kept; what you typed is still here.';
    }
  }
  function say(of: ReturnView, yes: boolean) {
    [one, allow] = [of, yes];
    decide?.open();
  }
  const words = (of: ReturnView) => of.lines.map((l) => `${plain(l.quantity)} ${l.unit} ${l.words}`.replace('  ', ' ')).join('; ');
  const stands = { asked: 'they want to give back', allowed: 'may come back', refused: 'may not come back', back: 'is here', settled: 'came back' };
</script>

<Problem words={back.problem || back.latest.problem} onclose={() => (back.problem = '')} />
{#if view && (view.returns.length || may)}
  <section class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hairline py-1" aria-label="what comes back">
    {#each view.returns as r (r.number)}
      <span class="flex flex-wrap items-baseline gap-x-2">
        <span class="font-mono text-[12px]">{r.number}</span>
        <span class="text-second" title={r.answer || r.reason}>{stands[r.state]}: {words(r)}</span>
        {#if r.state === 'asked' && view.mayAsk}
          <button class="underline" onclick={() => say(r, true)}>Allow it</button>
          <button class="underline" onclick={() => say(r, false)}>Refuse it</button>
        {:else if r.state === 'allowed'}
          {#if view.mayTake}
            <button class="underline" onclick={() => void back.take(r, true)}>It is here, to the shelf</button>
            <button class="underline" onclick={() => void back.take(r, false)}>It is here, not to be sold</button>
          {/if}
          {#if view.maySettle}<button class="underline" onclick={() => void back.settle(r)}
              >{r.for === 'credit' ? 'Credit it without the goods' : 'Replace it without the goods'}</button
            >{/if}
        {:else if r.state === 'back' && view.maySettle}
          <button class="underline" onclick={() => void back.settle(r)}>{r.for === 'credit' ? 'Credit it' : 'Replace it'}</button>
        {/if}
        {#each r.settledBy as by (by)}
          <a class="font-mono text-[12px] underline" href={r.for === 'credit' ? `/ledger/invoices/${by}` : `/orders/${by}`}>{by}</a>
        {/each}
      </span>
    {/each}
    {#if may}<button class="text-second underline" onclick={open}>Goods come back <KeyCap>Z</KeyCap></button>{/if}
  </section>
{/if}
<dialog bind:this={dialog} class="m-auto w-[min(560px,94vw)] border border-strong bg-sheet p-5 text-ink" aria-label="goods come back">
  <form onsubmit={submit} {@attach formKeys} class="grid gap-3">
    <h2 class="font-serif text-lg">What comes back?</h2>
    <table class="w-full border-collapse">
      <thead class="sr-only"><tr><th>what</th><th>went</th><th>comes back</th></tr></thead>
      <tbody>
        {#each back.lines as l (l.key)}
          <tr class="border-b border-hairline">
            <td class="py-1 pr-2">{l.words}</td>
            <td class="pr-2 text-right whitespace-nowrap text-second">of {plain(l.left)} {l.unit}</td>
            <td class="w-24"
              ><input
                class="w-full border-b border-ink bg-transparent text-right"
                inputmode="decimal"
                aria-label="how much of {l.words}"
                bind:value={back.asked[l.key]}
              /></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    <label class="grid gap-1"
      ><span class="text-second">why do they give it back?</span> <input class="border-b border-ink bg-transparent" bind:value={reason} required /></label
    >
    <fieldset class="flex flex-wrap gap-4">
      <legend class="sr-only">what they get for it</legend>
      <label class="flex items-center gap-2"
        ><input type="radio" class="radio radio-xs" name="for" value="credit" bind:group={what} /> they get a credit note</label
      >
      <label class="flex items-center gap-2"
        ><input type="radio" class="radio radio-xs" name="for" value="replacement" bind:group={what} /> the same again, without charge</label
      >
    </fieldset>
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-2">
      <button class="btn btn-primary btn-sm">Keep it <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button>
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
<Words
  bind:this={decide}
  title={allow ? `May ${one?.number} come back?` : `May ${one?.number} not come back?`}
  says={allow ? 'They are told by which number to send it.' : 'They are told why.'}
  label={allow ? 'anything to keep with it, or nothing' : 'why not? They read it'}
  optional={allow}
  reasons={allow ? undefined : 'returned'}
  button={allow ? 'It may' : 'It may not'}
  take={(said) => (one ? back.decide(one, allow, said) : Promise.resolve())}
/>
