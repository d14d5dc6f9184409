<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { day, Problem } from '$lib/shared';

  type Talk = Schemas['BuyerAnswersView']['talks'][number];

  /** What was talked about with a buyer, and a place to keep the next word. */
  let { buyer, talks, onkept, mayWrite }: { buyer: number; talks: readonly Talk[]; onkept: (kept: Talk) => void; mayWrite: boolean } = $props();
  let talk = $state('');
  let problem = $state('');

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    try {
      const kept = await ask(api.POST('/api/buyers/{id}/talks', { params: { path: { id: buyer } }, body: { words: talk } }));
      onkept(kept);
      talk = '';
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'It was not kept; your words are still here.';
    }
  }
</script>

<Problem words={problem} onclose={() => (problem = '')} />
<section aria-label="talks">
  <h2 class="border-b border-strong pb-1 font-serif text-[17px]">Talks</h2>
  {#if mayWrite}
    <form class="flex gap-2 border-b border-hairline py-1" onsubmit={keep}>
      <input
        class="w-full bg-transparent outline-none placeholder:text-third"
        placeholder="what was talked about"
        aria-label="what was talked about"
        bind:value={talk}
        onkeydown={(e) => e.stopPropagation()}
        required
      />
      <button class="btn btn-outline btn-xs">Keep</button>
    </form>
  {/if}
  <ul>
    {#each talks as t, i (i)}
      <li class="border-b border-hairline py-1">
        <span class="text-second">{day(t.at)} {t.who}</span> <span class="font-serif text-[15px]">{t.words}</span>
      </li>
    {/each}
  </ul>
</section>
