import { dayOf } from '@kauri/core';
import { z } from 'zod';

const isDay = (text: string) => {
  try {
    dayOf(text);
    return true;
  } catch {
    return false;
  }
};
const whole = (what: string, least: number, most: number) =>
  z.coerce
    .number(`${what} is a whole number.`)
    .int(`${what} is a whole number.`)
    .min(least, `${what} is at least ${least}.`)
    .max(most, `${what} is at most ${most}.`);

/** Everything Kauri reads from its environment. An empty setting is one that is not set. */
const Settings = z.object({
  /** A connection that owns the database. */
  DATABASE_URL: z
    .string()
    .regex(/^postgres(ql)?:\/\//, 'DATABASE_URL begins with postgres://.')
    .optional(),
  /**
   * Where requests reach the same database through a pooler that lends a connection for one transaction:
   * postgres://127.0.0.1:6432/kauri. Its user is the one the server works as; DATABASE_URL stays a way that lasts.
   */
  KAURI_POOLER: z
    .string()
    .regex(/^postgres(ql)?:\/\//, 'KAURI_POOLER begins with postgres://.')
    .optional(),
  PORT: whole('PORT', 0, 65_535).default(4310),
  HOST: z.string().default('127.0.0.1'),
  /** Fixes today, for trying things out: YYYY-MM-DD. */
  KAURI_TODAY: z.string().refine(isDay, 'KAURI_TODAY is a date that exists, written YYYY-MM-DD.').optional(),
  KAURI_DEMO: z.enum(['0', '1'], 'KAURI_DEMO is 0 or 1.').default('0'),
  KAURI_LOG: z
    .enum(
      ['silent', 'fatal', 'error', 'warn', 'info', 'debug'],
      'KAURI_LOG is silent, error, warn, info or debug.',
    )
    .optional(),
  /**
   * Where people reach Kauri, when something in front of it ends TLS: https://trees.example. With it, cookies are
   * bound to TLS, writes must come from that address, and the address of a caller is read from what stands in front.
   */
  KAURI_ADDRESS: z
    .string()
    .refine(
      (text) => /^https?:\/\/[^/]+\/?$/.test(text) && URL.canParse(text),
      'KAURI_ADDRESS is a whole address, such as https://trees.example, without a path.',
    )
    .optional(),
  /** Requests a minute that one person, or one network address with five times as many, may make. 0 sets no limit. */
  KAURI_REQUESTS: whole('KAURI_REQUESTS', 0, 1_000_000).default(1200),
  /** A port on 127.0.0.1 that tells how the server does, as Prometheus reads it. */
  KAURI_METRICS: whole('KAURI_METRICS', 1, 65_535).optional(),
  /** A folder for nightly copies of the whole database. */
  KAURI_BACKUPS: z.string().optional(),
});
export type Settings = z.infer<typeof Settings>;

/**
 * Reads the settings.
 * @throws Error with a sentence for each that cannot be used
 */
export function settingsOf(environment: Record<string, string | undefined>): Settings {
  const set = Object.fromEntries(Object.entries(environment).filter(([, value]) => value?.trim()));
  const read = Settings.safeParse(set);
  if (read.success) return read.data;
  throw new Error(read.error.issues.map((issue) => issue.message).join('\n'));
}
