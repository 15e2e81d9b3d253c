import { dayOf } from '@kauri/core';
import type { Evidence, LotDetail, LotRow, LotStamp } from '@kauri/core/contract';
import { describe, expect, it, vi } from 'vitest';
import { lotKeeper } from './lotKeeper';

const TODAY = dayOf('2026-11-24');
const row = (id: string, version = 1) => ({ id, code: id, speciesId: 's', version }) as unknown as LotRow;
const records = (lotId: string, ...entries: string[]) =>
  ({ lotId, counts: entries.map((entry) => ({ entry })), stages: [] }) as unknown as Evidence;

/** A server that holds lots, each with a stamp, and remembers what it was asked for. */
function aServer(lots: Record<string, { stamp: string; closedOn?: string }>) {
  const asked: string[][] = [];
  const held = new Map(Object.entries(lots));
  let changed = 0;
  return {
    asked,
    held,
    source: {
      stamps: async (wanted?: readonly string[]) => ({
        stamps: [...held]
          .filter(([id]) => !wanted || wanted.includes(id))
          .map(([id, { stamp, closedOn }]): LotStamp => ({
            id,
            code: id,
            speciesId: 's',
            sownOn: '2026-04-08',
            stamp,
            closedOn: closedOn ?? null,
          })),
        changed: String(++changed),
      }),
      records: async (ids: string[]) => {
        asked.push(ids);
        return {
          lots: ids.map((id) => row(id)),
          evidence: ids.map((id) => records(id, held.get(id)!.stamp)),
        };
      },
    },
  };
}

describe('lots in the browser', () => {
  it('arrive some at a time, are read on the way, and are shown together', async () => {
    const server = aServer(
      Object.fromEntries(
        Array.from({ length: 95 }, (_, i) => [`L-${String(i).padStart(2, '0')}`, { stamp: 'a' }]),
      ),
    );
    const warmed: string[] = [];
    const keeper = lotKeeper(
      server.source,
      () => TODAY,
      ({ id }) => {
        expect(keeper.lots.value.size).toBe(0);
        warmed.push(id);
      },
    );
    await keeper.refresh();
    expect(server.asked.map((ids) => ids.length)).toEqual([40, 40, 15]);
    expect(warmed).toHaveLength(95);
    expect([...keeper.lots.value.keys()]).toEqual([...server.held.keys()]);
    expect(keeper.whole.value).toBe(true);
    expect(keeper.arrived.value).toBe(95);
  });

  it('are fetched again only where their stamp changed; what did not change stays the object it was', async () => {
    const server = aServer({ a: { stamp: '1' }, b: { stamp: '1' }, c: { stamp: '1' } });
    const keeper = lotKeeper(server.source, () => TODAY, vi.fn());
    await keeper.refresh();
    const [a, b] = [keeper.evidence.value.get('a'), keeper.evidence.value.get('b')];
    server.held.set('b', { stamp: '2' });
    server.held.delete('c');
    server.held.set('d', { stamp: '1' });
    await keeper.refresh();
    expect(server.asked.at(-1)).toEqual(['b', 'd']);
    expect(keeper.evidence.value.get('a')).toBe(a);
    expect(keeper.evidence.value.get('b')).not.toBe(b);
    expect([...keeper.lots.value.keys()]).toEqual(['a', 'b', 'd']);
    // Asked again with nothing changed, nothing is fetched.
    await keeper.refresh();
    expect(server.asked).toHaveLength(2);
  });

  it('named as changed are asked about alone, and fetched where they did change', async () => {
    const server = aServer({ a: { stamp: '1' }, b: { stamp: '1' } });
    const keeper = lotKeeper(server.source, () => TODAY, vi.fn());
    const asked = vi.spyOn(server.source, 'stamps');
    await keeper.refresh();
    const kept = keeper.evidence.value.get('a');
    server.held.set('b', { stamp: '2' });
    await keeper.refreshSome(['a', 'b']);
    expect(asked).toHaveBeenLastCalledWith(['a', 'b']);
    expect(server.asked.at(-1)).toEqual(['b']);
    expect(keeper.evidence.value.get('a')).toBe(kept);
    // Something else may have changed too, which nobody named: that is still asked about.
    expect(keeper.isBehind('3')).toBe(true);
    await keeper.refreshSome([]);
    expect(asked).toHaveBeenCalledTimes(2);
  });

  it('that somebody took back are gone, by name and with their records; one made here just now stays', async () => {
    const server = aServer({ a: { stamp: '1' }, b: { stamp: '1' } });
    const keeper = lotKeeper(server.source, () => TODAY, vi.fn());
    await keeper.refresh();
    server.held.delete('a');
    const asking = keeper.refreshSome(['a', 'b', 'mine']);
    keeper.takeLots([{ lot: row('mine'), evidence: records('mine') } as unknown as LotDetail]);
    await asking;
    for (const kept of [keeper.index, keeper.lots, keeper.evidence])
      expect([...kept.value.keys()]).toEqual(['b', 'mine']);
    keeper.drop(['mine', 'unknown']);
    expect([...keeper.lots.value.keys()]).toEqual(['b']);
  });

  it('of the past are known by name, and fetched when they are looked for', async () => {
    const server = aServer({
      gone: { stamp: '1', closedOn: '2024-03-01' },
      lately: { stamp: '1', closedOn: '2026-03-01' },
      stands: { stamp: '1' },
    });
    const keeper = lotKeeper(server.source, () => TODAY, vi.fn());
    await keeper.refresh();
    expect([...keeper.lots.value.keys()]).toEqual(['lately', 'stands']);
    expect(keeper.index.value.has('gone')).toBe(true);
    expect(keeper.past.value).toBe('away');
    await Promise.all([keeper.lookBack(), keeper.lookBack()]);
    expect(server.asked.slice(1)).toEqual([['gone']]);
    expect([...keeper.lots.value.keys()]).toEqual(['gone', 'lately', 'stands']);
    expect(keeper.past.value).toBe('here');
    // From then on what changes of them is followed too.
    server.held.set('gone', { stamp: '2', closedOn: '2024-03-01' });
    await keeper.refresh();
    expect(server.asked.at(-1)).toEqual(['gone']);
  });

  it('that could not be fetched are asked for again, and nothing half is shown', async () => {
    const server = aServer({ a: { stamp: '1' } });
    const once = vi.spyOn(server.source, 'records').mockRejectedValueOnce(new Error('no network'));
    const keeper = lotKeeper(server.source, () => TODAY, vi.fn());
    await expect(keeper.refresh()).rejects.toThrow('no network');
    expect(keeper.whole.value).toBe(false);
    await keeper.refresh();
    expect(once).toHaveBeenCalledTimes(2);
    expect(keeper.whole.value).toBe(true);
  });

  it('take in what the server answered after a record, a new lot with its name', async () => {
    const server = aServer({ a: { stamp: '1' } });
    const keeper = lotKeeper(server.source, () => TODAY, vi.fn());
    await keeper.refresh();
    keeper.takeLots([
      { lot: row('a', 2), evidence: records('a', 'mine') },
      { lot: row('new'), evidence: records('new') },
    ] as unknown as LotDetail[]);
    expect(keeper.lots.value.get('a')!.version).toBe(2);
    expect(keeper.index.value.get('new')).toMatchObject({ code: 'new', closedOn: null });
  });

  it('keep what was written here while older answers were on their way', async () => {
    const server = aServer({ a: { stamp: '1' }, b: { stamp: '1' } });
    const keeper = lotKeeper(server.source, () => TODAY, vi.fn());
    await keeper.refresh();
    server.held.set('a', { stamp: '2' });
    const { records: ask } = server.source;
    server.source.records = async (ids) => {
      const answer = await ask(ids);
      keeper.takeLots([
        { lot: row('a', 7), evidence: records('a', 'mine') },
        { lot: row('new'), evidence: records('new') },
      ] as unknown as LotDetail[]);
      return answer;
    };
    await keeper.refresh();
    expect(keeper.lots.value.get('a')!.version).toBe(7);
    expect(keeper.evidence.value.get('a')).toEqual(records('a', 'mine'));
    expect([...keeper.lots.value.keys()]).toContain('new');
  });

  it('know whether anything changed since', async () => {
    const server = aServer({ a: { stamp: '1' } });
    const keeper = lotKeeper(server.source, () => TODAY, vi.fn());
    await keeper.refresh();
    expect(keeper.isBehind('1')).toBe(false);
    expect(keeper.isBehind('2')).toBe(true);
  });
});
