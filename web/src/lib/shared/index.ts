export { default as DayField } from './DayField.svelte';
export { default as Mark } from './Mark.svelte';
export { default as Problem } from './Problem.svelte';
export { default as Ruler } from './Ruler.svelte';
export * from './days';
export * from './format';
export { Latest } from './latest.svelte';
export { overMany, saysOf } from './round';
