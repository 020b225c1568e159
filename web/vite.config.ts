import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [svelte()],
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  build: { outDir: '../build/web', emptyOutDir: true, assetsInlineLimit: 0, target: 'es2022' },
  server: { proxy: { '/api': 'http://127.0.0.1:8722' } },
  test: { include: ['src/**/*.test.ts'], environment: 'node' },
});
