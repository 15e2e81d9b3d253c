import { say } from '@kauri/core';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import type { Request, RequestHandler } from 'express';
import { Refusal } from './problems';
import { tokenHashOf } from './sessions';

/** How many people may share a network address before it is held back, each at the most one may ask. */
const PEOPLE_AT_AN_ADDRESS = 5;

/**
 * Holds back whoever asks far more than a person can: by session, and by network address. Counted in each
 * server's memory; it guards the machine, not a secret.
 */
export function generalLimit(requestsPerMinute: number): RequestHandler[] {
  const limit = (most: number, keyOf: (req: Request) => string | null) =>
    rateLimit({
      windowMs: 60_000,
      limit: most,
      standardHeaders: false,
      legacyHeaders: false,
      skip: (req) => keyOf(req) === null,
      keyGenerator: (req) => keyOf(req)!,
      handler: (_req, _res, next) =>
        next(new Refusal(429, 'too-many-requests', say`Too much at once. Wait a minute; nothing is lost.`)),
    });
  return [
    limit(requestsPerMinute * PEOPLE_AT_AN_ADDRESS, (req) => ipKeyGenerator(req.ip ?? '')),
    limit(requestsPerMinute, tokenHashOf),
  ];
}
