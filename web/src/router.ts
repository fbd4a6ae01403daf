import { createRouter, createWebHistory } from 'vue-router'
import DayPage from '@/day/DayPage.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'day', component: DayPage },
    {
      path: '/students/:id',
      name: 'student',
      component: () => import('@/day/StudentPage.vue'),
      props: true,
    },
    {
      path: '/lessons/:id/:stage(listen|shots|look|pressure|decide|drill|retest|send)?',
      name: 'lesson',
      component: () => import('@/lesson/LessonPage.vue'),
      props: true,
    },
    {
      path: '/casebook/:part(right|pays|learned)?',
      name: 'casebook',
      component: () => import('@/casebook/CasebookPage.vue'),
      props: true,
    },
    {
      path: '/settings',
      name: 'settings',
      component: () => import('@/settings/SettingsPage.vue'),
    },
    { path: '/pair', name: 'pair', component: () => import('@/pair/PairPage.vue') },
    { path: '/map', name: 'map', component: () => import('@/map/MapPage.vue') },
    { path: '/:rest(.*)', name: 'lost', component: () => import('@/ui/LostPage.vue') },
  ],
})
