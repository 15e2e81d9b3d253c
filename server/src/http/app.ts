import { randomUUID } from 'node:crypto';
import { say } from '@kauri/core';
import { openApi, routes, type Route, type RouteName } from '@kauri/core/contract';
import compression from 'compression';
import packedBefore from 'express-static-gzip';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { Server } from './context';
import { Refusal, toProblem } from './problems';
import type { Changes } from '../db/changes';
import { serveChanges } from './changes';
import { generalLimit } from './generalLimit';
import { mustHaveAccess } from './access';
import { serve } from './serve';
import { limitTries } from './tryLimit';
import { languages, spokenIn } from '../speech';

export interface AppOptions {
  server: Server;
  log: Logger;
  /** Where writes of others are heard of as they land; left out where nobody listens. */
  changes?: Changes;
  /** Folder of the built interface; left out where only the API is wanted. */
  webRoot?: string;
  /** Where people reach Kauri, when something in front of it ends TLS. */
  address?: string;
  /** Requests a minute one person may make; 0 sets no limit. */
  requestsPerMinute?: number;
  /** Told of every answer: the route by its name, or none, and how long it took, ms. */
  onAnswer?: (route: string, status: number, tookMs: number) => void;
}

/** The HTTP application: the contract's routes over the database, and the built interface. */
export function makeApp({
  server,
  log,
  changes,
  webRoot,
  address,
  requestsPerMinute = 0,
  onAnswer,
}: AppOptions): Express {
  const app = express();
  const isTls = address?.startsWith('https:') ?? false;
  // One thing stands in front: it says who calls, and over what.
  app.set('trust proxy', address ? 1 : false);
  app.disable('x-powered-by');
  // Answers are never cached, so nothing is gained by a digest of each; files have their own.
  app.disable('etag');
  app.use((req, res, next) => {
    res.locals.requestId = randomUUID();
    res.setHeader('X-Request-Id', res.locals.requestId);
    const beganMs = performance.now();
    res.on('finish', () => {
      // A stream lasts as long as its page.
      if (res.locals.route !== 'changes')
        onAnswer?.(res.locals.route ?? 'none', res.statusCode, performance.now() - beganMs);
      log.info({
        id: res.locals.requestId,
        method: req.method,
        url: req.originalUrl.split('?')[0],
        status: res.statusCode,
      });
    });
    next();
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'"],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          manifestSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      // Over plain HTTP on loopback it would mean nothing.
      strictTransportSecurity: isTls,
    }),
  );
  // Fast rather than small: a phone among the beds gains most of it either way. Streams go out line by line, as they come.
  app.use(
    compression({
      level: 4,
      threshold: 2_000,
      filter: (req, res) =>
        !/ndjson|event-stream/.test(String(res.getHeader('Content-Type'))) && compression.filter(req, res),
    }),
  );
  // The cutting solver and the reader of tags are WebAssembly. Their workers alone, whose own answers set their policy, may compile it.
  app.use('/assets', (req, res, next) => {
    for (const header of OF_PAGES) res.removeHeader(header);
    if (/^\/(cut|tags)\.worker-/.test(req.path))
      res.setHeader(
        'Content-Security-Policy',
        "default-src 'none';script-src 'self' 'wasm-unsafe-eval';connect-src 'self'",
      );
    next();
  });
  // Before the hundreds of routes, which no file needs to be held against.
  if (webRoot) {
    const files = filesOf(webRoot);
    app.use((req, res, next) => (/^\/api(\/|$)/i.test(req.path) ? next() : files(req, res, next)));
  }
  app.use('/api', (req, res, next) => {
    res.setHeader('Cache-Control', 'no-store');
    // Every sentence of the answer is in the caller's language, refusals as well.
    spokenIn(req.acceptsLanguages(...languages) || languages[0], next);
  });
  app.get('/api/openapi.json', (_req, res) => void res.type('json').send(description()));
  app.use('/api', requireSameOrigin(address ? new URL(address).host : null));
  if (requestsPerMinute) app.use('/api', ...generalLimit(requestsPerMinute));
  if (changes) serveChanges(app, server, changes);
  const all = (Object.entries(routes) as [RouteName, Route][]).map(([name, route]) => ({
    name,
    route,
    method: route.method.toLowerCase() as 'get' | 'post' | 'put',
  }));
  for (const { name, route, method } of all)
    app[method](`/api${route.path}`, async (req, res, next) => {
      res.locals.route = name;
      if (route.method !== 'GET') await mustHaveAccess(server, route, req);
      next();
    });
  app.use('/api', express.json({ limit: '1mb', strict: true }));
  limitTries(app, server.pool);
  for (const { name, route, method } of all)
    app[method](`/api${route.path}`, (req, res) => serve(server, name, route, req, res));
  app.use('/api', (req, _res, next) =>
    next(new Refusal(404, 'no-such-route', say`There is nothing at ${req.originalUrl.split('?')[0]}.`)),
  );
  app.use((error: unknown, _req: Request, res: Response, _next: NextFunction) => {
    const problem = toProblem(error, res.locals.requestId);
    if (problem.status >= 500) log.error({ id: res.locals.requestId, err: error });
    if (res.headersSent) return void res.end(`${JSON.stringify({ problem })}\n`);
    res.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  });
  return app;
}

/** What the contract says of itself, put together when it is first asked for: a second of a start's work. */
let told: string | undefined;
const description = () => (told ??= JSON.stringify(openApi('0.1.0')));

/** Writes must come from Kauri's own pages: the browser says so in Origin. */
function requireSameOrigin(ownHost: string | null) {
  return (req: Request, _res: Response, next: NextFunction): void => {
    if (req.method === 'GET' || req.method === 'HEAD') return next();
    const { origin } = req.headers;
    const host = origin && URL.canParse(origin) ? new URL(origin).host : null;
    if (host !== null && host === (ownHost ?? req.headers.host)) return next();
    next(new Refusal(403, 'wrong-origin', say`This request did not come from Kauri’s own pages.`));
  };
}

/** What is said of a page says nothing of a script or a font: a page has some eighty of them, and each would carry it. */
const OF_PAGES = [
  'Cross-Origin-Opener-Policy',
  'Origin-Agent-Cluster',
  'Referrer-Policy',
  'X-DNS-Prefetch-Control',
  'X-Download-Options',
  'X-Frame-Options',
  'X-Permitted-Cross-Domain-Policies',
  'X-XSS-Protection',
];

function filesOf(webRoot: string): express.Router {
  const files = express.Router();
  files.use(
    '/assets',
    packedBefore(`${webRoot}/assets`, {
      enableBrotli: true,
      orderPreference: ['br'],
      serveStatic: { immutable: true, maxAge: '365d', fallthrough: false },
    }),
  );
  files.use(express.static(webRoot, { index: false, maxAge: 0 }));
  files.use((req, res, next) => {
    if (req.method !== 'GET') return next();
    // Views have no dots in their last part: what has is a file, and there is none.
    if (/\.[^/]*$/.test(decodeURIComponent(req.path)))
      return next(new Refusal(404, 'no-such-file', say`There is no such file.`));
    res.setHeader('Cache-Control', 'no-cache');
    res.sendFile('index.html', { root: webRoot });
  });
  return files;
}
