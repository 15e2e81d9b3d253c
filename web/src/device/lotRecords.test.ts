import type { AnswerOf, LotStamp } from '@kauri/core/contract';
import { describe, expect, it, vi } from 'vitest';
import { OfflineError, ProblemError } from '../api/problem';
import { lotRecords } from './lotRecords';
import type { Memory } from './memory';

type Records = AnswerOf<'lotRecords'>;
const records = (...ids: string[]) =>
  ({ lots: ids.map((id) => ({ id })), evidence: ids.map((lotId) => ({ lotId })) }) as unknown as Records;
const idsOf = ({ lots }: Records) => lots.map(({ id }) => id);
const stamps = new Map([['a', { id: 'a', stamp: 'now' } as LotStamp]]);

/** A device that has `a` as it is now and `b` as it once was. */
const device = () => ({
  keep: vi.fn(),
  recall: vi.fn(),
  keepLots: vi.fn(),
  recallLots: vi.fn<Memory['recallLots']>(async (_, ids, known) =>
    records(...ids.filter((id) => id === 'a' || (id === 'b' && known === null))),
  ),
  settled: vi.fn(),
});

describe('lots with their records', () => {
  it('come from the device where they are as they were, and only the others are asked for', async () => {
    const [mine, ask] = [device(), vi.fn(async () => records('b'))];
    const found = await lotRecords(mine, 'n', ['a', 'b'], stamps, ask);
    expect(ask).toHaveBeenCalledWith(['b']);
    expect(idsOf(found)).toEqual(['a', 'b']);
    expect(found.older).toBeUndefined();
    expect(mine.keepLots).toHaveBeenCalledWith('n', stamps, records('b'));
  });
  it('are as they were last seen where nobody answers, and said to be older', async () => {
    const away = () => Promise.reject(new OfflineError());
    const found = await lotRecords(device(), 'n', ['a', 'b'], stamps, away);
    expect(idsOf(found)).toEqual(['a', 'b']);
    expect(found.older).toEqual(new Set(['b']));
  });
  it('never leave one out: what was not seen, or is refused, is a fault', async () => {
    const away = () => Promise.reject(new OfflineError());
    await expect(lotRecords(device(), 'n', ['a', 'c'], stamps, away)).rejects.toBeInstanceOf(OfflineError);
    await expect(lotRecords(null, 'n', ['a'], stamps, away)).rejects.toBeInstanceOf(OfflineError);
    const refusal = new ProblemError({ type: '/problems/x', title: '', status: 403, detail: 'Not yours.' });
    await expect(lotRecords(device(), 'n', ['b'], stamps, () => Promise.reject(refusal))).rejects.toThrow(
      'Not yours.',
    );
  });
});
