import { defineConfig } from 'vite'

/** The logic alone, as one plain script for tests (see src/logic.ts). */
export default defineConfig({
  define: { 'process.env.NODE_ENV': '"production"' },
  build: {
    outDir: 'dist-logic',
    minify: false,
    lib: { entry: 'src/logic.ts', formats: ['iife'], name: 'logic', fileName: () => 'logic.js' },
  },
})
