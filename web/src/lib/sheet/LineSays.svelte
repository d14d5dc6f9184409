<script lang="ts">
  import type { Schemas } from '$lib/api';
  import { KeyCap } from '$lib/keys';
  import type { SheetState } from './sheet.svelte';

  /** What a line says of itself, where it is otherwise than the whole; open, it can be typed. */
  let { sheet, line }: { sheet: SheetState; line: Schemas['LineView'] } = $props();

  interface Say {
    field: string;
    label: string;
    value: string;
    hint?: string;
    choices?: Schemas['TermChoice'][];
  }

  const says = $derived<Say[]>([
    { field: 'wanted', label: 'wanted', value: line.wanted ?? '', hint: 'fri, +2w; 20 on 12 dec; 30 on 19 dec' },
    { field: 'note', label: 'note, printed', value: line.note },
    { field: 'inner', label: 'note, ours alone', value: line.says.inner },
    { field: 'forWarehouse', label: 'for warehouse', value: line.says.forWarehouse },
    { field: 'job', label: 'for job', value: line.says.job },
    { field: 'orderedBy', label: 'ordered by', value: line.says.orderedBy },
    { field: 'deliverTo', label: 'deliver to', value: line.says.deliverTo ?? '', choices: sheet.terms['deliverTo']?.choices },
    { field: 'shipFrom', label: 'ships from', value: line.says.shipFrom ?? '', choices: sheet.terms['shipFrom']?.choices },
    ...(line.kind === 'item' && (line.cost !== null || line.isFree)
      ? [
          {
            field: 'cost',
            label: 'costs us',
            value: line.says.cost === null ? '' : `${line.says.cost}${line.says.costWhy ? ` // ${line.says.costWhy}` : ''}`,
            hint: line.isFree ? 'cost of one' : '4.20 // why',
          },
        ]
      : []),
  ]);

  function keys(event: KeyboardEvent & { currentTarget: HTMLInputElement }, say: Say) {
    event.stopPropagation();
    if (event.key === 'Escape') close();
    else if (event.key === 'Enter') {
      take(event.currentTarget, say);
      close();
    }
  }

  function take(input: HTMLInputElement, say: Say) {
    if (input.value.trim() !== say.value) void sheet.set(line.key, say.field, input.value.trim());
  }

  function close() {
    sheet.saying = false;
    document.querySelector<HTMLElement>('[data-sheet] td[tabindex="0"]')?.focus();
  }
</script>

<dl class="mt-1.5 grid grid-cols-4 gap-x-6 gap-y-1 max-lg:grid-cols-2 max-sm:grid-cols-1" aria-label="what this line says of itself">
  {#each says as say, i (say.field)}
    <div class="grid grid-cols-[92px_1fr] items-baseline border-b border-hairline">
      <dt class="text-second"><label for="say-{say.field}">{say.label}</label></dt>
      <dd>
        <input
          id="say-{say.field}"
          class="h-6 w-full bg-transparent outline-none placeholder:text-third focus:bg-sheet"
          value={say.value}
          placeholder={say.hint ?? ''}
          list={say.choices?.length ? `say-choices-${say.field}` : undefined}
          autocomplete="off"
          {@attach (input: HTMLInputElement) => {
            if (i === 0) input.focus();
          }}
          onkeydown={(e) => keys(e, say)}
          onblur={(e) => take(e.currentTarget, say)}
        />
        {#if say.choices?.length}
          <datalist id="say-choices-{say.field}">
            {#each say.choices as choice, c (c)}<option value={choice.value}>{choice.words}</option>{/each}
          </datalist>
        {/if}
      </dd>
    </div>
  {/each}
</dl>
<p class="mt-1 text-[12px] text-second"><KeyCap>Tab</KeyCap> goes on, <KeyCap>Esc</KeyCap> back to the lines</p>
