import { linesOf, say } from '@kauri/core';
import { InstrumentReading } from '@kauri/core/contract';
import { Refusal } from '../../http/problems';
import type { instrumentsRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';

export const instrumentHandlers: HandlersOf<typeof instrumentsRoutes> = {
  /** Passes an instrument’s readings on as they come, until whoever listens goes or it is switched off. */
  async instrument({ server, params, query, res }) {
    const stop = new AbortController();
    res.on('close', () => stop.abort());
    const asked = new URLSearchParams(
      Object.entries(query).flatMap(([name, value]) =>
        value === undefined ? [] : [[name, String(value)] as [string, string]],
      ),
    );
    const answer = await fetch(`${server.instrumentUrl}/${params.tool}/readings?${asked}`, {
      signal: stop.signal,
    }).catch((cause: unknown) => {
      throw new Refusal(
        503,
        'instrument-silent',
        say`The instrument does not answer. Type the values; what was read is kept.`,
        {},
        { cause },
      );
    });
    res.type('application/x-ndjson').flushHeaders();
    try {
      for await (const line of linesOf(answer.body as unknown as AsyncIterable<Uint8Array>))
        res.write(`${JSON.stringify(InstrumentReading.parse(JSON.parse(line)))}\n`);
    } catch (error) {
      if (!stop.signal.aborted) throw error;
    }
    return { value: null, unit: params.tool === 'caliper' ? ('mm' as const) : ('cm' as const) };
  },
};
