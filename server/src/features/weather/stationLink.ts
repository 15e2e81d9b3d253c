import { linesOf, type HourReading, say } from '@kauri/core';
import { StationLine } from '@kauri/core/contract';
import { Refusal } from '../../http/problems';
import type { StationFault, StationSky } from '../../standins/station';

const PATIENCE_MS = 8000;

/** Talks to one weather station over HTTP. */
export class StationLink {
  constructor(
    private readonly url: string,
    private readonly name: string,
    private readonly id: string,
  ) {}

  private async ask(what: string, init?: RequestInit): Promise<Response> {
    try {
      const answer = await fetch(`${this.url}/stations/${this.id}/${what}`, {
        ...init,
        signal: AbortSignal.timeout(PATIENCE_MS),
      });
      if (!answer.ok) throw new Error(`status ${answer.status}`);
      return answer;
    } catch (cause) {
      throw new Refusal(
        503,
        'station-silent',
        say`${this.name} does not answer. What was read before is kept; try again.`,
        {},
        { cause },
      );
    }
  }

  async feel(sky: StationSky): Promise<void> {
    await this.ask('sky', { method: 'PUT', body: JSON.stringify(sky) });
  }

  async fail(fault: StationFault): Promise<void> {
    await this.ask('fault', { method: 'PUT', body: JSON.stringify({ fault }) });
  }

  async *hours(from: string, to: string): AsyncGenerator<HourReading> {
    const answer = await this.ask(`hours?from=${from}&to=${to}`);
    for await (const line of linesOf(answer.body as unknown as AsyncIterable<Uint8Array>))
      yield StationLine.parse(JSON.parse(line));
  }
}
