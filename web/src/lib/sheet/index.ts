export { default as HeadTerms } from './HeadTerms.svelte';
export { default as Sheet } from './Sheet.svelte';
export { SheetState, typed } from './sheet.svelte';
export { default as Tally } from './Tally.svelte';
export { default as Words } from './Words.svelte';
