<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { day, readDay } from '$lib/shared';
  import ByLanguage from './ByLanguage.svelte';
  import Reference from './Reference.svelte';

  interface Props {
    fields: readonly Schemas['RecordField'][];
    values: Record<string, string>;
    /** The fields that the server refused, and why. */
    refused: Record<string, string>;
    /** Called as soon as a field is left with another value, or chosen. */
    onset: (name: string, value: string) => void;
  }

  let { fields, values, refused, onset }: Props = $props();
  let all = $state(false);
  // What is seldom needed shows once it says something, or is in the way.
  const says = (f: Schemas['RecordField']) => !['', 'no', '0'].includes(values[f.name] ?? '') || f.name in refused;
  const shown = $derived(fields.filter((f) => all || !f.seldom || says(f)));

  // A day stands in the house's form; what is none goes to the server as it was typed, which says so.
  const written = (field: Schemas['RecordField']) => {
    const value = values[field.name] ?? '';
    return field.type === 'date' && /^\d{4}-\d\d-\d\d$/.test(value) ? day(value) : value;
  };

  function left(field: Schemas['RecordField'], value: string) {
    const typed = value.trim();
    if (typed === written(field)) return;
    const kept = field.type === 'date' ? (readDay(typed) ?? typed) : typed;
    if (kept !== (values[field.name] ?? '')) onset(field.name, kept);
  }

  function keys(event: KeyboardEvent & { currentTarget: HTMLInputElement }, field: Schemas['RecordField']) {
    event.stopPropagation();
    if (event.key === 'Enter') event.currentTarget.blur();
    else if (event.key === 'Escape') {
      event.currentTarget.value = written(field);
      event.currentTarget.blur();
    }
  }
</script>

<dl class="grid grid-cols-[150px_1fr] max-sm:grid-cols-[110px_1fr]">
  {#each shown as field (field.name)}
    {@const value = values[field.name] ?? ''}
    {@const wrong = refused[field.name] ?? ''}
    <dt class="border-b border-hairline py-1.5 text-second"><label for="f-{field.name}">{field.label}</label></dt>
    <dd class="min-w-0 border-b border-hairline py-0.5">
      {#if !field.mayChange}
        <span class="block py-1 {field.type === 'code' ? 'font-mono text-[12px]' : ''}" id="f-{field.name}">{value || '–'}</span>
      {:else if field.type === 'flag'}
        <button
          id="f-{field.name}"
          role="switch"
          aria-checked={value === 'yes'}
          class="py-1 decoration-strong hover:underline"
          onclick={() => onset(field.name, value === 'yes' ? 'no' : 'yes')}>{value === 'yes' ? 'yes' : 'no'}</button
        >
      {:else if field.type === 'choice'}
        <select id="f-{field.name}" class="h-7 bg-transparent" {value} onchange={(e) => onset(field.name, e.currentTarget.value)}>
          {#if value === '' || !field.required}<option value=""></option>{/if}
          {#each field.choices as choice (choice)}<option value={choice}>{choice}</option>{/each}
        </select>
      {:else if field.type === 'reference' && field.of}
        <Reference id="f-{field.name}" of={field.of} {value} set={(v) => left(field, v)} />
      {:else if field.type === 'byLanguage'}
        <ByLanguage id="f-{field.name}" {value} set={(v) => left(field, v)} />
      {:else if field.type === 'prose'}
        <textarea
          id="f-{field.name}"
          class="min-h-32 w-full border border-hairline bg-transparent px-1 font-serif text-[15px] {field.required && !value ? 'needs' : ''}"
          {value}
          placeholder={field.hint}
          aria-invalid={wrong ? 'true' : undefined}
          aria-describedby={wrong ? `w-${field.name}` : undefined}
          onblur={(e) => left(field, e.currentTarget.value)}></textarea>
      {:else}
        <input
          id="f-{field.name}"
          inputmode={field.type === 'number' ? 'decimal' : field.type === 'whole' ? 'numeric' : undefined}
          class="h-7 w-full bg-transparent outline-none focus:border-b focus:border-ink {field.type === 'code'
            ? 'font-mono text-[12px]'
            : ''} {field.required && !value ? 'needs' : ''}"
          value={written(field)}
          placeholder={field.hint || (field.type === 'date' ? 'fri, 12 dec, +2w' : '')}
          aria-invalid={wrong ? 'true' : undefined}
          aria-describedby={wrong ? `w-${field.name}` : undefined}
          autocomplete="off"
          onblur={(e) => left(field, e.currentTarget.value)}
          onkeydown={(e) => keys(e, field)}
        />
      {/if}
      {#if wrong}<p id="w-{field.name}" role="alert" class="pb-1 text-stop">{wrong}</p>{/if}
    </dd>
  {/each}
</dl>
{#if shown.length < fields.length}
  <button type="button" class="py-2 text-second underline decoration-strong" onclick={() => (all = true)}>{fields.length - shown.length} more…</button>
{/if}
