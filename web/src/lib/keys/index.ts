export { default as KeyCap } from './KeyCap.svelte';
export { default as KeyHelp } from './KeyHelp.svelte';
export { formKeys } from './form';
export { allKeys, isField, provideKeys, useKeys, type Key } from './keys.svelte';
