export { providePulse, usePulse, Pulse, type Moved } from './pulse.svelte';
