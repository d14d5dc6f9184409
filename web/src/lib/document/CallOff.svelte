<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ask } from '$lib/api';
  import { formKeys, KeyCap } from '$lib/keys';
  import { day, DayField, documentPath, fixed, plain, readNumber } from '$lib/shared';
  import type { DocumentState } from './document.svelte';

  /** A frame: what was agreed, called off and is left; and calling a part of it off. */
  let { state: whole, oncall }: { state: DocumentState; oncall?: () => void } = $props();
  const of = $derived(whole.doc.callOff);
  let dialog = $state<HTMLDialogElement>();
  let release = $state('');
  let wanted = $state('');
  let amounts = $state<Record<number, string>>({});
  let problem = $state('');
  let busy = $state(false);
  const left = $derived((of?.lines ?? []).filter((l) => l.rest > 0));
  const terms: Record<string, string> = { open: 'to confirm', held: 'held', confirmed: 'confirmed', cancelled: 'cancelled' };

  export function open() {
    [release, wanted, problem] = ['', '', ''];
    amounts = Object.fromEntries(left.map((l) => [l.key, '']));
    dialog?.showModal();
  }

  // Without any amount all that is left is meant.
  async function call(event: SubmitEvent) {
    event.preventDefault();
    const said = left.map((l) => ({ line: l.key, text: (amounts[l.key] ?? '').trim() })).filter((l) => l.text);
    const lines = said.map((l) => ({ line: l.line, quantity: readNumber(l.text) ?? NaN }));
    if (lines.some((l) => Number.isNaN(l.quantity))) {
      problem = 'One of the amounts is no number; nothing was called off.';
      return;
    }
    busy = true;
    try {
      const body = { release, wanted: wanted || null, lines };
      const made = await ask(api.POST('/api/orders/{number}/call-off', { params: { path: { number: whole.number } }, body }));
      dialog?.close();
      await goto(documentPath(made));
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'Nothing was called off; what you typed is still here.';
    } finally {
      busy = false;
    }
  }
</script>

{#if of?.isFrame && (oncall || of.releases.length)}
  <section class="mt-1 border-b border-hairline pb-2" aria-label="call-off">
    <div class="flex flex-wrap gap-x-10 gap-y-2">
      <table class="min-w-80 max-sm:w-full max-sm:min-w-0">
        <caption class="sr-only">what was agreed, called off and is left</caption>
        <thead class="text-left text-[12px] text-second"
          ><tr
            ><th class="pr-3 font-normal">line</th><th class="font-normal">of</th><th class="px-3 text-right font-normal">agreed</th><th
              class="px-3 text-right font-normal">called off</th
            ><th class="pl-3 text-right font-normal">left</th></tr
          ></thead
        >
        <tbody>
          {#each of.lines as line (line.key)}
            <tr class="border-t border-hairline"
              ><td class="pr-3 text-second">{line.number}</td><td class="max-w-64 truncate max-sm:max-w-28" title={line.words}>{line.words}</td><td
                class="px-3 text-right">{plain(line.ordered)} {line.unitWord}</td
              ><td class="px-3 text-right">{plain(line.called)}</td><td class="pl-3 text-right font-semibold">{plain(line.rest)}</td></tr
            >
          {/each}
        </tbody>
      </table>
      <div class="min-w-60">
        <p class="text-[12px] text-second">called off so far</p>
        {#each of.releases as r (r.number)}
          <p class="flex gap-3">
            <a class="font-mono text-[12px] underline" href={documentPath({ kind: 'order', number: r.number })}>{r.number}</a>
            <span>{r.release || 'no release number'}</span>
            <span class="text-second">{r.wanted ? day(r.wanted) : ''} {terms[r.terms] ?? r.terms}</span>
            <span class="ml-auto">{fixed(r.total, whole.sheet.view.decimals)}</span>
          </p>
        {:else}<p class="text-second">nothing yet</p>{/each}
        {#if oncall && left.length}<button class="mt-1" onclick={oncall}><KeyCap>K</KeyCap> call off…</button>{/if}
      </div>
    </div>
  </section>
{:else if of && !of.isFrame}
  <p class="text-second">called off of <a class="underline" href={documentPath({ kind: 'order', number: of.frame })}>{of.frame}</a>, at its prices</p>
{/if}

<dialog bind:this={dialog} class="m-auto w-[min(600px,94vw)] border border-strong bg-sheet p-5 text-ink" aria-label="Call off">
  <form onsubmit={call} {@attach formKeys} class="grid gap-3">
    <h2 class="font-serif text-lg">Call off of {whole.number}</h2>
    <p class="text-second">An order of its own, at the prices of the frame. With no amount said, all that is left is called off.</p>
    <p class="flex flex-wrap gap-x-6 gap-y-2">
      <label
        ><span class="mr-2 text-second">their release number</span><input
          class="w-36 border border-strong bg-sheet px-2 py-1"
          bind:value={release}
          maxlength="60"
        /></label
      >
      <span><span class="mr-2 text-second">wanted</span><DayField bind:value={wanted} label="wanted" /></span>
    </p>
    <div class="grid gap-1">
      {#each left as line (line.key)}
        <label class="grid grid-cols-[28px_1fr_auto_auto] items-baseline gap-3 border-b border-hairline py-0.5"
          ><span class="text-second">{line.number}</span><span class="truncate">{line.words}</span><input
            class="w-24 border border-strong bg-sheet px-2 py-0.5 text-right"
            inputmode="decimal"
            bind:value={amounts[line.key]}
            aria-label="how much of line {line.number}"
          /><span class="w-28 text-second">of {plain(line.rest)} {line.unitWord}</span></label
        >
      {/each}
    </div>
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="flex gap-2">
      <button class="btn btn-primary btn-sm" disabled={busy}>Call off <span aria-hidden="true"><KeyCap>Ctrl ↵</KeyCap></span></button>
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
    </div>
  </form>
</dialog>
