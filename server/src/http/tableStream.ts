import { say } from '@kauri/core';
import { createHash } from 'node:crypto';
import { parse, CsvError } from 'csv-parse';
import type { Request, Response } from 'express';
import Papa from 'papaparse';
import { pipeline, Readable } from 'node:stream';
import { setImmediate } from 'node:timers/promises';
import { Refusal } from './problems';

const MOST_BYTES = 40 * 1024 * 1024;
const PROGRESS_EVERY = 5000;
/** Longest a table holds everybody else up, ms. */
const TURN_MS = 5;
/** The share of its progress that reading a table is; storing is the rest. */
const READING = 0.7;

/** What of a table has come: its bytes, and a digest of them. */
class Meter {
  bytes = 0;
  readonly hash = createHash('sha256');
}

/** A line of an uploaded table; lines count from 1, the header being line 1. */
export interface TableLine {
  line: number;
  cells: string[];
}

/**
 * Reads an uploaded table line by line, header left out, and writes progress lines to the answer as it
 * goes. Stops with a sentence when the upload is too large, is not text, or the caller has gone.
 */
export async function* tableLines(
  req: Request,
  res: Response,
): AsyncGenerator<TableLine, { digest: string }> {
  const size = Number(req.headers['content-length'] ?? 0);
  if (size > MOST_BYTES) throw tooLarge();
  res.status(200).type('application/x-ndjson');
  const meter = new Meter();
  const chunks = textChunks(req, meter);
  const head = await chunks.next();
  if (head.done) throw emptyTable();
  const parser = parse({
    delimiter: delimiterOf(head.value),
    bom: true,
    info: true,
    relax_column_count: true,
    relax_quotes: true,
    skip_records_with_empty_values: true,
  });
  pipeline(Readable.from(startingWith(head.value, chunks)), parser, () => undefined);
  let count = 0;
  let turnBegan = performance.now();
  try {
    for await (const { record, info } of parser as AsyncIterable<{
      record: string[];
      info: { lines: number };
    }>) {
      count++;
      if (count === 1) continue;
      yield { line: info.lines, cells: record };
      // Others have their turn: what has been read already would else be worked through in one go.
      if (performance.now() - turnBegan > TURN_MS) {
        await setImmediate();
        turnBegan = performance.now();
      }
      if (count % PROGRESS_EVERY === 0) {
        stopIfGone(res);
        res.write(
          `${JSON.stringify({ progress: size ? Math.min(READING, (READING * meter.bytes) / size) : 0 })}\n`,
        );
      }
    }
  } catch (error) {
    if (error instanceof CsvError)
      throw new Refusal(
        422,
        'not-a-table',
        say`The table could not be read: ${error.message}. Nothing was taken.`,
      );
    throw error;
  }
  if (count < 2) throw emptyTable();
  return { digest: meter.hash.digest('base64url') };
}

/** Reads a table to its end for nothing but its digest. */
export async function digestOfTable(req: Request, res: Response): Promise<string> {
  const lines = tableLines(req, res);
  for (;;) {
    const next = await lines.next();
    if (next.done) return next.value.digest;
  }
}

/** The text of an upload as it arrives, counted. */
async function* textChunks(req: Request, meter: Meter): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  try {
    for await (const chunk of req as AsyncIterable<Buffer>) {
      meter.bytes += chunk.length;
      meter.hash.update(chunk);
      if (meter.bytes > MOST_BYTES) throw tooLarge();
      if (chunk.includes(0)) {
        throw new Refusal(
          422,
          'not-text',
          say`This file is not a text table (CSV). Save it as CSV and try again. Nothing was taken.`,
        );
      }
      yield decoder.decode(chunk, { stream: true });
    }
  } catch (error) {
    throw error instanceof Refusal ? error : gone();
  }
}

async function* startingWith(first: string, rest: AsyncGenerator<string>): AsyncGenerator<string> {
  yield first;
  yield* rest;
}

/** What parts the cells, told from the head of the table: a decimal comma is not taken for one. */
function delimiterOf(head: string): string {
  return Papa.parse(head.slice(0, 20_000), { preview: 20 }).meta.delimiter || ',';
}

/** Says how far a table that was read is stored; stops where the caller has gone. */
export function tellStored(res: Response, share: number): void {
  stopIfGone(res);
  res.write(`${JSON.stringify({ progress: READING + (1 - READING) * share })}\n`);
}

/** Throws when the caller has closed the connection, so that the transaction rolls back. */
function stopIfGone(res: Response): void {
  if (res.destroyed || res.closed) throw gone();
}

function gone(): Refusal {
  return new Refusal(400, 'cancelled', say`The import was cancelled. Nothing was taken.`);
}

function emptyTable(): Refusal {
  return new Refusal(422, 'empty-table', say`The table has no lines below its header. Nothing was taken.`);
}

function tooLarge(): Refusal {
  return new Refusal(
    413,
    'too-large',
    say`The file is larger than 40 MB. Split it by year. Nothing was taken.`,
  );
}
