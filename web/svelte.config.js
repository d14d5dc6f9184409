import adapter from '@sveltejs/adapter-static';

/** @type {import('@sveltejs/kit').Config} */
export default {
  kit: {
    adapter: adapter({ pages: '../src/Solvenda.Web/wwwroot', assets: '../src/Solvenda.Web/wwwroot', fallback: 'index.html' }),
  },
};
