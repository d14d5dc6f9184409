export type { Chosen } from './parts';
export { default as Original } from './Original.svelte';
export { default as ReadingPane } from './ReadingPane.svelte';
