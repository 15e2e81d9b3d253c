import { createRouter, createWebHistory } from 'vue-router';

/**
 * Stations load when first opened; the shell stays. What `lots` is said of tells what stands where, and waits for it.
 */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/today' },
    { path: '/today', name: 'today', component: () => import('./stations/today/TodayStation.vue') },
    {
      path: '/yard',
      component: () => import('./stations/yard/YardShell.vue'),
      children: [
        {
          path: 'site',
          name: 'yard-site',
          meta: { lots: true },
          component: () => import('./stations/yard/site/SitePage.vue'),
        },
        {
          path: 'light',
          name: 'yard-light',
          meta: { lots: true },
          component: () => import('./stations/yard/light/LightPage.vue'),
        },
        {
          path: 'weather',
          name: 'yard-weather',
          meta: { lots: true },
          component: () => import('./stations/yard/weather/WeatherPage.vue'),
        },
        {
          path: 'water',
          name: 'yard-water',
          meta: { lots: true },
          component: () => import('./stations/yard/water/WaterPage.vue'),
        },
        { path: 'build', name: 'yard-build', component: () => import('./stations/yard/build/BuildPage.vue') },
        {
          path: 'containers',
          name: 'yard-containers',
          component: () => import('./stations/yard/containers/ContainersPage.vue'),
        },
        { path: 'media', name: 'yard-media', component: () => import('./stations/yard/media/MediaPage.vue') },
        {
          path: ':place?',
          name: 'yard',
          meta: { lots: true },
          component: () => import('./stations/yard/YardStation.vue'),
        },
      ],
    },
    {
      path: '/seed',
      component: () => import('./stations/seed/SeedShell.vue'),
      children: [
        {
          path: 'clock/:batch?',
          name: 'seed-clock',
          component: () => import('./stations/seed/clock/ClockPage.vue'),
        },
        {
          path: 'desk',
          name: 'seed-desk',
          meta: { lots: true },
          component: () => import('./stations/seed/desk/DeskPage.vue'),
        },
        {
          path: 'up/:lot?',
          name: 'seed-up',
          meta: { lots: true },
          component: () => import('./stations/seed/up/UpPage.vue'),
        },
        {
          path: 'cuttings/:bed?',
          name: 'seed-cuttings',
          component: () => import('./stations/seed/cuttings/CuttingsPage.vue'),
        },
        {
          path: 'layers/:layer?',
          name: 'seed-layers',
          component: () => import('./stations/seed/layers/LayersPage.vue'),
        },
        {
          path: 'arrivals',
          name: 'seed-arrivals',
          component: () => import('./stations/seed/arrivals/ArrivalsPage.vue'),
        },
        {
          path: 'labels',
          name: 'seed-labels',
          component: () => import('./stations/seed/labels/LabelsPage.vue'),
        },
        {
          path: 'species/:species?',
          name: 'seed-species',
          component: () => import('./stations/seed/species/SpeciesPage.vue'),
        },
        { path: ':seedLot?', name: 'seed', component: () => import('./stations/seed/store/StorePage.vue') },
      ],
    },
    {
      path: '/plan',
      component: () => import('./stations/plan/PlanShell.vue'),
      children: [
        {
          path: 'promise',
          name: 'plan-promise',
          component: () => import('./stations/plan/PromisePage.vue'),
        },
        { path: 'when', name: 'plan-when', component: () => import('./stations/plan/WhenPage.vue') },
        { path: 'costs', name: 'plan-costs', component: () => import('./stations/plan/CostsPage.vue') },
        {
          path: 'season/:proposal?/:line?',
          name: 'plan-season',
          component: () => import('./stations/plan/SeasonPage.vue'),
        },
        { path: 'lists', name: 'plan-lists', component: () => import('./stations/plan/ListsPage.vue') },
        { path: 'board', name: 'plan-board', component: () => import('./stations/plan/BoardPage.vue') },
        { path: 'routes', name: 'plan-routes', component: () => import('./stations/plan/RoutesPage.vue') },
        { path: ':order?', name: 'plan', component: () => import('./stations/plan/OrdersPage.vue') },
      ],
    },
    { path: '/scan', name: 'scan', component: () => import('./scan/ScanPage.vue') },
    { path: '/grow/:lot?', name: 'grow', component: () => import('./stations/grow/GrowStation.vue') },
    { path: '/roots/:lot?', name: 'roots', component: () => import('./stations/roots/RootsStation.vue') },
    {
      path: '/lift',
      component: () => import('./stations/lift/LiftShell.vue'),
      children: [
        {
          path: 'tally/:lot',
          name: 'lift-tally',
          meta: { handsFull: true },
          component: () => import('./stations/lift/TallyPage.vue'),
        },
        { path: 'order', name: 'lift-order', component: () => import('./stations/lift/OrderPage.vue') },
        { path: 'load', name: 'lift-load', component: () => import('./stations/lift/LoadPage.vue') },
        { path: 'lifted', name: 'lift-lying', component: () => import('./stations/lift/LyingPage.vue') },
        { path: ':lot?', name: 'lift', component: () => import('./stations/lift/LiftStation.vue') },
      ],
    },
    {
      path: '/planted',
      component: () => import('./stations/planted/PlantedShell.vue'),
      children: [
        { path: 'year', name: 'planted-year', component: () => import('./stations/planted/YearPage.vue') },
        { path: 'lived', name: 'planted-lived', component: () => import('./stations/planted/LivedPage.vue') },
        {
          path: 'walk/:walk',
          name: 'planted-walk',
          meta: { handsFull: true },
          component: () => import('./stations/planted/WalkPage.vue'),
        },
        {
          path: ':planting?',
          name: 'planted',
          component: () => import('./stations/planted/PlantingsPage.vue'),
        },
      ],
    },
    { path: '/held', name: 'held', component: () => import('./stations/grow/HeldPage.vue') },
    { path: '/learnt', name: 'learnt', component: () => import('./stations/grow/LearntPage.vue') },
    { path: '/people', name: 'people', component: () => import('./stations/people/PeoplePage.vue') },
    { path: '/practice', name: 'practice', component: () => import('./stations/people/PracticePage.vue') },
    { path: '/account', name: 'account', component: () => import('./stations/people/AccountPage.vue') },
    { path: '/join', name: 'join', meta: { door: true }, component: () => import('./door/JoinDoor.vue') },
    {
      path: '/password',
      name: 'password',
      meta: { door: true },
      component: () => import('./door/PasswordDoor.vue'),
    },
    { path: '/words', name: 'words', component: () => import('./help/WordsPage.vue') },
    { path: '/records', name: 'records', component: () => import('./stations/records/RecordsPage.vue') },
    { path: '/:rest(.*)*', redirect: '/today' },
  ],
});
