export { default as ListPage } from './ListPage.svelte';
export { show } from './cells';
export { loadKinds } from './list.svelte';
