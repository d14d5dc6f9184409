export { default as PaperText } from './PaperText.svelte';
export { default as SwitchOff } from './SwitchOff.svelte';
export { default as RecordForm } from './RecordForm.svelte';
export { default as NewRecord } from './NewRecord.svelte';
export { default as Reference } from './Reference.svelte';
