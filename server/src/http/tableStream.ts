import type { Request, Response } from 'express';
import Papa from 'papaparse';
import { Transform } from 'node:stream';
import { Refusal } from './problems';

const MOST_BYTES = 40 * 1024 * 1024;
const PROGRESS_EVERY = 5000;

/** A line of an uploaded table; lines count from 1, the header being line 1. */
export interface TableLine {
  line: number;
  cells: string[];
}

/**
 * Reads an uploaded table line by line, header left out, and writes progress lines to the answer as it
 * goes. Stops with a sentence when the upload is too large, is not text, or the caller has gone.
 */
export async function* tableLines(req: Request, res: Response): AsyncGenerator<TableLine> {
  const size = Number(req.headers['content-length'] ?? 0);
  if (size > MOST_BYTES) throw tooLarge();
  res.status(200).type('application/x-ndjson');
  let bytes = 0;
  const guard = new Transform({
    transform(chunk: Buffer, _encoding, next) {
      bytes += chunk.length;
      if (bytes > MOST_BYTES) return next(tooLarge());
      if (chunk.includes(0))
        return next(
          new Refusal(
            422,
            'not-text',
            'This file is not a text table (CSV). Save it as CSV and try again. Nothing was taken.',
          ),
        );
      next(null, chunk);
    },
  });
  const parser = Papa.parse(Papa.NODE_STREAM_INPUT, { skipEmptyLines: 'greedy' });
  req.on('aborted', () => guard.destroy(gone()));
  guard.on('error', (error) => parser.destroy(error));
  req.pipe(guard).pipe(parser);
  let line = 0;
  for await (const cells of parser as AsyncIterable<string[]>) {
    line++;
    if (line === 1) continue;
    yield { line, cells };
    if (line % PROGRESS_EVERY === 0) {
      stopIfGone(res);
      res.write(`${JSON.stringify({ progress: size ? Math.min(0.9, (0.9 * bytes) / size) : 0 })}\n`);
    }
  }
  if (line < 2)
    throw new Refusal(422, 'empty-table', 'The table has no lines below its header. Nothing was taken.');
}

/** Throws when the caller has closed the connection, so that the transaction rolls back. */
export function stopIfGone(res: Response): void {
  if (res.destroyed || res.closed) throw gone();
}

function gone(): Refusal {
  return new Refusal(400, 'cancelled', 'The import was cancelled. Nothing was taken.');
}

function tooLarge(): Refusal {
  return new Refusal(413, 'too-large', 'The file is larger than 40 MB. Split it by year. Nothing was taken.');
}
