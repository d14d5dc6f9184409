<script lang="ts">
  import { Ways } from '$lib/ledger';
  import { ListPage, show } from '$lib/list';
</script>

<div class="flex justify-end px-5 pt-3"><Ways /></div>
<ListPage
  name="entries"
  open="all of them"
  all="all of them"
  example="account:1400 day>2026-11-01"
  narrow={['document', 'account', 'debit', 'credit']}
  path={(e) => `/ledger/entries?filter=${encodeURIComponent(`document:${e.calls}`)}`}
  empty={() => 'Nothing is booked yet.'}
>
  {#snippet cell(field, text)}{Number(text) === 0 && /^(debit|credit)$/.test(field.name) ? '' : show(text, field.type)}{/snippet}
</ListPage>
