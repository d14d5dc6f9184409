export { default as List } from './List.svelte';
export { default as ListPage } from './ListPage.svelte';
export type { Column } from './types';
