import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

export default defineConfig({
  base: './', // beside the <base> that the server writes into the page
  plugins: [vue()],
  server: { proxy: { '/api': 'http://127.0.0.1:8400' } },
  build: {
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'editor', test: /node_modules\/@(codemirror|lezer)/ },
            { name: 'ui', test: /node_modules\/(ant-design-vue|@ant-design)/ },
            { name: 'vue', test: /node_modules\/(@vue|vue|vue-router|pinia|@vueuse)/ },
          ],
        },
      },
    },
  },
})
