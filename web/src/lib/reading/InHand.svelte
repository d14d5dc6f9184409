<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';

  /** Who has a request; it can be taken, handed on, or laid back. */
  interface Props {
    request: Schemas['RequestView'];
    me: number;
    mayWrite: boolean;
    handed: (now: Schemas['RequestView']) => void;
    failed: (words: string) => void;
  }
  let { request, me, mayWrite, handed, failed }: Props = $props();
  let people = $state.raw<readonly Schemas['Holder'][]>([]);
  const open = $derived(request.state === 'new' || request.state === 'needsYou');

  // The others are asked for when somebody is about to pick one.
  function meet() {
    if (people.length) return;
    void ask(api.GET('/api/requests/hands')).then(
      (found) => (people = found),
      () => failed('The people could not be loaded.'),
    );
  }

  export async function give(to: number | null) {
    try {
      handed(await ask(api.POST('/api/requests/{number}/hand', { params: { path: { number: request.number } }, body: { to } })));
    } catch (reason) {
      failed(reason instanceof Error ? reason.message : 'It was not handed on.');
    }
  }
</script>

{#if open && mayWrite}
  · <label
    ><span class="sr-only">who has it</span><select
      class="bg-transparent"
      value={String(request.hand?.id ?? '')}
      onpointerdown={meet}
      onfocus={meet}
      onchange={(e) => void give(e.currentTarget.value ? Number(e.currentTarget.value) : null)}
    >
      <option value="">nobody has it</option>
      {#if !people.some((p) => p.id === me)}<option value={String(me)}>I have it</option>{/if}
      {#if request.hand && request.hand.id !== me && !people.some((p) => p.id === request.hand?.id)}<option value={String(request.hand.id)}
          >{request.hand.name} has it</option
        >{/if}
      {#each people as p (p.id)}<option value={String(p.id)}>{p.id === me ? 'I have it' : `${p.name} has it`}</option>{/each}
    </select></label
  >
{:else if request.hand}· {request.hand.name} has it{/if}
