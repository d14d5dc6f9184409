export { default as AskLimit } from './AskLimit.svelte';
export { CreditState } from './credit.svelte';
export { default as Owes } from './Owes.svelte';
export { default as Standing } from './Standing.svelte';
