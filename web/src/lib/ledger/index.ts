export { default as BeforeInvoice } from './BeforeInvoice.svelte';
export { earnedWords } from './earned';
export { BankState } from './bank.svelte';
export { BillingState } from './billing.svelte';
export { AccountState, OwedState } from './owed.svelte';
export { default as OrderMoney } from './OrderMoney.svelte';
export { default as ProForma } from './ProForma.svelte';
export { default as ReceiptForm } from './ReceiptForm.svelte';
export { default as Ways } from './Ways.svelte';
