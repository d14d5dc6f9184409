<script lang="ts">
  import { goto } from '$app/navigation';
  import { KeyCap, useKeys } from '$lib/keys';
  import { OwedState, Ways } from '$lib/ledger';
  import { usePulse } from '$lib/pulse';
  import { day, fixed, plain, Problem } from '$lib/shared';
  import { Words } from '$lib/sheet';

  const owed = new OwedState();
  const view = $derived(owed.view);
  const late = $derived((view?.sums ?? []).slice(1).reduce((sum, s) => sum + s, 0));
  let dialog = $state<Words>();
  const letters = ['', 'first', 'second', 'last'];

  // Meets the server.
  $effect(() => void owed.load());
  usePulse(
    (subject) => subject === 'bank',
    () => void owed.load(),
    5_000,
  );
  useKeys(() => [
    { key: 'j', words: 'next', run: () => owed.go(1) },
    { key: 'k', words: 'before', run: () => owed.go(-1) },
    { key: 'ArrowDown', words: 'next', run: () => owed.go(1) },
    { key: 'ArrowUp', words: 'before', run: () => owed.go(-1) },
    { key: 'Enter', words: 'open the account', run: () => void (owed.current && goto(`/ledger/owed/${owed.current.id}`)) },
    ...(view?.mayBook
      ? [
          { key: ' ', words: 'remind, or not', run: () => owed.choose(owed.current) },
          { key: 'r', words: 'remind the chosen ones', run: () => void (owed.chosen.length && dialog?.open()) },
        ]
      : []),
  ]);
  const money = (value: number) => (value === 0 ? '' : fixed(value, 2));
</script>

<svelte:head><title>Owed · Solvenda</title></svelte:head>
<Problem words={owed.problem || owed.latest.problem} onclose={() => (owed.problem = '')} />
{#if view}
  <div class="flex min-h-0 flex-1 flex-col px-5 pt-3">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 class="font-serif text-[25px] leading-tight">
        {view.currency}
        {fixed(
          view.sums.reduce((sum, s) => sum + s, 0),
          2,
        )} owed <em class="text-second">{late > 0 ? `${fixed(late, 2)} of it late` : 'none of it late'}</em>
      </h1>
      {#if owed.due.length}<span class="needs">{plain(owed.due.length)} to remind</span>{/if}
      <span class="ml-auto"><Ways /></span>
    </div>
    <div class="mt-3 min-h-0 flex-1 overflow-auto pb-4">
      {#if owed.rows.length}
        <table class="w-full border-collapse">
          <thead class="border-b border-strong text-left text-[11.5px] text-second">
            <tr>
              <th class="font-normal"><span class="sr-only">chosen</span></th>
              <th class="font-normal">buyer</th>
              {#each view.bands as band, i (band)}<th class="pr-2 text-right font-normal {i ? 'max-lg:hidden' : 'max-sm:hidden'}">{band}</th>{/each}
              <th class="pr-2 text-right font-normal">open</th>
              <th class="pr-2 text-right font-normal max-md:hidden">on account</th>
              <th class="font-normal max-sm:hidden">letters</th>
            </tr>
          </thead>
          <tbody>
            {#each owed.rows as row, i (row.id)}
              {@const here = owed.current?.id === row.id}
              <tr
                class="h-[31px] border-b border-hairline {here ? 'bg-focus-row shadow-[inset_3px_0_0_var(--ink)]' : ''}"
                aria-current={here ? 'true' : undefined}
                onclick={() => (owed.at = i)}
              >
                <td class="w-8 py-1.5 pl-2"
                  >{#if view.mayBook && owed.due.includes(row)}<input
                      type="checkbox"
                      class="checkbox checkbox-xs"
                      aria-label="remind {row.name}"
                      checked={owed.isChosen(row)}
                      onchange={() => owed.choose(row)}
                    />{/if}</td
                >
                <td class="max-w-0 truncate pr-2" title={row.name}><a class="hover:underline" href="/ledger/owed/{row.id}">{row.name}</a></td>
                {#each row.bands as band, b (b)}<td
                    class="w-[92px] pr-2 text-right whitespace-nowrap {b ? 'max-lg:hidden' : 'max-sm:hidden'} {b > 2 && band > 0 ? 'text-stop' : ''}"
                    >{money(band)}</td
                  >{/each}
                <td class="w-[104px] pr-2 text-right font-semibold whitespace-nowrap">{money(row.open)}</td>
                <td class="w-[92px] pr-2 text-right whitespace-nowrap text-second max-md:hidden">{money(row.onAccount)}</td>
                <td class="w-56 truncate text-second max-sm:hidden"
                  >{#if row.step > 0}<span class={row.hasAddress ? 'text-ink' : 'needs'}>{letters[row.step]} one due{row.hasAddress ? '' : ', no address'}</span
                    >{:else if row.remindedOn}reminded {day(row.remindedOn)}{/if}{row.disputed
                    ? `${row.step || row.remindedOn ? ' · ' : ''}disputed ${fixed(row.disputed, 2)}`
                    : ''}</td
                >
              </tr>
            {/each}
          </tbody>
          <tfoot>
            <tr class="border-t border-strong text-second">
              <td></td>
              <td class="py-1.5">in all</td>
              {#each view.sums as sum, b (b)}<td class="pr-2 text-right whitespace-nowrap {b ? 'max-lg:hidden' : 'max-sm:hidden'}">{money(sum)}</td>{/each}
              <td class="pr-2 text-right"></td>
              <td class="max-md:hidden"></td>
              <td class="max-sm:hidden"></td>
            </tr>
          </tfoot>
        </table>
      {:else}
        <p class="mt-6 text-second">Nobody owes anything.</p>
      {/if}
    </div>
    <footer class="flex flex-wrap items-center gap-4 border-t border-strong py-3">
      {#if view.mayBook && owed.due.length}
        <button class="btn btn-primary btn-sm" disabled={!owed.chosen.length || !!owed.busy} onclick={() => dialog?.open()}
          >Remind {plain(owed.chosen.length)} <KeyCap>R</KeyCap></button
        >
      {/if}
      <span class="text-second" role="status">{owed.busy || owed.done}</span>
    </footer>
  </div>
{/if}
<Words
  bind:this={dialog}
  title="Remind {plain(owed.chosen.length)} {owed.chosen.length === 1 ? 'buyer' : 'buyers'}?"
  says="Each gets a letter in their language with all that is late; what is disputed is left out."
  label=""
  button="Send the letters"
  take={async () => void owed.remind()}
/>
