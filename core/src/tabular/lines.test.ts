import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { linesOf } from './lines';

async function* inPieces(bytes: Uint8Array, sizes: readonly number[]) {
  let at = 0;
  for (const size of [...sizes, bytes.length]) {
    if (at >= bytes.length) return;
    yield bytes.slice(at, at + size);
    at += size;
  }
}

describe('lines of a stream', () => {
  it('are the same however it was cut, letters of several bytes among them', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.stringMatching(/^[aé°木🌱 ]{1,8}$/u), { minLength: 1 }),
        fc.array(fc.integer({ min: 1, max: 7 }), { maxLength: 40 }),
        fc.boolean(),
        async (lines, sizes, ended) => {
          const bytes = new TextEncoder().encode(lines.join('\n') + (ended ? '\n' : ''));
          const got: string[] = [];
          for await (const line of linesOf(inPieces(bytes, sizes))) got.push(line);
          expect(got).toEqual(lines);
        },
      ),
    );
  });
});
