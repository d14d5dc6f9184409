<script lang="ts">
  import { page } from '$app/state';
  import { KeyCap } from '$lib/keys';
  import { ListPage } from '$lib/list';

  const kind = $derived(page.params.kind ?? '');
  const examples: Record<string, string> = { items: 'family:rope weight>0.1', prices: 'item:BB2 price>5 to<2027-01-01' };
</script>

<ListPage
  name={kind}
  path={(r) => `/records/${kind}/${r.id}`}
  example={examples[kind] ?? 'active:no'}
  begin="/records/{kind}/new"
  empty={(of) => `There is no ${of.one} yet. Make one with N, or import a file.`}
>
  {#snippet actions(of)}
    {#if of.mayChange}
      <a class="underline" href="/records/{kind}/import">import…</a>
      <a class="btn btn-primary btn-sm" href="/records/{kind}/new">New {of.one} <KeyCap>N</KeyCap></a>
    {/if}
  {/snippet}
</ListPage>
