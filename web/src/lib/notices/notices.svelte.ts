import { getContext, setContext } from 'svelte';
import { api, ask, type Schemas } from '$lib/api';

/** What one is told: how much is new, and the list. */
export class Notices {
  unseen = $state(0);
  list = $state.raw<readonly Schemas['NoticeView'][]>([]);

  load = async () => {
    try {
      const view = await ask(api.GET('/api/notices'));
      [this.unseen, this.list] = [view.unseen, view.notices];
    } catch {
      // The server is away for a moment; the next change asks again.
    }
  };

  /** Hears of what is new as it happens, while the page is looked at; the answer ends it. */
  hear = (): (() => void) => {
    let stream: EventSource | null = null;
    // Pages behind others hold no connection: a browser has few for one house.
    const turn = () => {
      if (document.hidden) {
        stream?.close();
        stream = null;
      } else if (!stream) {
        stream = new EventSource('/api/notices/stream');
        stream.onmessage = () => void this.load();
      }
    };
    document.addEventListener('visibilitychange', turn);
    turn();
    return () => {
      document.removeEventListener('visibilitychange', turn);
      stream?.close();
    };
  };

  /** What stands there was looked at; it keeps its stroke until the page is left. */
  see = async () => {
    const upTo = this.list[0]?.id;
    if (!this.unseen || upTo === undefined) return;
    this.unseen = 0;
    try {
      await ask(api.POST('/api/notices/seen', { body: { upTo } }));
    } catch {
      await this.load();
    }
  };
}

const key = Symbol('notices');

export const provideNotices = (): Notices => setContext(key, new Notices());

export function useNotices(): Notices {
  const notices = getContext<Notices | undefined>(key);
  if (!notices) throw new Error('useNotices needs a layout that provided Notices.');
  return notices;
}
