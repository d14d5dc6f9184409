<script lang="ts">
  /** Words in several languages, a row each, kept as "sv: …; de: …". */
  let { id, value, set }: { id: string; value: string; set: (value: string) => void } = $props();

  const known: Record<string, string> = { de: 'German', nl: 'Dutch', sv: 'Swedish', no: 'Norwegian', da: 'Danish', es: 'Spanish', fr: 'French', fi: 'Finnish' };
  const kept = $derived(
    value
      .split(';')
      .map((p) => p.trim())
      .filter((p) => p[2] === ':')
      .map((p) => ({ language: p.slice(0, 2), words: p.slice(3).trim() })),
  );
  const free = $derived(Object.keys(known).filter((l) => kept.every((k) => k.language !== l)));

  function change(language: string, words: string) {
    const plain = words.trim().replaceAll(';', ',');
    const next = kept.some((k) => k.language === language)
      ? kept.map((k) => (k.language === language ? { language, words: plain } : k))
      : [...kept, { language, words: plain }];
    set(
      next
        .filter((k) => k.words)
        .map((k) => `${k.language}: ${k.words}`)
        .join('; '),
    );
  }
</script>

{#each kept as row (row.language)}
  <div class="flex items-baseline gap-2">
    <label class="w-20 shrink-0 text-second" for="{id}-{row.language}">{known[row.language] ?? row.language}</label>
    <input
      id="{id}-{row.language}"
      class="h-7 min-w-0 flex-1 bg-transparent outline-none focus:border-b focus:border-ink"
      value={row.words}
      lang={row.language}
      autocomplete="off"
      onkeydown={(e) => (e.stopPropagation(), e.key === 'Enter' && e.currentTarget.blur())}
      onblur={(e) => e.currentTarget.value.trim() !== row.words && change(row.language, e.currentTarget.value)}
    />
  </div>
{/each}
<div class="flex items-baseline gap-2">
  <select {id} class="h-7 w-20 shrink-0 bg-transparent text-second" aria-label="another language" value="">
    <option value="">and in…</option>
    {#each free as language (language)}<option value={language}>{known[language]}</option>{/each}
  </select>
  <input
    class="h-7 min-w-0 flex-1 bg-transparent outline-none focus:border-b focus:border-ink"
    aria-label="words in it"
    autocomplete="off"
    onkeydown={(e) => (e.stopPropagation(), e.key === 'Enter' && e.currentTarget.blur())}
    onblur={(e) => {
      const language = (e.currentTarget.previousElementSibling as HTMLSelectElement).value;
      if (language && e.currentTarget.value.trim()) {
        change(language, e.currentTarget.value);
        e.currentTarget.value = '';
      }
    }}
  />
</div>
