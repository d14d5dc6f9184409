<script lang="ts">
  import { page } from '$app/state';
  import { api, ask, Refusal, type Schemas } from '$lib/api';
  import { DocumentPage } from '$lib/document';
  import { Problem } from '$lib/shared';

  let view = $state.raw<Schemas['DocumentView'] | null>(null);
  let problem = $state('');
  const number = $derived(page.params.number ?? '');

  const load = () => ask(api.GET('/api/quotes/{number}', { params: { path: { number } } }));

  // Meets the server, for each number anew.
  $effect(() => {
    void number;
    view = null;
    load().then(
      (found) => (view = found),
      (reason: unknown) => (problem = reason instanceof Refusal ? reason.message : 'It could not be opened.'),
    );
  });
</script>

<Problem words={problem} />
{#if view}{#key view}<DocumentPage {view} {load} />{/key}{/if}
