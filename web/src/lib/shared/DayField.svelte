<script lang="ts">
  import { readDay } from './days';
  import { day } from './format';

  /** A day, typed as people do: "fri", "12 dec", "+2w"; shown in the house's form. */
  interface Props {
    /** As the API takes it; empty for none. */
    value: string;
    label: string;
    required?: boolean;
  }

  let { value = $bindable(), label, required = false }: Props = $props();
  let typed = $state<string | null>(null);
  let field = $state<HTMLInputElement>();

  function take() {
    const text = typed?.trim() ?? '';
    if (typed === null) return;
    const read = readDay(text);
    field?.setCustomValidity(text && !read ? `“${text}” is no day; type fri, 12 dec or +2w.` : '');
    if (text && !read) return;
    [value, typed] = [read ?? '', null];
  }
</script>

<input
  bind:this={field}
  class="w-24 border-b border-dashed border-ink bg-transparent"
  value={typed ?? (value ? day(value) : '')}
  oninput={(e) => {
    typed = e.currentTarget.value;
    field?.setCustomValidity('');
  }}
  onchange={take}
  placeholder="fri, 12 dec"
  aria-label={label}
  {required}
/>
