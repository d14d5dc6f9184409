<script lang="ts">
  import { KeyCap, useKeys } from '$lib/keys';
  import { plain, Problem } from '$lib/shared';
  import { CarrierFileState } from './carrier.svelte';

  /** A carrier's file, dropped anywhere on the page or picked: what would come of it is shown before it is taken. */
  let { carriers, ontaken }: { carriers: readonly string[]; ontaken: (words: string) => void } = $props();
  const said = new CarrierFileState();
  let pick = $state<HTMLInputElement>();

  const drop = (event: DragEvent) => {
    const file = event.dataTransfer?.files[0];
    if (!file) return;
    event.preventDefault();
    void said.look(file, carriers);
  };
  async function take() {
    const [many, carrier] = [said.seen?.taken.length ?? 0, said.carrier];
    if (await said.take()) ontaken(`${plain(many)} ${many === 1 ? 'shipment' : 'shipments'} of ${carrier} brought up to date.`);
  }
  useKeys(() =>
    said.file
      ? [
          { key: 'Ctrl+Enter', words: 'take the carrier’s file', run: () => void take() },
          { key: 'Escape', words: 'leave it', run: said.leave },
        ]
      : [],
  );
</script>

<svelte:window ondragover={(event) => event.preventDefault()} ondrop={drop} />
<Problem words={said.problem} onclose={said.leave} />
<input
  bind:this={pick}
  type="file"
  class="sr-only"
  tabindex="-1"
  accept=".csv,.txt,.xlsx"
  aria-label="a carrier’s file"
  onchange={() => pick?.files?.[0] && void said.look(pick.files[0], carriers)}
/>
{#if said.seen && said.file}
  <section class="mt-4 border border-hairline bg-sheet p-4" aria-label="the carrier’s file">
    <h2 class="font-serif text-[19px]">{said.file.name} <em class="text-second">{said.carrier}</em></h2>
    <p>
      {plain(said.seen.taken.length)} of our shipments get something new{said.seen.known ? `, ${plain(said.seen.known)} rows say what we know` : ''}{said.seen
        .left.length
        ? `; ${plain(said.seen.left.length)} cannot be taken:`
        : '.'}
    </p>
    {#each said.seen.left.slice(0, 8) as row (row.row)}<p class="text-second">row {row.row}: {row.why}</p>{/each}
    <p class="mt-2 flex gap-3">
      <button class="btn btn-primary btn-sm" disabled={!said.seen.taken.length} onclick={() => void take()}>Take them <KeyCap>Ctrl Enter</KeyCap></button>
      <button class="btn btn-outline btn-sm" onclick={said.leave}>Leave it</button>
    </p>
  </section>
{:else}
  <button class="mt-4 text-second underline" onclick={() => pick?.click()}>take a carrier’s file</button>
  <span class="text-second">with their numbers and costs, or drop it anywhere here</span>
{/if}
