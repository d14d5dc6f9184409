<script lang="ts">
  import { tick } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { formKeys, KeyCap } from '$lib/keys';
  import { day, fixed, Latest, plain } from '$lib/shared';
  import { earnedWords } from './earned';

  /** An invoice before it is issued: what it will say, what it posts, who earns of it; and issuing it. */
  let { onissued }: { onissued: (number: string) => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  let button = $state<HTMLButtonElement>();
  let order = $state('');
  const latest = new Latest<Schemas['NextInvoiceView']>();
  const view = $derived(latest.value);
  let problem = $state('');
  let busy = $state(false);
  let moving = $state('');
  let to = $state('');
  let reason = $state('');
  let moves = $state.raw<readonly { from: string; to: string; reason: string }[]>([]);

  export async function open(of: string) {
    [order, problem, moves, moving] = [of, '', [], ''];
    latest.take(null);
    dialog?.showModal();
    await latest.ask(() => ask(api.GET('/api/orders/{number}/next-invoice', { params: { path: { number: of } } })), 'It could not be worked out.');
  }

  const money = (value: number) => fixed(value, 2);
  const moved = (account: string) => moves.find((m) => m.from === account);
  const called = (code: string) => view?.moveTo.find((a) => a.code === code)?.words ?? '';

  function begin(account: string) {
    const there = moved(account);
    [moving, to, reason] = [account, there?.to ?? '', there?.reason ?? ''];
  }
  async function move() {
    const others = moves.filter((m) => m.from !== moving);
    moves = to ? [...others, { from: moving, to, reason }] : others;
    moving = '';
    // What was typed in is gone; the keys go on from the button.
    await tick();
    button?.focus();
  }
  async function issue(event: SubmitEvent) {
    event.preventDefault();
    if (moving) return await move();
    busy = true;
    try {
      const made = await ask(api.POST('/api/invoices', { body: { order, withGoods: false, moves: [...moves] } }));
      dialog?.close();
      onissued(made.number);
    } catch (refused) {
      problem = refused instanceof Error ? refused.message : 'Nothing was issued.';
    } finally {
      busy = false;
    }
  }
</script>

<dialog
  bind:this={dialog}
  class="m-auto max-h-[92vh] w-[min(660px,96vw)] overflow-auto border border-strong bg-sheet p-5 text-ink"
  aria-label="before it is issued"
>
  <form class="grid gap-3" onsubmit={issue} {@attach formKeys}>
    <h2 class="font-serif text-lg">Before it is issued <em class="text-second">{view ? view.issued.buyer.name : order}</em></h2>
    {#if view}
      {@const of = view.issued}
      <table class="w-full border-collapse">
        <tbody>
          {#each of.lines.slice(0, 8) as line, i (i)}
            <tr class="border-b border-hairline">
              <td class="w-8 py-0.5 text-second">{line.number}</td><td class="max-w-0 truncate pr-2" title={line.words}>{line.words}</td>
              <td class="w-24 pr-2 text-right whitespace-nowrap">{plain(line.quantity)}</td><td class="w-24 text-right">{money(line.net)}</td>
            </tr>
          {/each}
          {#if of.lines.length > 8}<tr
              ><td></td><td class="py-0.5 text-second" colspan="3">and {plain(of.lines.length - 8)} more {of.lines.length === 9 ? 'line' : 'lines'}</td></tr
            >{/if}
          {#each of.charges as charge, i (i)}<tr class="border-b border-hairline"
              ><td></td><td class="py-0.5" colspan="2">{charge.words}</td><td class="text-right">{money(charge.amount)}</td></tr
            >{/each}
        </tbody>
      </table>
      <dl class="ml-auto grid grid-cols-[auto_110px] gap-x-4 text-right">
        <dt class="text-second">without tax, in {of.currency}</dt>
        <dd>{money(view.totalWithoutTax)}</dd>
        <dt class="text-second">tax</dt>
        <dd>{money(view.totalTax)}</dd>
        {#if of.prepaid}<dt class="text-second">paid before</dt>
          <dd>−{money(of.prepaid)}</dd>{/if}
        <dt>to pay by {day(of.due)}</dt>
        <dd class="font-semibold">{money(view.toPay)}</dd>
      </dl>
      {#if view.entries.length}
        <section aria-label="what it posts">
          <h3 class="border-b border-strong pb-0.5 text-second">it posts, in {view.homeCurrency}</h3>
          <table class="w-full border-collapse">
            <thead class="sr-only"><tr><th>account</th><th>debit</th><th>credit</th><th>move</th></tr></thead>
            <tbody>
              {#each view.entries as e, i (i)}
                {@const other = moved(e.account)}
                <tr>
                  <td class="py-0.5"
                    >{#if other}<s class="text-third">{e.account}</s>
                      {other.to}
                      {called(other.to)} <span class="text-second">“{other.reason}”</span>{:else}{e.account} {e.called}{/if}</td
                  >
                  <td class="w-24 text-right">{e.debit ? money(e.debit) : ''}</td><td class="w-24 text-right">{e.credit ? money(e.credit) : ''}</td>
                  <td class="w-20 pl-3 text-right"
                    >{#if e.mayMove}<button type="button" class="text-second underline" onclick={() => begin(e.account)} aria-label="move {e.called}"
                        >move…</button
                      >{/if}</td
                  >
                </tr>
                {#if moving === e.account && e.mayMove}
                  <tr>
                    <td colspan="4" class="bg-focus-row px-2 py-2">
                      <label class="mr-3"
                        >to <select class="border-b border-strong bg-transparent" bind:value={to}>
                          <option value="">where it was</option>
                          {#each view.moveTo.filter((a) => a.code !== e.account) as a (a.code)}<option value={a.code}>{a.code} {a.words}</option>{/each}
                        </select></label
                      >
                      <label>why? <input class="w-52 border-b border-strong bg-transparent" maxlength="200" required={!!to} bind:value={reason} /></label>
                      <button class="btn ml-2 btn-outline btn-xs">Move it</button>
                    </td>
                  </tr>
                {/if}
              {/each}
            </tbody>
          </table>
        </section>
      {/if}
      {#if view.commissions.length}
        <section aria-label="who earns of it">
          <h3 class="border-b border-strong pb-0.5 text-second">commission</h3>
          {#each view.commissions as c, i (i)}<p class="flex gap-3 py-0.5">
              <span>{c.name}</span><span class="text-second">{earnedWords(c, of.currency)}</span><span class="ml-auto">{money(c.amount)}</span>
            </p>{/each}
        </section>
      {/if}
      <p class="text-second">
        Once it is issued it gets its number{view.goesTo ? ` and goes to ${view.goesTo}` : ''}, and is never changed; what is wrong on it is credited.
        {#if !view.goesTo}<span class="needs">no address: nobody gets it</span>{/if}
      </p>
    {:else if !latest.problem}<p class="text-second">It is worked out…</p>{/if}
    {#if problem || latest.problem}<p role="alert" class="text-stop">{problem || latest.problem}</p>{/if}
    <div class="flex gap-2">
      <button bind:this={button} class="btn btn-primary btn-sm" disabled={busy || !view || !!moving}
        >Issue it <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button
      >
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
