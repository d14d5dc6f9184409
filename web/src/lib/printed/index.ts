export { default as PrintedQuote } from './PrintedQuote.svelte';
