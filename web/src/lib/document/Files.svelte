<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api';
  import { day } from '$lib/shared';

  interface Props {
    kind: string;
    number: string;
    /** The line that a new file goes to, if somebody wants that. */
    line: { key: number; number: string } | null;
    mayWrite: boolean;
  }

  /** Files of a document: for the house, for the buyer, what came in and what went out. */
  let { kind, number, line, mayWrite }: Props = $props();
  let dialog = $state<HTMLDialogElement>();
  let files = $state.raw<Schemas['AttachmentView'][]>([]);
  let shown = $state.raw<Schemas['AttachmentView'] | null>(null);
  let forBuyer = $state(false);
  let toLine = $state(false);
  let problem = $state('');
  const path = $derived({ path: { kind, number } });

  export async function open() {
    problem = '';
    dialog?.showModal();
    await run(async () => void (files = await ask(api.GET('/api/documents/{kind}/{number}/files', { params: path }))));
  }

  async function run(act: () => Promise<void>) {
    problem = '';
    try {
      await act();
    } catch (reason) {
      problem = reason instanceof Error ? reason.message : 'That did not work; nothing was changed.';
    }
  }

  const add = (picked: FileList | null) =>
    run(async () => {
      for (const file of picked ?? []) {
        files = await ask(
          api.POST('/api/documents/{kind}/{number}/files', {
            params: { ...path, query: { filename: file.name, forBuyer, line: toLine ? line?.key : undefined } },
            body: file as never,
            bodySerializer: (body: unknown) => body as BodyInit,
            headers: { 'Content-Type': 'application/octet-stream' },
          }),
        );
      }
    });

  const show = (file: Schemas['AttachmentView'], toBuyer: boolean) =>
    run(async () => {
      await ask(api.POST('/api/files/{file}/shown', { params: { path: { file: file.id } }, body: { forBuyer: toBuyer } }));
      await open();
    });

  const remove = (file: Schemas['AttachmentView']) =>
    run(async () => {
      await ask(api.DELETE('/api/files/{file}', { params: { path: { file: file.id } } }));
      if (shown === file) shown = null;
      await open();
    });

  const groups = $derived(
    (
      [
        ['inner', 'for the house'],
        ['buyer', 'for the buyer to see'],
        ['in', 'what came in'],
        ['out', 'what went out'],
      ] as const
    ).map(([of, words]) => ({ words, files: files.filter((f) => f.kind === of) })),
  );
  const size = (bytes: number) =>
    bytes < 1024 ? `${bytes} B` : bytes < 1024 * 1024 ? `${Math.round(bytes / 1024)} kB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
  const isPicture = (file: Schemas['AttachmentView']) => file.contentType.startsWith('image/');
  const isShown = (file: Schemas['AttachmentView']) => isPicture(file) || file.contentType === 'application/pdf';
</script>

<dialog
  bind:this={dialog}
  class="m-auto h-[min(620px,88vh)] w-[min(1000px,96vw)] border border-strong bg-sheet p-0 text-ink open:flex max-sm:open:block"
  aria-label="files"
  closedby="any"
  ondragover={(e) => e.preventDefault()}
  ondrop={(e) => {
    e.preventDefault();
    if (mayWrite) void add(e.dataTransfer?.files ?? null);
  }}
>
  <div class="flex w-[380px] shrink-0 flex-col overflow-y-auto border-r border-hairline p-4 max-sm:w-auto">
    <div class="flex justify-between">
      <h2 class="font-serif text-lg">Files</h2>
      <button class="text-second underline" onclick={() => dialog?.close()}>close</button>
    </div>
    {#if problem}<p role="alert" class="text-stop">{problem}</p>{/if}
    {#each groups as group (group.words)}
      {#if group.files.length}
        <h3 class="mt-3 text-[12px] text-second">{group.words}</h3>
        <ul>
          {#each group.files as file (file.path)}
            <li class="border-b border-hairline py-1">
              <div class="flex items-baseline justify-between gap-2">
                {#if isShown(file)}<button class="truncate text-left underline" onclick={() => (shown = file)}>{file.name}</button>
                {:else}<a class="truncate underline" href={file.path} download={file.id ? file.name : undefined}>{file.name}</a>{/if}
                <span class="shrink-0 text-[12px] text-second">{file.bytes ? size(file.bytes) : ''}</span>
              </div>
              <p class="text-[12px] text-second">
                {file.who}, {day(file.at)}{#if file.line !== null}, to a line{/if}
                {#if file.id && mayWrite}
                  · <button class="underline" onclick={() => void show(file, file.kind !== 'buyer')}
                    >{file.kind === 'buyer' ? 'for the house alone' : 'show it to the buyer'}</button
                  >
                  · <button class="underline" onclick={() => void remove(file)}>take away</button>
                {/if}
              </p>
            </li>
          {/each}
        </ul>
      {/if}
    {/each}
    {#if files.length === 0}<p class="mt-4 text-second">Nothing was put here, came in or went out yet. Drop pictures, PDFs or other files here.</p>{/if}
    {#if mayWrite}
      <div class="mt-auto grid gap-1 pt-4">
        <label><input type="checkbox" class="mr-1 align-[-2px] accent-(--ink)" bind:checked={forBuyer} />for the buyer to see</label>
        {#if line}<label><input type="checkbox" class="mr-1 align-[-2px] accent-(--ink)" bind:checked={toLine} />to line {line.number}</label>{/if}
        <label class="btn w-fit btn-outline btn-sm"
          >Put a file here…<input
            type="file"
            multiple
            class="sr-only"
            onchange={(e) => void add(e.currentTarget.files).then(() => ((e.target as HTMLInputElement).value = ''))}
          /></label
        >
      </div>
    {/if}
  </div>
  <div class="flex min-w-0 flex-1 items-center justify-center bg-ground p-3 max-sm:hidden">
    {#if shown && isPicture(shown)}<img class="max-h-full max-w-full object-contain" src={shown.path} alt={shown.name} />
    {:else if shown}<iframe class="h-full w-full border-0" src={shown.path} title={shown.name}></iframe>
    {:else}<p class="text-second">a picture or a PDF is shown here</p>{/if}
  </div>
</dialog>
