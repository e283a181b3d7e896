import { svelte } from '@sveltejs/vite-plugin-svelte'
import tailwindcss from '@tailwindcss/vite'
import { defineConfig } from 'vitest/config'
import { methodPage } from './build/method-page.ts'

export default defineConfig({
  plugins: [tailwindcss(), svelte(), methodPage()],
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    target: 'es2023',
    // Inlined fonts would need a wider content security policy.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
  // A busy machine is no failure.
  test: { testTimeout: 120_000, hookTimeout: 120_000 },
  server: { proxy: { '/api': 'http://localhost:8742' } },
})
