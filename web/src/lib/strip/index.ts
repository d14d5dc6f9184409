export { default as Strip } from './Strip.svelte';
