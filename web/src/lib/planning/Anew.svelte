<script lang="ts">
  import { tick } from 'svelte';
  import type { Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { day, plain } from '$lib/shared';

  /** What moves when everything is promised anew, said once, before it happens. */
  let { rows, onanew }: { rows: readonly Schemas['AnewRow'][]; onanew: () => Promise<void> } = $props();
  let dialog = $state<HTMLDialogElement>();
  let busy = $state(false);
  const later = $derived(rows.filter((r) => r.promised && r.arrives > r.promised).length);
  const buyers = $derived(new Set(rows.map((r) => r.buyer)).size);

  export async function open() {
    await tick();
    dialog?.showModal();
  }

  async function anew(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    await onanew();
    busy = false;
    dialog?.close();
  }
</script>

<dialog bind:this={dialog} class="m-auto w-[min(860px,96vw)] border border-strong bg-sheet p-5 text-ink" aria-labelledby="anew">
  <form onsubmit={anew}>
    <h2 id="anew" class="font-serif text-[20px]">Promise all open lines anew?</h2>
    {#if rows.length}
      <p class="text-second">
        {rows.length} move, {later} of them to a later day. {buyers === 1 ? 'One buyer gets' : `${buyers} buyers get`} a letter with the new days.
      </p>
      <div class="mt-2 max-h-[50vh] overflow-y-auto">
        <table class="w-full">
          <thead class="text-left text-[11.5px] text-second">
            <tr class="border-b border-strong"
              ><th class="py-1 font-normal">order</th><th class="font-normal">buyer</th><th class="font-normal">what</th><th class="text-right font-normal"
                >promised</th
              ><th class="text-right font-normal">then</th><th class="text-right font-normal">wanted</th></tr
            >
          </thead>
          <tbody>
            {#each rows as r, i (i)}
              <tr class="border-b border-hairline"
                ><td class="py-1 font-mono text-[12px]">{r.order}</td><td class="max-w-[220px] truncate">{r.buyer}</td><td
                  >{plain(r.quantity)} {r.unit} <span class="font-mono text-[12px]">{r.item}</span></td
                ><td class="text-right">{r.promised ? day(r.promised) : ''}</td><td
                  class="text-right font-semibold {r.promised && r.arrives > r.promised ? 'text-stop' : ''}">{day(r.arrives)}</td
                ><td class="text-right text-second">{r.wanted ? day(r.wanted) : ''}</td></tr
              >
            {/each}
          </tbody>
        </table>
      </div>
    {:else}<p class="py-2">Nothing would move: everything that is promised can be kept.</p>{/if}
    <p class="mt-4 flex items-center gap-3">
      {#if rows.length}
        <!-- svelte-ignore a11y_autofocus -->
        <button class="btn btn-primary btn-sm" disabled={busy} autofocus>Promise anew and tell them <span aria-hidden="true"><KeyCap>↵</KeyCap></span></button>
      {/if}
      <button type="button" class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>{rows.length ? 'Not now' : 'Good'} <KeyCap>Esc</KeyCap></button>
    </p>
  </form>
</dialog>
