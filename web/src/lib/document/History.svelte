<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';

  /** Where the decisions on the document are printed; empty for who may not see that. */
  let { pdf = '' }: { pdf?: string } = $props();
  let dialog = $state<HTMLDialogElement>();
  let rows = $state.raw<Schemas['HistoryView'][]>([]);

  export async function open(dossier: string) {
    rows = await ask(api.GET('/api/dossiers/{number}/history', { params: { path: { number: dossier } } }));
    dialog?.showModal();
  }

  const at = (iso: string) => new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
</script>

<dialog
  bind:this={dialog}
  class="m-auto max-h-[80vh] w-[min(920px,96vw)] overflow-auto border border-strong bg-sheet p-5 text-ink"
  aria-label="history"
  closedby="any"
>
  <div class="flex justify-between">
    <h2 class="font-serif text-lg">History</h2>
    <span class="flex gap-4 text-second">
      {#if pdf}<a class="underline" href={pdf} target="_blank" rel="noopener">who decided what, as PDF</a>{/if}
      <button class="underline" onclick={() => dialog?.close()}>close</button>
    </span>
  </div>
  <table class="mt-2 w-full">
    <thead
      ><tr class="text-left text-second"
        ><th class="font-normal">when</th><th class="font-normal">who</th><th class="font-normal">document</th><th class="font-normal">what</th><th
          class="font-normal">before</th
        ><th class="font-normal">after</th><th class="font-normal">why</th></tr
      ></thead
    >
    <tbody>
      {#each rows as row, i (i)}
        <tr class="border-t border-hairline align-top">
          <td class="py-1 pr-3 whitespace-nowrap text-second">{at(row.at)}</td>
          <td class="pr-3 whitespace-nowrap">{row.who}</td>
          <td class="pr-3 font-mono text-[12px] whitespace-nowrap">{row.subject}</td>
          <td class="pr-3">{row.words}</td>
          <td class="pr-3 text-second">{row.before ?? ''}</td>
          <td class="pr-3">{row.after ?? ''}</td>
          <td class="text-second">{row.why ?? ''}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</dialog>
