export { Session, provideSession, useSession } from './session.svelte';
