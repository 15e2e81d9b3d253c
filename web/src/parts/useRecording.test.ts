import { beforeEach, describe, expect, it, vi } from 'vitest';
import { OfflineError, ProblemError } from '../api/problem';
import type { ShownLot } from './useLots';
import { KEPT } from '../device/keptAnswer';
import { useRecording } from './useRecording';

const { call, device, catchUp, say } = vi.hoisted(() => ({
  call: vi.fn(),
  device: { acts: [] as object[], takeBack: vi.fn(async () => true) },
  catchUp: vi.fn(async () => undefined),
  say: vi.fn(),
}));
vi.mock('../stores/device', () => ({
  useDevice: () =>
    Object.assign(device, {
      write: (route: string, params: object, body: object) => call(route, { params, body }),
    }),
}));
vi.mock('../stores/nursery', () => ({
  useNursery: () => ({ params: { nursery: 'n' }, lots: new Map(), catchUp }),
}));
vi.mock('../stores/season', () => ({
  useSeason: () => ({ view: 20_600, today: 20_500, todayIso: '2026-02-16' }),
}));
vi.mock('../stores/messages', () => ({
  useMessages: () => ({ say }),
  saidOf: (outcome: string, said: string) => (outcome === 'kept' ? `${said} Kept here.` : said),
}));
vi.mock('../stores/kept', () => ({ keptKey: (name: string) => name }));

const lot = { row: { id: 'lot-1', stage: { id: 'stage-1' } } } as unknown as ShownLot;
const counting = () => useRecording('countEmergence', () => lot, { counted: '' });
const fields = { counted: 60, cause: null };
const refusal = (kind: string, current?: unknown) =>
  new ProblemError({
    type: `/problems/${kind}`,
    title: '',
    status: 409,
    detail: 'A sentence.',
    current,
  } as never);
const sent = (n: number) => call.mock.calls[n][1].body;

beforeEach(() => {
  vi.clearAllMocks();
  call.mockReset();
  const kept = new Map<string, string>();
  vi.stubGlobal('sessionStorage', { removeItem: (key: string) => kept.delete(key) });
});

describe('one record on a lot', () => {
  it('is of today at the latest, of the lot as it was seen, and can be undone', async () => {
    call.mockResolvedValue('taken');
    const sheet = counting();
    expect(await sheet.record(fields, 'Counted.')).toBe(true);
    expect(call).toHaveBeenCalledWith('countEmergence', {
      params: { nursery: 'n', lot: 'lot-1' },
      body: expect.objectContaining({ ...fields, on: '2026-02-16', seen: 'stage-1', note: '' }),
    });
    const [words, undo] = say.mock.calls[0];
    expect(words).toBe('Counted.');
    await undo();
    expect(call.mock.calls[1]).toEqual([
      'undoEntry',
      {
        params: { nursery: 'n', lot: 'lot-1', entry: sent(0).id },
        body: { id: expect.any(String), on: '2026-02-16' },
      },
    ]);
  });

  it('that waits on the device says so, and undone it is let go of there', async () => {
    call.mockResolvedValue(KEPT);
    const sheet = counting();
    expect(await sheet.record(fields, 'Counted.')).toBe(true);
    const [words, undo] = say.mock.calls[0];
    expect(words).toBe('Counted. Kept here.');
    const write = { route: 'countEmergence', params: { lot: 'lot-1' }, body: { id: sent(0).id } };
    device.acts = [{ id: 'act', write }];
    await undo();
    expect(device.takeBack).toHaveBeenCalledWith('act');
    expect(call).toHaveBeenCalledTimes(1);
    device.acts = [];
  });

  it('is the same record when it is sent again after an answer was lost', async () => {
    call.mockRejectedValueOnce(new OfflineError()).mockResolvedValue('taken');
    const sheet = counting();
    expect(await sheet.record(fields, '')).toBe(false);
    expect(sheet.sentence()).toMatch(/does not answer/);
    expect(await sheet.record(fields, '')).toBe(true);
    expect(sent(1).id).toBe(sent(0).id);
  });

  it('is another record once a refused one was changed', async () => {
    call.mockRejectedValueOnce(refusal('not-enough')).mockResolvedValue('taken');
    const sheet = counting();
    expect(await sheet.record(fields, '')).toBe(false);
    expect(sheet.sentence()).toBe('A sentence.');
    expect(await sheet.record({ ...fields, counted: 50 }, '')).toBe(true);
    expect(sent(1).id).not.toBe(sent(0).id);
  });

  it('of a lot that somebody moved meanwhile is told of, and kept for the lot as it stands when it is kept again', async () => {
    const now = { id: 'lot-1', stage: { id: 'stage-2' } };
    call.mockRejectedValueOnce(refusal('moved-meanwhile', now)).mockResolvedValue('taken');
    const sheet = counting();
    sheet.draft.value.counted = '60';
    expect(await sheet.record(fields, '')).toBe(false);
    expect(sheet.draft.value.counted).toBe('60');
    expect(catchUp).toHaveBeenCalled();
    expect(await sheet.record(fields, '')).toBe(true);
    expect([sent(0).seen, sent(1).seen]).toEqual(['stage-1', 'stage-2']);
  });

  it('is sent once however often the key is pressed', async () => {
    let answer = (_: string) => {};
    call.mockReturnValue(new Promise((resolve) => (answer = resolve)));
    const sheet = counting();
    const first = sheet.record(fields, '');
    expect(await sheet.record(fields, '')).toBe(false);
    answer('taken');
    expect(await first).toBe(true);
    expect(call).toHaveBeenCalledTimes(1);
  });

  it('keeps what is typed where the sheet stays open', async () => {
    call.mockResolvedValue('taken');
    const sheet = counting();
    sheet.draft.value.counted = '60';
    await sheet.record(fields, '', { keepOpen: true });
    expect(sheet.draft.value.counted).toBe('60');
    await sheet.record(fields, '');
    expect(sheet.draft.value.counted).toBe('');
  });
});
