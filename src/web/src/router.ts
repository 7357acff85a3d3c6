import { createRouter, createWebHistory } from 'vue-router'
import { tabs } from './shared/places'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: () => import('./features/albums/ShelfView.vue') },
    { path: '/sign-in', name: 'sign-in', component: () => import('./features/household/SignInView.vue') },
    { path: '/welcome', name: 'welcome', component: () => import('./features/household/WelcomeView.vue') },
    { path: '/join', name: 'join', component: () => import('./features/household/JoinView.vue') },
    { path: '/write', name: 'write', component: () => import('./features/household/WriteView.vue') },
    { path: '/operations', name: 'operations', component: () => import('./features/household/OperationsView.vue') },
    { path: '/account', name: 'account', component: () => import('./features/household/AccountView.vue') },
    {
      path: '/albums/:albumId/note',
      name: 'note',
      component: () => import('./features/dates/QuickNote.vue'),
      props: true,
    },
    {
      // An album, what of it is looked at, the step of the work, and the room of that step.
      path: `/albums/:albumId/:scope?/:tab(${tabs.map((t) => t.key).join('|')})?/:room?`,
      name: 'album',
      component: () => import('./features/albums/AlbumView.vue'),
      props: true,
    },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
