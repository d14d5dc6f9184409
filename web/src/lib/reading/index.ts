export { default as Answer } from './Answer.svelte';
export { default as InHand } from './InHand.svelte';
export { default as Original } from './Original.svelte';
export { default as ReadingPane } from './ReadingPane.svelte';
export { ChangeState } from './change.svelte';
export { RequestState } from './request.svelte';
export { default as RequestFoot } from './RequestFoot.svelte';
export { default as RequestHead } from './RequestHead.svelte';
export { default as Thread } from './Thread.svelte';
