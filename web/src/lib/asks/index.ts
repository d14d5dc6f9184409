export { default as AskLine } from './AskLine.svelte';
