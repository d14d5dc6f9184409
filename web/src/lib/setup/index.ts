export { default as HouseForm } from './HouseForm.svelte';
export { AuthorityState, limitOf } from './authority.svelte';
export { default as Lately } from './Lately.svelte';
export { default as LimitTable } from './LimitTable.svelte';
export { default as Line } from './Line.svelte';
export { default as NumberSeries } from './NumberSeries.svelte';
export { default as PolicyEditor } from './PolicyEditor.svelte';
export { PoliciesState } from './policies.svelte';
export { default as Trial } from './Trial.svelte';
