export { default as Answer } from './Answer.svelte';
export { default as Rise } from './Rise.svelte';
