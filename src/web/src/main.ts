import '@fontsource-variable/bricolage-grotesque/index.css'
import '@fontsource-variable/figtree/index.css'
import 'bootstrap/dist/css/bootstrap.css'
import 'bootstrap-vue-next/dist/bootstrap-vue-next.css'
import './shared/desk.css'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createBootstrap } from 'bootstrap-vue-next'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { Refusal } from './api/client'

const queryClient = new QueryClient({
  defaultOptions: {
    // A refusal is an answer; only a silent server is asked again.
    queries: { staleTime: 10_000, retry: (count, error) => count < 2 && (error as Refusal).status === 0 },
  },
})

createApp(App).use(createPinia()).use(createBootstrap()).use(VueQueryPlugin, { queryClient }).use(router).mount('#app')
