export { default as BuyerAnswers } from './BuyerAnswers.svelte';
export { default as ItemAnswers } from './ItemAnswers.svelte';
