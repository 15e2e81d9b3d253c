import { createRouter, createWebHistory } from 'vue-router';

/** Stations load when first opened; the shell stays. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/today' },
    { path: '/today', name: 'today', component: () => import('./stations/today/TodayStation.vue') },
    { path: '/yard/:place?', name: 'yard', component: () => import('./stations/yard/YardStation.vue') },
    { path: '/grow/:lot?', name: 'grow', component: () => import('./stations/grow/GrowStation.vue') },
    { path: '/lift/:lot?', name: 'lift', component: () => import('./stations/lift/LiftStation.vue') },
    { path: '/records', name: 'records', component: () => import('./stations/records/RecordsPage.vue') },
    { path: '/:rest(.*)*', redirect: '/today' },
  ],
});
