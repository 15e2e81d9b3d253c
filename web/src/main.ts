import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { keepTyped } from './device/leftDrafts';
import { beginSpeaking } from './language';
import { router } from './router';
import { showFaults } from './shell/faults';
import { keepApplication } from './shell/newBuild';
import { useSession } from './stores/session';
import './style.css';

await Promise.all([keepTyped().catch(() => undefined), beginSpeaking()]);
const app = createApp(App).use(createPinia());
// The pages of the yard are fetched by whoever is in, or was in here last: nobody waits for them at the door.
const session = useSession();
router.beforeEach(async (to) => {
  if (!to.meta.door && !session.wasHere()) await session.somebody();
});
app.use(router);
showFaults(app);
app.mount('#app');
// Behind everything that is looked at. The page may have come whole while what was typed was taken up.
const keepLater = () => requestIdleCallback(() => void keepApplication());
if (import.meta.env.PROD) {
  if (document.readyState === 'complete') keepLater();
  else addEventListener('load', keepLater);
}
