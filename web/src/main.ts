import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { router } from './router';
import { showFaults } from './shell/faults';
import './style.css';

const app = createApp(App).use(createPinia()).use(router);
showFaults(app);
app.mount('#app');
