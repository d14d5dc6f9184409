import { getContext, setContext } from 'svelte';
import { api, ask, type Schemas } from '$lib/api';

/** Who is signed in. One for the whole app, handed down by the layout. */
export class Session {
  view = $state<Schemas['SessionView'] | null>(null);
  theme = $state<'paper' | 'night'>('paper');
  /** How close rows and fields stand; of this browser. */
  density = $state<'close' | 'usual' | 'roomy'>('usual');
  person = $derived(this.view?.person ?? null);

  load = async () => {
    this.view = await ask(api.GET('/api/session'));
  };

  stepIn = async (id: number) => {
    this.view = await ask(api.POST('/api/demo/step-in', { body: { id } }));
  };

  signIn = async (login: string, password: string, code: string | null = null) => {
    this.view = await ask(api.POST('/api/session', { body: { login, password, code } }));
  };

  signOut = async () => {
    await ask(api.DELETE('/api/session'));
    await this.load();
  };
}

const key = Symbol('session');

export function provideSession(): Session {
  return setContext(key, new Session());
}

export function useSession(): Session {
  const session = getContext<Session | undefined>(key);
  if (!session) throw new Error('useSession needs a layout that provided a Session.');
  return session;
}
