import { createRouter, createWebHistory } from 'vue-router'

const rooms = [
  'overview',
  'photos',
  'cameras',
  'keepsakes',
  'series',
  'leaves',
  'designs',
  'formulas',
  'words',
  'styles',
  'letters',
]

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: () => import('./features/albums/ShelfView.vue') },
    {
      path: '/albums/:albumId/:unitId?/:tab(gather|tell|count|place|print)?',
      name: 'desk',
      component: () => import('./features/albums/DeskView.vue'),
      props: true,
    },
    {
      path: `/albums/:albumId/all/:room(${rooms.join('|')})`,
      name: 'room',
      component: () => import('./features/albums/RoomView.vue'),
      props: true,
    },
    {
      path: '/albums/:albumId/note',
      name: 'note',
      component: () => import('./features/dates/QuickNote.vue'),
      props: true,
    },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
