import { say } from '../speech/say';

/** A sentence for what a schema refuses, in the language of whoever sent it. */
export function told(strings: TemplateStringsArray, ...values: unknown[]): { error: () => string } {
  return { error: () => say(strings, ...values) };
}
