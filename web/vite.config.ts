import { sveltekit } from '@sveltejs/kit/vite';
import { svelteTesting } from '@testing-library/svelte/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit(), svelteTesting()],
  // Nothing is inlined: the content security policy lets fonts and pictures come from files only.
  build: { assetsInlineLimit: 0 },
  test: { setupFiles: ['src/lib/test/setup.ts'] },
  server: { proxy: { '/api': 'http://127.0.0.1:5280', '/openapi': 'http://127.0.0.1:5280' } },
});
