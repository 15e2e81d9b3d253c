import { plugScoreWords, seenWords } from '../../words/roots';
import { inForce, rootFigures, type Quantity, type RootPlant, say } from '@kauri/core';
import type { Evidence } from '@kauri/core/contract';
import { accountWords } from '../../words/causes';
import { careDoneWords, careWords, eventDoneWords } from '../../words/growing';
import { count, percent, several } from '../../words/numbers';
import { rootsMovingWords } from './rootsMoving';

/** One record of a lot in words. */
export interface RecordLine {
  entry: string;
  on: string;
  what: string;
  words: string;
  note: string;
  /** Photos to it. */
  photos: string[];
  /** Trees were sent, or came back: it may be of several lots, and is taken back as one. */
  isSending: boolean;
}

type Show = (value: number, quantity: Quantity, digits?: number) => string;
type Moved = Evidence['movements'][number];

/** The records of a lot that stand, newest first. Sowing is not among them: it is the lot itself. */
export function recordLines(evidence: Evidence, show: Show): RecordLine[] {
  const lines = new Map<string, RecordLine>();
  const add = (
    entry: string,
    on: string,
    what: string,
    words: string,
    note: string,
    photos: string[] = [],
  ) => {
    const line = lines.get(entry);
    if (line) line.words += `; ${words}`;
    else lines.set(entry, { entry, on, what, words, note, photos, isSending: false });
  };
  for (const c of evidence.counts) {
    const parts = c.patches.map((p) => `${p.name} ${count(p.counted)}`).join(', ');
    add(c.entry, c.on, say`Count`, say`${count(c.count)} standing${parts ? `: ${parts}` : ''}`, c.note);
  }
  for (const s of evidence.sizes) {
    const name = s.what === 'height' ? say`height` : say`collar`;
    add(
      s.entry,
      s.on,
      say`Measure`,
      `${name} ${show(s.mean, s.what, 1)} ± ${show(s.sd, s.what, 1)}, ${several(s.n, 'plant')}`,
      '',
    );
  }
  for (const p of evidence.pulls) {
    const scores = p.scores.map((score) => `${score} ${plugScoreWords[score]}`).join(', ');
    add(p.entry, p.on, say`Pull`, `${scores}${p.spoiled ? say`; ${p.spoiled} spoiled` : ''}`, p.note);
  }
  for (const e of evidence.events) add(e.entry, e.on, say`Event`, eventDoneWords(e), e.note, e.photos);
  for (const c of evidence.care)
    add(c.entry, c.on, careWords[c.done.what], careDoneWords(c.done, show), c.note);
  for (const s of evidence.shifts)
    add(
      s.entry,
      s.on,
      say`Move`,
      s.roots ? say`moved on; ${rootsMovingWords(s.roots)}` : say`moved on`,
      s.note,
    );
  for (const r of evidence.roots)
    add(r.entry, r.on, say`Roots`, `${rootWords(r.plant)}${r.spoiled ? say`; spoiled` : ''}`, r.note);
  for (const [entry, moves] of standingMoves(evidence)) {
    // A count or a pull has its own line already.
    if (lines.has(entry) || entry === evidence.lotId) continue;
    const to = (account: Moved['to']) => moves.some((m) => m.to === account);
    const isBack = moves.some((m) => m.from === 'sent');
    const what = isBack
      ? say`Came back`
      : to('lifted')
        ? say`Lift`
        : to('sent')
          ? say`Sent`
          : to('planted')
            ? say`Planted`
            : say`Out`;
    // A lift, or what leaves, may be of several grades: told together.
    const alike = new Map<string, Moved>();
    for (const m of moves) {
      const key = `${m.from} ${m.to}`;
      alike.set(key, { ...m, count: m.count + (alike.get(key)?.count ?? 0) });
    }
    for (const m of alike.values()) {
      const thing = several(m.count, m.from === 'sown' ? 'seed' : 'tree');
      add(
        entry,
        m.on,
        what,
        m.from === 'sent' ? say`${thing} came back` : `${thing} ${accountWords(m.to)}`,
        m.note,
      );
    }
    lines.get(entry)!.isSending = isBack || to('sent');
  }
  return [...lines.values()].sort((a, b) => b.on.localeCompare(a.on) || b.entry.localeCompare(a.entry));
}

/** Movements by entry, without those taken back and those that take back. */
function standingMoves({ movements }: Evidence): Map<string, Moved[]> {
  const byEntry = new Map<string, Moved[]>();
  for (const m of inForce(movements)) byEntry.set(m.entry, [...(byEntry.get(m.entry) ?? []), m]);
  return byEntry;
}

/** A pulled plant in a few words. */
function rootWords(plant: RootPlant): string {
  const figures = rootFigures(plant);
  const share = (value: number | null) => (value === null ? '' : percent(value));
  if (plant.kind === 'quick')
    return say`at a glance: ${seenWords[plant.look.round]}, ${seenWords[plant.look.runs]}, ${seenWords[plant.look.surface]}`;
  return say`${several(figures.laterals!, 'lateral')}, ${share(figures.straight)} straight, ${share(figures.turned)} turned`;
}
