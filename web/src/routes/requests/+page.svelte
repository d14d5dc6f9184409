<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { send, type Schemas } from '$lib/api';
  import { ListPage, show } from '$lib/list';
  import { useSession } from '$lib/session';
  import { Problem } from '$lib/shared';

  const session = useSession();
  let problem = $state('');
  let told = $state('');
  let over = $state(false);

  // Bytes as they are: the server tells what it is.
  async function take(files: FileList | null) {
    [problem, told] = ['', ''];
    const numbers: string[] = [];
    for (const file of files ?? []) {
      try {
        const taken = await send<Schemas['TakenFile']>(`/api/requests/files?filename=${encodeURIComponent(file.name)}`, file);
        numbers.push(taken.number + (taken.isNew ? '' : ' (it was there)'));
      } catch (reason) {
        problem = `${file.name}: ${reason instanceof Error ? reason.message : 'It was not taken.'}`;
      }
    }
    if (numbers.length === 1 && !problem) await goto(`/requests/${numbers[0]!.split(' ')[0]}`);
    else if (numbers.length) told = `Taken: ${numbers.join(', ')}.`;
  }

  function paste(event: ClipboardEvent) {
    const at = event.target as HTMLElement;
    if (at.closest('input, textarea, select') || !session.person?.mayWrite) return;
    const text = event.clipboardData?.getData('text') ?? '';
    const files = event.clipboardData?.files;
    if (files?.length) void take(files);
    else if (text.trim()) {
      const pasted = new DataTransfer();
      pasted.items.add(new File([text], 'pasted.txt', { type: 'text/plain' }));
      void take(pasted.files);
    }
  }
</script>

<svelte:window onpaste={paste} />
<Problem words={problem} onclose={() => (problem = '')} />
{#if session.person?.mayWrite}
  <div
    role="group"
    aria-label="take in files"
    class="mx-5 mt-2 flex flex-wrap items-baseline gap-x-3 border border-dashed px-3 py-1 {over ? 'border-ink bg-sheet' : 'border-strong'}"
    ondragover={(e) => {
      e.preventDefault();
      over = true;
    }}
    ondragleave={() => (over = false)}
    ondrop={(e) => {
      e.preventDefault();
      over = false;
      void take(e.dataTransfer?.files ?? null);
    }}
  >
    <label class="cursor-pointer"
      ><input
        class="peer sr-only"
        type="file"
        multiple
        onchange={(e) => void take(e.currentTarget.files)}
        {@attach (input: HTMLInputElement) => (page.url.searchParams.has('take') ? input.focus() : undefined)}
      /><span class="underline peer-focus-visible:outline-2">take in a file</span></label
    >
    <span class="text-second">or drop it here, or paste what they wrote: a mail, an order as PDF, spreadsheet, EDI, a picture</span>
    <span class="ml-auto flex gap-4"><a class="underline" href="/phone">on the phone</a><a class="underline" href="/field">a photo order</a></span>
    {#if told}<span role="status">{told}</span>{/if}
  </div>
{/if}
<ListPage
  name="requests"
  open="that wait"
  all="all of them"
  example="state:&quot;needs you&quot; via:edi"
  narrow={['number', 'buyer', 'state', 'received']}
  path={(r) => `/requests/${r.calls}`}
  empty={() => 'Nothing waits. What comes by mail, EDI or the machine door appears here by itself.'}
>
  {#snippet cell(field, text)}
    {#if field.name === 'buyer'}<span class="font-serif text-[15px]">{text || 'unknown'}</span>
    {:else if field.name === 'state'}<span class:needs={text === 'needs you'}>{text}</span>
    {:else}<span class={field.name === 'channel' ? 'text-second' : ''}>{show(text, field.type)}</span>{/if}
  {/snippet}
</ListPage>
