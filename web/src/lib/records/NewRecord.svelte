<script lang="ts">
  import { api, ask, Refusal, type Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import { loadKinds } from '$lib/list';
  import RecordForm from './RecordForm.svelte';

  /** Makes a record without leaving the page: what is needed now; the rest is asked for when it matters. */
  interface Props {
    /** Hears the key of what was made, and what was typed. */
    onmade: (kind: string, id: number, values: Readonly<Record<string, string>>) => void;
  }

  let { onmade }: Props = $props();
  let dialog = $state<HTMLDialogElement>();
  let kind = $state.raw<Schemas['KindView'] | null>(null);
  let draft = $state.raw<Record<string, string>>({});
  let preset = $state.raw<readonly string[]>([]);
  let refused = $state.raw<Record<string, string>>({});
  let problem = $state('');
  let all = $state(false);
  let busy = $state(false);

  /** @param values what is known of it already. */
  export async function open(of: string, values: Record<string, string>) {
    [draft, preset, refused, problem, all] = [values, Object.keys(values), {}, '', false];
    kind = (await loadKinds()).find((k) => k.name === of) ?? null;
    dialog?.showModal();
  }

  const fields = $derived((kind?.fields ?? []).filter((f) => all || f.required || preset.includes(f.name) || f.name in refused));

  async function make() {
    if (!kind || busy) return;
    [busy, refused, problem] = [true, {}, ''];
    try {
      const made = await ask(api.POST('/api/records/{kind}', { params: { path: { kind: kind.name } }, body: { values: draft } }));
      dialog?.close();
      onmade(kind.name, made.id, draft);
    } catch (reason) {
      if (reason instanceof Refusal && reason.code === 'record_field' && Array.isArray(reason.facts))
        refused = Object.fromEntries((reason.facts as { field: string; words: string }[]).map((f) => [f.field, f.words]));
      else if (reason instanceof Refusal && reason.field) refused = { [reason.field]: reason.message };
      else problem = reason instanceof Error ? reason.message : 'It was not kept; what you typed is still here.';
    } finally {
      busy = false;
    }
  }

  function keys(event: KeyboardEvent) {
    if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
    event.preventDefault();
    // What stands in the field is taken with it.
    if (event.target instanceof HTMLElement) event.target.blur();
    void make();
  }
</script>

<dialog
  bind:this={dialog}
  class="m-auto max-h-[86vh] w-[min(560px,94vw)] overflow-auto border border-strong bg-sheet p-5 text-ink"
  aria-label="new {kind?.one ?? 'record'}"
  onkeydowncapture={keys}
>
  {#if kind}
    <h2 class="font-serif text-lg">New {kind.one}</h2>
    <RecordForm {fields} values={draft} {refused} onset={(name, value) => (draft = { ...draft, [name]: value })} />
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    <div class="mt-3 flex items-center gap-3">
      <button class="btn btn-primary btn-sm" disabled={busy} onclick={make}>Make it <KeyCap>Ctrl ↵</KeyCap></button>
      <button class="btn btn-outline btn-sm" onclick={() => dialog?.close()}>Leave it</button>
      {#if !all}<button class="ml-auto text-second underline" onclick={() => (all = true)}>all that can be said</button>{/if}
    </div>
  {/if}
</dialog>
