export { default as CallerField } from './CallerField.svelte';
export { TypedState } from './typed.svelte';
