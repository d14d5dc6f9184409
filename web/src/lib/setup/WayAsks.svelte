<script lang="ts">
  import type { Schemas } from '$lib/api';
  import type { WaysState } from './ways.svelte';

  /** What the way asks to be told: settings, and how often it is looked after. */
  let { ways, view }: { ways: WaysState; view: Schemas['WayView'] } = $props();
  const off = $derived(!view.mayChange);
  const asks = $derived(view.settings.filter((s) => s.ofBuyer === (ways.whose !== null)));
</script>

{#if ways.draft && (asks.length || (view.line.runs && ways.whose === null))}
  <section class="mt-4 grid gap-x-6 gap-y-2 border-t border-hairline pt-3 sm:grid-cols-2" aria-label="settings">
    {#each asks as setting (setting.name)}
      <label class="grid text-second"
        >{setting.words}<input
          class="input w-full text-ink input-sm"
          type={setting.kind === 'secret' ? 'password' : setting.kind === 'number' ? 'number' : 'text'}
          autocomplete="off"
          disabled={off}
          placeholder={setting.kind === 'secret' ? 'as it is' : setting.usual}
          value={ways.draft.settings?.[setting.name] ?? ''}
          oninput={(e) => ways.tell(setting.name, e.currentTarget.value)}
        /></label
      >
    {/each}
    {#if view.line.runs && ways.whose === null}
      <label class="grid text-second"
        >looked after every so many minutes; 0: as often as it can be<input
          class="input w-full text-ink input-sm"
          type="number"
          min="0"
          max="1440"
          disabled={off}
          bind:value={ways.draft.everyMinutes}
        /></label
      >
    {/if}
  </section>
{/if}
