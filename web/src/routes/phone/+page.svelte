<script lang="ts">
  import { goto } from '$app/navigation';
  import { formKeys, KeyCap } from '$lib/keys';
  import { DayField, Problem } from '$lib/shared';
  import { CallerField, TypedState } from '$lib/typed';

  const typed = new TypedState('phone');

  async function send(event: SubmitEvent) {
    event.preventDefault();
    const number = await typed.send();
    if (number) await goto(`/requests/${number}`);
  }
</script>

<svelte:head><title>On the phone · Solvenda</title></svelte:head>
<Problem words={typed.problem} onclose={() => (typed.problem = '')} />
<form class="grid max-w-[900px] gap-x-8 gap-y-3 px-5 pt-3 md:grid-cols-[1fr_260px]" onsubmit={send} {@attach formKeys}>
  <h1 class="font-serif text-[25px] md:col-span-2">On the phone <em class="text-second">who calls, what they want, line by line</em></h1>
  <div class="grid content-start gap-3">
    <CallerField {typed} words="their number, or a name" />
    {#if typed.caller}<p class="text-second">
        {typed.caller.code}{typed.caller.phone ? `, ${typed.caller.phone}` : ''}{#if typed.caller.last}, last order
          <a class="underline" href="/orders/{typed.caller.last}" target="_blank">{typed.caller.last}</a>{/if}
      </p>{/if}
    <label class="text-second" for="said">what they say, as you hear it</label>
    <textarea id="said" class="textarea h-64 w-full font-serif text-[16px]" placeholder="20 shackles bow 10 mm" bind:value={typed.text}></textarea>
  </div>
  <div class="grid content-start gap-3">
    <fieldset class="flex gap-4">
      <legend class="text-second">they</legend>
      <label><input type="radio" class="radio radio-sm" name="kind" value="order" bind:group={typed.kind} /> order</label>
      <label><input type="radio" class="radio radio-sm" name="kind" value="quote" bind:group={typed.kind} /> ask for a price</label>
    </fieldset>
    <label class="grid text-second">their PO number<input class="input text-ink" maxlength="100" bind:value={typed.poNumber} /></label>
    <div class="grid">
      <span class="text-second">wanted by</span>
      <DayField label="wanted by" bind:value={typed.wanted} />
    </div>
    <button class="btn btn-primary" disabled={!typed.ready || typed.busy}>Read it <KeyCap>Ctrl Enter</KeyCap></button>
    <p class="text-second">It is kept as it was typed, read, and laid before you with prices and stock.</p>
  </div>
</form>
