<script lang="ts">
  import type { WaysState } from './ways.svelte';

  /** A file is tried: what would come of it, without anything being kept. */
  let { ways }: { ways: WaysState } = $props();
  let name = $state('');

  function pick(file: File | undefined) {
    if (!file) return;
    name = file.name;
    void ways.tryFile(file);
  }
</script>

<section class="mt-5" aria-label="test with a file">
  <label class="btn btn-outline btn-sm"
    >Test with a file…<input
      type="file"
      class="sr-only"
      onchange={(e) => {
        pick(e.currentTarget.files?.[0]);
        e.currentTarget.value = '';
      }}
    /></label
  >
  <span class="pl-2 text-second">It is read and weighed as if it had come this way; nothing of it is kept.</span>
  {#if ways.tested.value}
    <ul class="mt-2 border-y border-hairline bg-sheet" aria-label="what would come of {name}">
      {#each ways.tested.value as one, i (i)}
        <li class="border-b border-hairline px-3 py-2 last:border-0">
          <span class="font-serif text-[16px]">{one.buyer || one.from || one.subject || name}</span>
          {#if one.problem}<span class="needs">{one.problem}</span>
          {:else}
            <span class="text-second"
              >{one.kind}{one.poNumber ? ` ${one.poNumber}` : ''}, {one.lines} {one.lines === 1 ? 'line' : 'lines'}{one.worth ? `, ${one.worth}` : ''}</span
            >
            {#if one.held.length}
              <p>It would wait for somebody: {one.held.slice(0, 3).join(' ')}</p>
            {:else}<p>It would go through by itself.</p>{/if}
          {/if}
        </li>
      {:else}<li class="px-3 py-2 text-second">Nothing could be found in it.</li>{/each}
    </ul>
  {/if}
</section>
