import { cullReasons, readGrade, type CullReason, say } from '@kauri/core';
import type { GradeScheme } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { typedNumber } from '../../parts/typed';
import { heightsWritten } from '../../words/grades';
import type { Bundle } from './parcelWords';

/** Trees of one grade that a lift gives, as typed or tapped. */
export interface LiftRow {
  /** Of the parcel: the same while it is typed, so that an answer lost on the way is not written twice. */
  id: string;
  grade: string;
  /** Heights of the grade where a scheme says them, cm; null where the words do. */
  sized: { fromCm: number | null; toCm: number | null } | null;
  count: string;
  bundle: Bundle;
}

/** A lift while it is written, at the bed or at the desk. */
export interface LiftDraft {
  /** By which scheme it is graded; empty for none, null while nobody chose. */
  scheme: string | null;
  rows: LiftRow[];
  /** Culled, without a reason and with one. */
  culled: string;
  culls: Record<CullReason, string>;
  place: string;
  /** What was tapped at the bed, in order: a row or a reason, and how many. */
  taps: { at: string; by: number }[];
  /** Since when bare roots are in the air, ms; null while they are covered. */
  outSince: number | null;
}

/** Units as the grower sees them. */
export interface Shown {
  height: (cm: number) => number;
  heightCm: (shown: number) => number;
  collar: (mm: number) => string;
}

/** Taps that can be taken back. */
const TAPS = 300;

export const numberIn = (text: string): number => (text.trim() === '' ? 0 : typedNumber(text));

export const blankRow = (bundle: Bundle): LiftRow => ({
  id: newId(),
  grade: '',
  sized: null,
  count: '',
  bundle,
});

export const blankLift = (bundle: Bundle): LiftDraft => ({
  scheme: null,
  rows: [blankRow(bundle)],
  culled: '',
  culls: Object.fromEntries(cullReasons.map((why) => [why, ''])) as Record<CullReason, string>,
  place: '',
  taps: [],
  outSince: null,
});

/** A grade of a scheme as its parcel will be called; heights alone where there is nothing else to say. */
function gradeOf(grade: GradeScheme['grades'][number], { height, collar }: Shown): string {
  const more = [grade.name, grade.collarMm === null ? '' : say`collar ${collar(grade.collarMm)}`];
  return more.filter(Boolean).join(', ') || heightsWritten(grade, height);
}

/** Rows once a scheme is chosen: its grades, after whatever was counted or called already. */
export function rowsBy(
  rows: readonly LiftRow[],
  scheme: GradeScheme | null,
  bundle: Bundle,
  shown: Shown,
): LiftRow[] {
  const used = rows.filter(
    (row) => row.count.trim() !== '' || (row.sized === null && row.grade.trim() !== ''),
  );
  const same = (a: LiftRow['sized'], b: LiftRow['sized']) => a?.fromCm === b?.fromCm && a?.toCm === b?.toCm;
  const more = (scheme?.grades ?? []).flatMap((one): LiftRow[] => {
    const sized = { fromCm: one.fromCm, toCm: one.toCm };
    const grade = gradeOf(one, shown);
    const known = used.some((row) => row.grade === grade && same(row.sized, sized));
    return known ? [] : [{ id: newId(), grade, sized, count: '', bundle }];
  });
  const all = [...used, ...more];
  return all.length ? all : [blankRow(bundle)];
}

/** Heights of a row, cm: its scheme's, or what its words say. */
export function sizeOf({ grade, sized }: LiftRow, { heightCm }: Shown): NonNullable<LiftRow['sized']> {
  if (sized) return sized;
  const { from, to } = readGrade(grade);
  const cm = (height: number | null) => (height === null ? null : heightCm(height));
  return { fromCm: cm(from), toCm: cm(to) };
}

export const liftedIn = ({ rows }: Pick<LiftDraft, 'rows'>): number =>
  rows.reduce((sum, { count }) => sum + numberIn(count), 0);
export const culledIn = ({ culled, culls }: Pick<LiftDraft, 'culled' | 'culls'>): number =>
  cullReasons.reduce((sum, why) => sum + numberIn(culls[why]), numberIn(culled));

/** Counts a tap: so many more of a row or a reason. One that brings it below none does nothing. */
export function tap(draft: LiftDraft, at: string, by: number): void {
  if (!add(draft, at, by)) return;
  draft.taps = [...draft.taps.slice(1 - TAPS), { at, by }];
}

/** Takes the last tap back. */
export function takeBackTap(draft: LiftDraft): void {
  const last = draft.taps.at(-1);
  if (!last) return;
  add(draft, last.at, -last.by);
  draft.taps = draft.taps.slice(0, -1);
}

function add(draft: LiftDraft, at: string, by: number): boolean {
  const row = draft.rows.find(({ id }) => id === at);
  const before = row ? row.count : draft.culls[at as CullReason];
  if (before === undefined) return false;
  const now = (numberIn(before) || 0) + by;
  if (now < 0) return false;
  const text = now === 0 ? '' : String(now);
  if (row) row.count = text;
  else draft.culls[at as CullReason] = text;
  return true;
}
