<script lang="ts">
  import { KeyCap } from '$lib/keys';
  import type { RequestState } from './request.svelte';

  /** What can be done with the request, or with what was chosen in it. */
  let {
    state: request,
    onturn,
    onaside,
    onanswer,
    ondivide,
    ondossier,
  }: {
    state: RequestState;
    onturn: (intoOrder: boolean) => void;
    onaside: () => void;
    onanswer: () => void;
    ondivide: () => void;
    ondossier: () => void;
  } = $props();
  const isLeft = $derived(request.overs.length > 0);
</script>

<footer class="flex flex-wrap items-center gap-3 py-3">
  {#if request.open && request.chosen}
    <span class="max-w-96 truncate font-serif">“{request.chosen.text.trim()}”</span>
    <span class="text-second">is</span>
    {#if request.focused}<button class="btn btn-outline btn-sm" onclick={() => request.use(request.focused?.no ?? 0)}
        >line {request.focused.no} <KeyCap>U</KeyCap></button
      >{/if}
    <button class="btn btn-outline btn-sm" onclick={() => request.use(0)}>a new line <KeyCap>N</KeyCap></button>
    <select class="bg-transparent" aria-label="what the chosen words are" value="" onchange={(e) => request.use(e.currentTarget.value)}>
      <option value="">or…</option>
      {#each [['poNumber', 'their PO'], ['wanted', 'the day it is wanted'], ['deliverTo', 'where it goes'], ['contact', 'the person']] as [value, words] (value)}
        <option {value}>{words}</option>
      {/each}
    </select>
    <button class="text-second underline" onclick={() => (request.chosen = null)}>nothing</button>
  {:else if request.open}
    {#if request.turns}
      <button class="btn btn-primary btn-sm" disabled={isLeft} onclick={() => onturn(request.isOrder)}
        >{request.isOrder ? 'Make it an order' : 'Quote it'} <KeyCap>Enter</KeyCap></button
      >
      {#if isLeft}<span class="text-second">first say what is left over</span>{/if}
      <button class="btn btn-outline btn-sm" disabled={isLeft} onclick={() => onturn(!request.isOrder)}
        >{request.isOrder ? 'Quote it instead' : 'It is an order'} <KeyCap>{request.isOrder ? 'Q' : 'O'}</KeyCap></button
      >
    {/if}
    {#if request.changes}<a class="btn btn-primary btn-sm" href="/requests/{request.view?.number}/change">Beside the order <KeyCap>Enter</KeyCap></a>{/if}
    <button class="btn {request.turns || request.changes ? 'btn-outline' : 'btn-primary'} btn-sm" onclick={() => onanswer()}>Answer… <KeyCap>A</KeyCap></button>
    <button class="btn btn-outline btn-sm" onclick={() => onaside()}>Set aside… <KeyCap>X</KeyCap></button>
    {#if !request.view?.dossier}<button class="btn btn-ghost btn-sm" onclick={() => ondossier()}>Goes with… <KeyCap>G</KeyCap></button>{/if}
    {#if (request.reading?.lines.length ?? 0) > 1}<button class="btn btn-ghost btn-sm" onclick={() => ondivide()}>Make two… <KeyCap>V</KeyCap></button>{/if}
    {#if request.focused?.needsYou}<span class="text-second">What you settle here is remembered: next time the same words from this buyer are read so.</span
      >{/if}
  {:else}<span class="text-second">This request was dealt with.</span>{/if}
</footer>
