// The server knows nothing of pages: one app, drawn in the browser.
export const ssr = false;
export const prerender = false;
