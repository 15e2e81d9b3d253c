import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/*
 * Breaking dormancy: an ordered list of phases. The same species has several protocols, one for each way
 * growers go about it.
 */
export const phaseKinds = ['soak', 'scarify', 'hot-water', 'warm', 'cold', 'dry-back'] as const;
export type PhaseKind = (typeof phaseKinds)[number];

export interface Phase {
  kind: PhaseKind;
  /** Effective days for warm and cold; days by the calendar for the others. */
  days: number;
}

/** Indoors and watched, in a leaf-filled tub out of doors, or sown fresh for winter to wake. */
export const schools = ['indoors', 'tub', 'sown'] as const;
export type School = (typeof schools)[number];

export interface Protocol {
  school: School;
  phases: Phase[];
}

const letters: Record<string, PhaseKind> = {
  soak: 'soak',
  scar: 'scarify',
  hot: 'hot-water',
  warm: 'warm',
  cold: 'cold',
  dry: 'dry-back',
};

/**
 * Protocols as a table writes them: `soak1 cold60 | tub: cold60 | sown: warm30 cold90`, days behind each
 * phase. An empty text is seed that needs nothing.
 * @throws Unfit for a phase that is not known or has no days
 */
export function protocolsFrom(text: string): Protocol[] {
  return text.split('|').map((part) => {
    const [, school = 'indoors', rest] = /^\s*(?:(tub|sown):)?(.*)$/.exec(part)!;
    const phases = rest
      .trim()
      .split(/\s+/)
      .filter(Boolean)
      .map((word): Phase => {
        const match = /^([a-z]+)(\d+)$/.exec(word);
        if (!match || !(match[1] in letters)) throw new Unfit(say`“${word}” is not a phase.`);
        return { kind: letters[match[1]], days: Number(match[2]) };
      });
    mustRun(phases);
    return { school: school as School, phases };
  });
}

/** @throws Unfit with a sentence for a phase of no days or absurdly many */
export function mustRun(phases: readonly Phase[]): void {
  for (const { kind, days } of phases) {
    if (!(days > 0))
      throw new Unfit(say`A phase lasts longer than zero days: give ${kind} its days or leave it out.`);
    if (days > 730) throw new Unfit(say`${days} days of ${kind} is more than two years: check the phase.`);
  }
}

/** Winters a protocol's phases take out of doors: each stretch of cold is one. */
export function wintersOf(phases: readonly Phase[]): number {
  return phases.filter((phase) => phase.kind === 'cold').length;
}
