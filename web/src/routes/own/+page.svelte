<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api';
  import { useNotices } from '$lib/notices';
  import { useSession } from '$lib/session';
  import { Latest, Problem, since } from '$lib/shared';

  const session = useSession();
  const notices = useNotices();
  const own = new Latest<Schemas['OwnView']>();
  let tellBy = $state<Schemas['TellBy']>('mail');
  let signature = $state('');
  let [old, fresh, code] = $state(['', '', '']);
  let factor = $state.raw<Schemas['NewFactorView'] | null>(null);
  let [problem, said] = $state(['', '']);

  const load = async () => {
    const view = await own.ask(() => ask(api.GET('/api/own')));
    if (view) [tellBy, signature] = [view.tellBy, view.signature];
  };
  onMount(() => {
    void load();
    void notices.load().then(() => notices.see());
  });

  async function run(what: () => Promise<unknown>, then: string) {
    [problem, said] = ['', ''];
    try {
      await what();
      said = then;
      await load();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not changed.';
    }
  }
  const choose = () => run(() => ask(api.PUT('/api/own', { body: { tellBy, signature } })), 'Kept.');
  const password = () =>
    run(async () => {
      await ask(api.POST('/api/own/password', { body: { old, new: fresh } }));
      [old, fresh] = ['', ''];
    }, 'The new password holds; whoever was signed in elsewhere is out.');
  const begin = () => run(async () => (factor = await ask(api.GET('/api/own/second-factor'))), '');
  const prove = (secret: string | null) =>
    run(
      async () => {
        await ask(api.POST('/api/own/second-factor', { body: { secret, code } }));
        [factor, code] = [null, ''];
      },
      secret ? 'From now on the six digits are asked for when you sign in.' : 'The second factor is off.',
    );
  const end = (id?: string) =>
    run(() => (id ? ask(api.DELETE('/api/own/sessions/{id}', { params: { path: { id } } })) : ask(api.DELETE('/api/own/sessions'))), 'Ended.');
  const field = 'border border-strong bg-sheet px-2 py-1';

  function theme(value: 'paper' | 'night') {
    session.theme = value;
    localStorage.setItem('theme', value);
  }

  function density(value: 'close' | 'usual' | 'roomy') {
    session.density = value;
    localStorage.setItem('density', value);
  }
</script>

<svelte:head><title>Yours · Solvenda</title></svelte:head>
<Problem words={own.problem || problem} />
<div class="grid gap-x-8 gap-y-6 px-5 pt-3 pb-8 lg:grid-cols-[1.3fr_1fr]">
  <section aria-label="what you were told">
    <h1 class="font-serif text-[24px]">What you were told</h1>
    <ul>
      {#each notices.list as notice (notice.id)}
        <li class="border-b border-hairline py-1.5">
          <a class="hover:underline" href={notice.link}><span class={notice.seen ? '' : 'bg-marker px-0.5'}>{notice.words}</span></a>
          <span class="text-second">{since(notice.at)}</span>
        </li>
      {:else}<li class="py-1.5 text-second">Nothing yet. What waits for you, and what became of what you asked, stands here.</li>{/each}
    </ul>
  </section>
  {#if own.value}
    <div class="grid content-start gap-5">
      {#if said}<p role="status">{said}</p>{/if}
      <form
        class="grid gap-2"
        onsubmit={(e) => {
          e.preventDefault();
          void choose();
        }}
        aria-label="how you are told"
      >
        <h2 class="font-serif text-[18px]">{own.value.name} <span class="font-mono text-[13px] text-second">{own.value.login}</span></h2>
        <label class="flex items-center gap-2"
          >told <select class="border-b border-ink bg-transparent" bind:value={tellBy}>
            <option value="mail">here and by mail at once</option>
            <option value="digest">here, and by one letter in the morning</option>
            <option value="here">here alone</option>
          </select></label
        >
        <label class="grid gap-1"><span class="text-second">under your letters</span><textarea class={field} rows="2" bind:value={signature}></textarea></label>
        <p class="flex gap-3">
          <label><input type="radio" checked={session.theme === 'paper'} onchange={() => theme('paper')} /> day shift</label>
          <label><input type="radio" checked={session.theme === 'night'} onchange={() => theme('night')} /> night shift</label>
        </p>
        <p class="flex gap-3">
          {#each [['close', 'rows close together'], ['usual', 'as usual'], ['roomy', 'roomy']] as const as [value, words] (value)}
            <label><input type="radio" checked={session.density === value} onchange={() => density(value)} /> {words}</label>
          {/each}
        </p>
        <button class="btn justify-self-start btn-outline btn-sm">Keep it</button>
      </form>
      <form
        class="grid gap-2"
        onsubmit={(e) => {
          e.preventDefault();
          void password();
        }}
        aria-label="another password"
      >
        <h2 class="font-serif text-[18px]">Another password</h2>
        <label class="grid gap-1"
          ><span class="text-second">the one that holds</span><input class={field} type="password" autocomplete="current-password" bind:value={old} /></label
        >
        <label class="grid gap-1"
          ><span class="text-second">the new one, at least 12 characters</span><input
            class={field}
            type="password"
            autocomplete="new-password"
            minlength="12"
            bind:value={fresh}
            required
          /></label
        >
        <button class="btn justify-self-start btn-outline btn-sm">Change it</button>
      </form>
      <section aria-label="second factor" class="grid gap-2">
        <h2 class="font-serif text-[18px]">Second factor</h2>
        {#if own.value.hasSecondFactor}
          <p>It is on. To take it off, type its six digits.</p>
          <p class="flex gap-2">
            <input class="{field} w-28" inputmode="numeric" autocomplete="one-time-code" bind:value={code} aria-label="six digits" />
            <button class="btn btn-outline btn-sm" onclick={() => void prove(null)}>Take it off</button>
          </p>
        {:else if factor}
          <p>
            Read this with your authenticator, or type <code class="font-mono text-[12px] break-all">{factor.secret}</code>; then the six digits that it shows.
          </p>
          <img class="w-44 bg-white" alt="code to read with an authenticator" src="data:image/svg+xml;utf8,{encodeURIComponent(factor.picture)}" />
          <p class="flex gap-2">
            <input class="{field} w-28" inputmode="numeric" autocomplete="one-time-code" bind:value={code} aria-label="six digits" />
            <button class="btn btn-primary btn-sm" onclick={() => void prove(factor!.secret)}>Turn it on</button>
          </p>
        {:else}<button class="btn justify-self-start btn-outline btn-sm" onclick={() => void begin()}>Set it up</button>{/if}
      </section>
      <section aria-label="where you are signed in">
        <h2 class="font-serif text-[18px]">Where you are signed in</h2>
        {#each own.value.sessions as one (one.id)}
          <p class="flex justify-between border-b border-hairline py-1">
            <span>{one.device || 'some machine'}{one.here ? ', here' : ''} <span class="text-second">since {since(one.begunAt)}</span></span>
            {#if !one.here}<button class="underline" onclick={() => void end(one.id)}>end it</button>{/if}
          </p>
        {/each}
        {#if own.value.sessions.length > 1}<button class="mt-1 underline" onclick={() => void end()}>end all others</button>{/if}
      </section>
    </div>
  {/if}
</div>
