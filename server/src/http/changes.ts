import { changesPath, Id, PAGE_HEADER, type Landed, type Route } from '@kauri/core/contract';
import type { Express, Request } from 'express';
import type { Changes } from '../db/changes';
import type { Server } from './context';
import { mustHaveAccess } from './access';

/** A quiet stream says that it lives this often, ms; and whoever listens must still be a member then. */
const BEAT_MS = 25_000;
const toRead = { method: 'GET', access: 'visitor' } as Route;

/** The page that sent a write, by the name it gave itself. */
export function pageOf(req: Request): string | null {
  const name = req.headers[PAGE_HEADER];
  return typeof name === 'string' && /^[\w-]{1,40}$/.test(name) ? name : null;
}

/** Tells members of a nursery what lands in it, as an event stream that holds no connection to the database. */
export function serveChanges(app: Express, server: Server, changes: Changes, beatMs = BEAT_MS): void {
  app.get(`/api${changesPath}`, async (req, res) => {
    const nurseryId = Id.parse(req.params.nursery);
    res.locals.route = 'changes';
    await mustHaveAccess(server, toRead, req);
    // Whoever left while that was asked is not told of anything.
    if (res.destroyed) return;
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'X-Accel-Buffering': 'no' });
    // The page knows now that nothing after this is missed.
    res.write('event: listening\ndata:\n\n');
    const unfollow = changes.follow(nurseryId, (landed: Landed) =>
      res.write(`data: ${JSON.stringify(landed)}\n\n`),
    );
    const beat = setInterval(() => {
      mustHaveAccess(server, toRead, req).then(
        () => !res.writableEnded && res.write(':\n\n'),
        () => {
          end();
          res.end();
        },
      );
    }, beatMs);
    const end = () => {
      clearInterval(beat);
      unfollow();
    };
    res.on('close', end);
  });
}
