import { api, ask, send, type Schemas } from '$lib/api';

type Caller = Schemas['Caller'];

/** A request that is typed while somebody talks, or sent from the road with pictures of their paper. */
export class TypedState {
  search = $state('');
  callers = $state.raw<readonly Caller[]>([]);
  at = $state(0);
  caller = $state<Caller | null>(null);
  kind = $state<'order' | 'quote'>('order');
  poNumber = $state('');
  wanted = $state('');
  text = $state('');
  files = $state.raw<readonly File[]>([]);
  problem = $state('');
  busy = $state(false);
  #by: 'phone' | 'field';
  #asked = 0;

  constructor(by: 'phone' | 'field') {
    this.#by = by;
  }

  ready = $derived.by(() => this.caller !== null && (this.text.trim().length > 0 || this.files.length > 0));

  /** Looks up who calls, by a number or a name; of several in a hurry the last one counts. */
  find = async (text: string) => {
    [this.search, this.caller] = [text, null];
    const mine = ++this.#asked;
    if (text.trim().length < 2) {
      this.callers = [];
      return;
    }
    try {
      const found = await ask(api.GET('/api/callers', { params: { query: { q: text } } }));
      if (mine === this.#asked) [this.callers, this.at] = [found, 0];
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'They could not be looked up.';
    }
  };

  pick = (caller: Caller | undefined) => {
    if (!caller) return;
    this.caller = caller;
    this.search = caller.who ? `${caller.who}, ${caller.name}` : caller.name;
    this.callers = [];
  };

  add = (files: Iterable<File>) => (this.files = [...this.files, ...files]);
  remove = (file: File) => (this.files = this.files.filter((f) => f !== file));

  /** Sends it; the number of the request that it became, or null where it was refused: what was typed stays. */
  send = async (): Promise<string | null> => {
    if (!this.caller || this.busy) return null;
    [this.busy, this.problem] = [true, ''];
    try {
      const form = new FormData();
      form.set('buyer', this.caller.code);
      form.set('who', this.caller.who);
      form.set('mail', this.caller.mail);
      form.set('kind', this.kind);
      form.set('poNumber', this.poNumber);
      form.set('wanted', this.wanted);
      form.set('text', this.text);
      for (const file of this.files) form.append('files', file, file.name);
      return (await send<Schemas['RequestRef']>(`/api/requests/typed?by=${this.#by}`, form)).number;
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'It was not sent; what you typed is still here.';
      return null;
    } finally {
      this.busy = false;
    }
  };
}
