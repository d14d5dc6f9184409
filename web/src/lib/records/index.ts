export { default as SwitchOff } from './SwitchOff.svelte';
export { default as RecordForm } from './RecordForm.svelte';
export { default as RecordList } from './RecordList.svelte';
export { loadKinds, RecordListState } from './records.svelte';
