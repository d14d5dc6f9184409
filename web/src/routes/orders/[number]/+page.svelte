<script lang="ts">
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api';
  import { DocumentPage } from '$lib/document';
  import { Latest, Problem } from '$lib/shared';

  const latest = new Latest<Schemas['DocumentView']>();
  const number = $derived(page.params.number ?? '');
  const load = () => ask(api.GET('/api/orders/{number}', { params: { path: { number } } }));

  // Meets the server, for each number anew.
  $effect(() => {
    void number;
    latest.take(null);
    void latest.ask(load, 'It could not be opened.');
  });
</script>

<Problem words={latest.problem} />
{#if latest.value}{#key latest.value}<DocumentPage view={latest.value} {load} />{/key}{/if}
