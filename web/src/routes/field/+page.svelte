<script lang="ts">
  import { Problem } from '$lib/shared';
  import { CallerField, TypedState } from '$lib/typed';

  let typed = $state.raw(new TypedState('field'));
  let sent = $state('');
  const pictures = $derived(typed.files.map((file) => ({ file, url: URL.createObjectURL(file) })));

  async function send(event: SubmitEvent) {
    event.preventDefault();
    const number = await typed.send();
    if (!number) return;
    sent = number;
    typed = new TypedState('field');
  }
</script>

<svelte:head><title>Photo order · Solvenda</title></svelte:head>
<Problem words={typed.problem} onclose={() => (typed.problem = '')} />
<form class="grid w-full max-w-[560px] gap-4 px-5 pt-3 pb-8" onsubmit={send}>
  <h1 class="font-serif text-[25px]">Photo order <em class="text-second">from the road</em></h1>
  {#if sent}<p role="status">Sent: <a class="underline" href="/requests/{sent}">{sent}</a>. The desk has it; here is room for the next.</p>{/if}
  {#key typed}<CallerField {typed} words="whose order is it?" />{/key}
  <label class="btn h-14 btn-outline text-[16px]"
    >Take a picture of their paper<input
      type="file"
      accept="image/*,application/pdf"
      capture="environment"
      multiple
      class="sr-only"
      onchange={(e) => {
        typed.add(e.currentTarget.files ?? []);
        e.currentTarget.value = '';
      }}
    /></label
  >
  {#if pictures.length}
    <ul class="flex flex-wrap gap-2" aria-label="pictures">
      {#each pictures as picture (picture.url)}
        <li class="relative">
          <img class="h-28 border border-strong object-cover" src={picture.url} alt={picture.file.name} />
          <button type="button" class="btn absolute top-1 right-1 btn-xs" aria-label="take {picture.file.name} out" onclick={() => typed.remove(picture.file)}
            >×</button
          >
        </li>
      {/each}
    </ul>
  {/if}
  <label class="grid text-second"
    >lines, if you like<textarea class="textarea h-28 w-full text-[16px] text-ink" placeholder="20 shackles bow 10 mm" bind:value={typed.text}
    ></textarea></label
  >
  <label class="grid text-second">their PO number<input class="input w-full text-ink" maxlength="100" bind:value={typed.poNumber} /></label>
  <button class="btn h-14 text-[16px] btn-primary" disabled={!typed.ready || typed.busy}>{typed.busy ? 'Being sent…' : 'Send it to the desk'}</button>
</form>
