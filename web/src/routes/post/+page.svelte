<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { useKeys } from '$lib/keys';
  import { Latest, Problem, since } from '$lib/shared';

  const list = new Latest<Schemas['PostListRow'][]>();
  const rows = $derived(list.value);
  const letter = new Latest<Schemas['PostView']>();
  const one = $derived(letter.value);
  const played = new Latest<Schemas['DayPlayed']>();
  let raw = $state(false);
  let at = $state(0);

  // Meets the server every few seconds: what goes out appears by itself.
  $effect(() => {
    const load = () => {
      void played.ask(() => ask(api.GET('/api/demo/day')));
      void list.ask(() => ask(api.GET('/api/demo/post')), 'The post room could not be loaded.');
    };
    load();
    const timer = setInterval(load, 3000);
    return () => clearInterval(timer);
  });

  function open(index: number) {
    const row = rows?.[index];
    if (!row) return;
    at = index;
    raw = false;
    void letter.ask(() => ask(api.GET('/api/demo/post/{name}', { params: { path: { name: row.name } } })));
  }

  const play = (on: boolean) => played.ask(() => ask(api.POST('/api/demo/day', { body: { on } })), 'The day could not be played.');

  useKeys(() => [
    { key: 'j', words: 'next', run: () => open(Math.min(at + 1, (rows?.length ?? 1) - 1)) },
    { key: 'k', words: 'before', run: () => open(Math.max(at - 1, 0)) },
    { key: 'r', words: 'exactly as it went', run: () => (raw = !raw) },
  ]);

  // Links in a letter lead somewhere; all else is plain text.
  const parts = $derived((one?.text ?? '').split(/(https?:\/\/[^\s]+)/));
</script>

<svelte:head><title>Post room · Solvenda</title></svelte:head>
<div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
  <div class="flex flex-wrap items-baseline justify-between gap-3">
    <h1 class="font-serif text-[25px] leading-tight">Post room <em class="text-second">what went out, exactly as it went</em></h1>
    <button class="btn btn-outline btn-sm" onclick={() => void play(!played.value?.left)}
      >{played.value?.left ? `A day is played, ${played.value.left} to come: end it` : 'Play a day'}</button
    >
  </div>
  <Problem words={list.problem || letter.problem} />
  <div class="mt-3 grid min-h-0 flex-1 gap-4 pb-4 lg:grid-cols-[2fr_3fr]">
    <ul class="min-h-0 overflow-auto border-t border-ink" aria-label="messages">
      {#each rows ?? [] as row, i (row.name)}
        <li>
          <button
            class="grid w-full grid-cols-[1fr_auto] gap-x-3 border-b border-hairline px-2 py-1.5 text-left {one?.name === row.name
              ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]'
              : ''}"
            onclick={() => open(i)}
          >
            <span class="truncate font-serif text-[15px]">{row.subject}</span><span class="text-second">{since(row.at)}</span>
            <span class="truncate text-second">{row.to}</span><span class="text-second">{row.channel}</span>
          </button>
        </li>
      {:else}
        <li class="p-4 text-second">{rows ? 'Nothing went out yet. A quote that is sent and an order that is confirmed appear here.' : ''}</li>
      {/each}
    </ul>
    <article class="min-h-0 overflow-auto border border-hairline bg-sheet p-5" aria-label="the message">
      {#if one}
        <header class="mb-3 border-b border-strong pb-3 text-second">
          {#if one.from}<p>From {one.from}</p>{/if}
          <p>To {one.to}</p>
          <p>Subject <b class="text-ink">{one.subject}</b></p>
          <p class="mt-2 flex flex-wrap gap-4">
            {#each one.attachments as part, i (part.name)}<a class="underline" href="/api/demo/post/{one.name}/attachment/{i}" target="_blank" rel="noopener"
                >{part.name}</a
              >{/each}
            {#if one.raw}<button class="underline" onclick={() => (raw = !raw)}>{raw ? 'as a letter' : 'exactly as it went'}</button>{/if}
          </p>
        </header>
        {#if one.raw && (raw || one.channel === 'edi')}
          <pre class="font-mono text-[11.5px] break-all whitespace-pre-wrap">{one.raw}</pre>
        {:else}
          <p class="font-serif text-[16px] leading-relaxed break-words whitespace-pre-wrap">
            {#each parts as part, i (i)}{#if i % 2}<a class="underline" href={part}>{part}</a>{:else}{part}{/if}{/each}
          </p>
        {/if}
      {:else}<p class="text-second">Pick a message.</p>{/if}
    </article>
  </div>
</div>
