export { providePulse, usePulse } from './pulse.svelte';
