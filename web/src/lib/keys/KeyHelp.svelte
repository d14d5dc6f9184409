<script lang="ts">
  import { allKeys } from './keys.svelte';
  import KeyCap from './KeyCap.svelte';

  const keys = allKeys();
  let dialog: HTMLDialogElement;

  export function open() {
    dialog.showModal();
  }
</script>

<dialog bind:this={dialog} class="bg-sheet text-ink border-strong m-auto w-96 border p-5" aria-label="keys of this screen" closedby="any">
  <h2 class="mb-3 font-serif text-lg">Keys of this screen</h2>
  <ul>
    {#each keys.all as key (key.key + key.words)}
      <li class="border-hairline flex justify-between border-b py-1"><span>{key.words}</span><KeyCap>{key.key}</KeyCap></li>
    {/each}
  </ul>
  <p class="text-second mt-3">Keys work outside fields; Esc leaves a field.</p>
</dialog>
