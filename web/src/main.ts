import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { keepTyped } from './device/leftDrafts';
import { router } from './router';
import { showFaults } from './shell/faults';
import { keepApplication } from './shell/newBuild';
import './style.css';

await keepTyped().catch(() => undefined);
const app = createApp(App).use(createPinia()).use(router);
showFaults(app);
app.mount('#app');
// Behind everything that is looked at.
if (import.meta.env.PROD) addEventListener('load', () => requestIdleCallback(() => void keepApplication()));
