export { default as DocumentPage } from './DocumentPage.svelte';
export { tracks, type Track } from './tracks';
