export { default as Anew } from './Anew.svelte';
export { default as AskFor } from './AskFor.svelte';
export { default as Stepped } from './Stepped.svelte';
export { OutlookState, PlanningState } from './planning.svelte';
