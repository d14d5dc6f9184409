export { Others } from './presence.svelte';
