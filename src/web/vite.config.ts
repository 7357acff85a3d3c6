import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { BootstrapVueNextResolver } from 'bootstrap-vue-next/resolvers'
import components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [
    vue(),
    components({
      resolvers: [BootstrapVueNextResolver()],
      dts: fileURLToPath(new URL('./src/components.d.ts', import.meta.url)),
    }),
  ],
  server: { host: '127.0.0.1', proxy: { '/api': 'http://127.0.0.1:5180' } },
  build: { chunkSizeWarningLimit: 800 },
  // vitest reads the same file; its own defineConfig would pull a second vite in.
  ...{
    test: {
      environment: 'jsdom',
      isolate: false,
      setupFiles: 'src/tests.setup.ts',
      testTimeout: 30_000,
      server: { deps: { inline: ['bootstrap-vue-next'] } },
    },
  },
})
