export { default as DocumentPage } from './DocumentPage.svelte';
export { trackOf, tracks, type Track } from './tracks';
