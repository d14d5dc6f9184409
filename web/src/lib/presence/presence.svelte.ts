import { api } from '$lib/api';

/** Somebody who has the same document open. */
export interface Somebody {
  name: string;
  /** Key of the line that they are on; null for none. */
  line: number | null;
}

/**
 * Who else has a document open, and when it is changed, as it happens. Begun anew by the browser where the stream ends; closed while
 * nobody looks at the page, so that many open pages do not keep the browser's connections from those that are looked at.
 */
export class Others {
  here = $state.raw<readonly Somebody[]>([]);

  /**
   * @param subject number of the document.
   * @param line key of the line where the keys are.
   * @param changed called when the document was changed, by whomever.
   */
  constructor(subject: string, line: () => number | null, changed: () => void) {
    // Meets the server's stream.
    $effect(() => {
      let stream: EventSource | null = null;
      const begin = () => {
        stream?.close();
        stream = null;
        if (document.hidden) return;
        stream = new EventSource(`/api/presence/${encodeURIComponent(subject)}`);
        stream.onmessage = (event: MessageEvent<string>) => {
          const heard = JSON.parse(event.data) as { others: Somebody[]; changed: boolean };
          this.here = heard.others;
          if (heard.changed) changed();
        };
        stream.onerror = () => (this.here = []);
      };
      begin();
      document.addEventListener('visibilitychange', begin);
      return () => {
        document.removeEventListener('visibilitychange', begin);
        stream?.close();
      };
    });
    // Meets the server: says where one is, once the keys rest there.
    $effect(() => {
      const on = line();
      const timer = setTimeout(() => {
        // Where it is not heard, others see it at the next line.
        void api.POST('/api/presence/{subject}', { params: { path: { subject } }, body: { line: on } }).catch(() => undefined);
      }, 300);
      return () => clearTimeout(timer);
    });
  }
}
