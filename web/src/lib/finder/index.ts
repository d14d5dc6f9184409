export { default as Finder } from './Finder.svelte';
