import { usualTrench } from '@kauri/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { reactive } from 'vue';
import { ProblemError } from '../../api/problem';
import { useGradingSheet } from './useGradingSheet';

const world = vi.hoisted(() => ({}) as { grading: unknown });
vi.mock('../../stores/grading', () => ({ useGrading: () => world.grading }));
vi.mock('../../stores/kept', () => ({ keptKey: (key: string) => key }));
vi.mock('@vueuse/core', async () => {
  const { ref } = await import('vue');
  return { useSessionStorage: (_: string, value: unknown) => ref(value) };
});

const stale = () =>
  new ProblemError({
    type: '/problems/stale-edit',
    title: 'Edited meanwhile',
    status: 409,
    detail: '',
  });
const scheme = { id: 's', name: 'By height', speciesIds: [], grades: [] };
const own = { rowsApartCm: 50, perM: usualTrench.perM };

describe('a sheet of grading', () => {
  const grading = reactive({
    kept: { version: 3, grading: { schema: 1, schemes: [scheme], trench: own as object | undefined } },
    keep: vi.fn(),
    load: vi.fn(),
  });
  beforeEach(() => {
    grading.kept = { version: 3, grading: { schema: 1, schemes: [scheme], trench: own } };
    grading.keep.mockReset().mockResolvedValue({});
    grading.load.mockReset();
    world.grading = grading;
  });

  it('keeps its own part, and the rest as it stands', async () => {
    expect(await useGradingSheet('grading').keep({ schemes: [] })).toBe(true);
    expect(grading.keep).toHaveBeenCalledWith(3, { schema: 1, schemes: [], trench: own });
  });

  it('goes back to the rules of thumb by keeping none', async () => {
    await useGradingSheet('trench').keep({ trench: undefined });
    expect(grading.keep.mock.calls[0][1].trench).toBeUndefined();
  });

  it('takes in what somebody else wrote meanwhile, and keeps its part on top of it when it is kept again', async () => {
    const sheet = useGradingSheet('grading');
    grading.keep.mockRejectedValueOnce(stale());
    const theirs = { rowsApartCm: 60, perM: usualTrench.perM };
    grading.load.mockImplementation(async () => {
      grading.kept = { version: 4, grading: { schema: 1, schemes: [scheme], trench: theirs } };
    });
    expect(await sheet.keep({ schemes: [] })).toBe(false);
    expect(await sheet.keep({ schemes: [] })).toBe(true);
    expect(grading.keep).toHaveBeenLastCalledWith(4, { schema: 1, schemes: [], trench: theirs });
  });
});
