export { default as ListPage } from './ListPage.svelte';
export { show } from './cells';
export { ListState, loadKinds, type Field, type Kind, type Row } from './list.svelte';
