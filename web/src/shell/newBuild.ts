import { ref } from 'vue';

/** How often a page left open looks for a new build, ms. */
const LOOK_MS = 3_600_000;

/** Set once a new build of Kauri is here and waits: it takes over when it is asked to, or when every page is closed. */
export const takeNewBuild = ref<(() => Promise<void>) | null>(null);

/** Has the browser keep the application itself, so that it opens without a network. Where it may not, nothing is lost but that. */
export async function keepApplication(): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  const { registerSW } = await import('virtual:pwa-register');
  const take = registerSW({
    onNeedRefresh: () => (takeNewBuild.value = () => take(true)),
    onRegisteredSW: (_, registration) =>
      void setInterval(() => void registration?.update().catch(() => undefined), LOOK_MS),
  });
}
