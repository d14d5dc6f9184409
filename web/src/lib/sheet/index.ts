export { default as HeadTerms } from './HeadTerms.svelte';
export { default as Sheet } from './Sheet.svelte';
export { default as NotTaken } from './NotTaken.svelte';
export { SheetState } from './sheet.svelte';
export { default as Tally } from './Tally.svelte';
export { default as Words } from './Words.svelte';
export { default as Columns } from './Columns.svelte';
