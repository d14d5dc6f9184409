export { AskState } from './ask.svelte';
export { default as Facts } from './Facts.svelte';
export { default as Figures } from './Figures.svelte';
export { default as Item } from './Item.svelte';
export { default as Lines } from './Lines.svelte';
export { default as Said } from './Said.svelte';
export { default as SendBack } from './SendBack.svelte';
export { default as Together } from './Together.svelte';
