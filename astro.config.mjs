import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'astro/config';

export default defineConfig({
  srcDir: './web',
  output: 'server',
  adapter: node({ mode: 'middleware' }),
  integrations: [react()],
  // Every state-changing request is checked in web/middleware.ts, whatever its content type.
  security: { checkOrigin: false },
  devToolbar: { enabled: false },
  build: { inlineStylesheets: 'never' },
  // Scripts are named by their hashes; web/http/secureHeaders.ts writes the whole policy.
  experimental: { csp: true },
  vite: { plugins: [tailwindcss()], build: { sourcemap: false } },
});
