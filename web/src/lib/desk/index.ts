export { default as Day } from './Day.svelte';
export { DeskState } from './desk.svelte';
