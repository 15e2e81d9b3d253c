import { dayOf, isoOf } from '@kauri/core';
import type { ImportReport, LineIssue } from '@kauri/core/contract';

const MOST_ISSUES = 100;
const MOST_GAPS = 50;

/** Keeps count while a table is read. */
export class ImportTally {
  lines = 0;
  good = 0;
  bad = 0;
  known = 0;
  readonly issues: LineIssue[] = [];

  fault(line: number, message: string): void {
    this.bad++;
    if (this.issues.length < MOST_ISSUES) this.issues.push({ line, message });
  }

  report(dates: readonly string[], taken: string | null, withGaps: boolean): ImportReport {
    const sorted = [...new Set(dates)].sort();
    return {
      lines: this.lines,
      good: this.good,
      bad: this.bad,
      known: this.known,
      issues: this.issues,
      first: sorted[0] ?? null,
      last: sorted[sorted.length - 1] ?? null,
      gaps: withGaps ? gapsIn(sorted) : [],
      stored: taken !== null,
      taken,
    };
  }
}

/** Runs of days left out between the first and the last of some sorted dates. */
function gapsIn(sorted: readonly string[]): ImportReport['gaps'] {
  const gaps: ImportReport['gaps'] = [];
  for (let i = 1; i < sorted.length && gaps.length < MOST_GAPS; i++) {
    const [before, here] = [dayOf(sorted[i - 1]), dayOf(sorted[i])];
    if (here - before > 1) gaps.push({ from: isoOf(before + 1), to: isoOf(here - 1) });
  }
  return gaps;
}
