<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { documentPath, fixed, ago } from '$lib/shared';
  import type { Snippet } from 'svelte';

  /** Who wrote, what they want, and where it stands. */
  let { request, hand }: { request: Schemas['RequestView']; hand?: Snippet } = $props();
  const reading = $derived(request.reading);
  const wants = $derived(
    reading
      ? {
          unclear: 'wrote',
          requestForQuotation: 'wants a price',
          order: 'orders',
          change: 'changes an order',
          cancellation: 'takes an order back',
          question: 'asks something',
          answerToQuote: 'answers our quote',
          return: 'gives something back',
          reminder: 'waits for an order',
          complaint: 'complains',
          notForUs: 'wrote',
        }[reading.kind]
      : 'could not be read',
  );
</script>

<div class="flex flex-wrap items-end justify-between gap-2 pb-2.5">
  <div>
    <h1 class="font-serif text-[25px] leading-tight">
      {reading?.buyer.value ?? (request.from || request.subject)}
      <em class="text-second">{wants}{reading?.leftOvers?.length ? ', but not all of it is read' : ''}</em>
    </h1>
    <p class="text-second">
      <span class="font-mono text-[12px] text-ink">{request.number}</span> · {request.channel}{request.from ? ` from ${request.from}` : ''} · {ago(
        request.receivedAt,
      )}
      {#if request.worth != null}· at our prices {request.currency}
        {fixed(request.worth, 2)}{request.surePercent != null && request.surePercent < 100 ? `, ${request.surePercent} % of it sure` : ''}{/if}
      {@render hand?.()}
      {#if request.follows}· goes on from <a class="underline" href="/requests/{request.follows}">{request.follows}</a>{/if}
      {#if request.dossier && !request.turnedInto}· belongs to {request.dossier}{request.matter ? `, ${request.matter}` : ''}{/if}
      {#if request.turnedInto}· became <a class="underline" href={documentPath(request.turnedInto)}>{request.turnedInto.number}</a>{/if}
      {#if request.siblings.length}· in one file with {#each request.siblings.slice(0, 6) as s, i (s.number)}{i ? ', ' : ''}<a
            class="underline"
            href="/requests/{s.number}"
            title={s.subject}>{s.number}</a
          >{/each}{request.siblings.length > 6 ? ` and ${request.siblings.length - 6} more` : ''}{/if}
      {#if request.state === 'setAside'}· set aside: “{request.reason}”{/if}
      · <a class="underline" href="/api/requests/{request.number}/original" download>the original</a>
    </p>
  </div>
  {#if request.position > 0}<p class="text-second">
      {request.position} of {request.waiting} waiting {#if request.next}<a href="/requests/{request.next}"><KeyCap>J</KeyCap> next</a>{/if}
    </p>{/if}
</div>
