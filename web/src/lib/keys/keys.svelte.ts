import { getContext, setContext, untrack } from 'svelte';

/** One key of the screen: what it is called on a key cap, what it does in words. */
export interface Key {
  /** As `KeyboardEvent.key`, in lower case; "Ctrl+z" with the control key, "Ctrl+Shift+z" with both. */
  key: string;
  words: string;
  run: () => void;
}

const context = Symbol('keys');

/** The keys of the screens that are open, the innermost first. Single letters only outside fields. */
export class Keys {
  #layers = $state<(() => readonly Key[])[]>([]);
  all = $derived(this.#layers.flatMap((layer) => layer()));

  /** Adds a screen's keys; the answer takes them away again. */
  add = (keys: () => readonly Key[]): (() => void) => {
    // Whoever adds keys in an effect must not come to depend on everybody else's.
    untrack(() => (this.#layers = [keys, ...this.#layers]));
    return () => untrack(() => (this.#layers = this.#layers.filter((layer) => layer !== keys)));
  };

  handle = (event: KeyboardEvent) => {
    if (event.defaultPrevented || event.altKey || document.querySelector('dialog[open]')) return;
    const control = event.ctrlKey || event.metaKey;
    if (!control && isField(event.target)) return;
    // A key pressed on a button or a link belongs to it.
    if (event.key === 'Enter' && event.target instanceof Element && event.target.closest('button, a')) return;
    const pressed = (control ? (event.shiftKey ? 'Ctrl+Shift+' : 'Ctrl+') : '') + (event.key.length === 1 ? event.key.toLowerCase() : event.key);
    // A box that is ticked takes the space bar, and no letters.
    if (event.key === ' ' && isTick(event.target)) return;
    const found = this.all.find((k) => k.key === pressed);
    if (!found) return;
    event.preventDefault();
    found.run();
  };
}

const isTick = (target: EventTarget | null) => target instanceof HTMLInputElement && target.type === 'checkbox';

export function isField(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && !isTick(target) && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
}

export function provideKeys(): Keys {
  return setContext(context, new Keys());
}

/** Gives a screen its keys for as long as it is open. */
export function useKeys(keys: () => readonly Key[]) {
  const all = getContext<Keys | undefined>(context);
  if (!all) throw new Error('useKeys needs a layout that provided Keys.');
  // Meets the window's key events through the layout.
  $effect(() => all.add(keys));
}

export function allKeys(): Keys {
  const all = getContext<Keys | undefined>(context);
  if (!all) throw new Error('allKeys needs a layout that provided Keys.');
  return all;
}
