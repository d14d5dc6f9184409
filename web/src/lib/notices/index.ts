export { Notices, provideNotices, useNotices } from './notices.svelte';
