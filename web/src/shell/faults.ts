import { say } from '@kauri/core';
import type { App } from 'vue';
import { OfflineError, ProblemError, sentenceOf } from '../api/problem';
import { useMessages } from '../stores/messages';

/**
 * Shows what no part of the screen expected. What the server said is said as it is; anything else is a fault of Kauri's,
 * and goes to the console with its stack.
 */
export function showFaults(app: App): void {
  const show = (error: unknown) => {
    const known = error instanceof ProblemError || error instanceof OfflineError;
    if (!known) console.error(error);
    useMessages().say(
      known
        ? sentenceOf(error)
        : say`Kauri failed here: ${sentenceOf(error)} What was saved is safe. Load the page again if it looks wrong.`,
    );
  };
  app.config.errorHandler = show;
  window.addEventListener('unhandledrejection', (event) => {
    event.preventDefault();
    show(event.reason);
  });
}
