<script lang="ts">
  import { allKeys } from './keys.svelte';
  import KeyCap from './KeyCap.svelte';

  const keys = allKeys();
  let dialog: HTMLDialogElement;

  export function open() {
    dialog.showModal();
  }
</script>

<dialog bind:this={dialog} class="m-auto w-96 border border-strong bg-sheet p-5 text-ink" aria-label="keys of this screen" closedby="any">
  <h2 class="mb-3 font-serif text-lg">Keys of this screen</h2>
  <ul>
    {#each keys.all as key, i (i)}
      <li class="flex justify-between border-b border-hairline py-1"><span>{key.words}</span><KeyCap>{key.key}</KeyCap></li>
    {/each}
  </ul>
  <p class="mt-3 text-second">Keys work outside fields; Esc leaves a field.</p>
</dialog>
