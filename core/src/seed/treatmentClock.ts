import { Unfit } from '../working/unfit';
import type { Spread } from '../chance/spread';
import type { BatchStore } from './storeTemperature';
import type { EpochDay } from '../calendar/day';
import { normalCdfFast } from '../chance/normal';
import { bandOf, type Band } from '../chance/quantile';
import type { Outlook } from '../weather/ensemble';
import { put, type Step, type Worked } from '../working/working';
import { mustRun, type Phase, type PhaseKind } from '../species/protocol';
import { meanTempOn } from './storeTemperature';

export interface RadicleCheck {
  day: EpochDay;
  n: number;
  radicles: number;
}

export interface TreatmentFacts {
  phases: readonly Phase[];
  startedOn: EpochDay;
  store: BatchStore;
  radicleDd: Spread;
  checks: readonly RadicleCheck[];
}

/** Spread of ln(warmth to a radicle) between seeds of one lot. */
const SEED_SD_LOG = 0.3;
/** Radicles need warmth above this, °C. */
const RADICLE_BASE_C = 1;
/** One seed in fifty with a radicle is "first radicles". */
export const FIRST_RADICLES = 0.02;
const THETA_POINTS = 31;
const LONGEST_DAYS = 1100;

/**
 * What a day counts for in a cold phase: nothing at or below −1 °C and from 10 °C up, whole from 1 to 5 °C,
 * straight between.
 */
export function coldWeight(meanC: number): number {
  return trapezoid(meanC, -1, 1, 5, 10);
}
/** What a day counts for in a warm phase: whole from 15 to 25 °C, nothing at 10 and 30 °C, straight between. */
export function warmWeight(meanC: number): number {
  return trapezoid(meanC, 10, 15, 25, 30);
}
function trapezoid(x: number, zeroLow: number, low: number, high: number, zeroHigh: number): number {
  if (x >= low && x <= high) return 1;
  return Math.max(0, x < low ? (x - zeroLow) / (low - zeroLow) : (zeroHigh - x) / (zeroHigh - high));
}

/** What a day counts for in a phase. */
export function dayCounts(kind: PhaseKind, meanC: number): number {
  return kind === 'cold' ? coldWeight(meanC) : kind === 'warm' ? warmWeight(meanC) : 1;
}

/** Mean temperature a batch has on a day, by the phase it is in (null: after its last). */
export type TemperatureOf = (day: EpochDay, kind: PhaseKind | null) => number;

/** A batch through one run of weather. */
export interface ClockRun {
  /** First day of each phase; Infinity for one not reached. */
  starts: EpochDay[];
  /** Day on which the last phase is done; Infinity if not within three years. */
  ready: EpochDay;
  /** Effective days in each phase by the day asked for. */
  effective: number[];
  /** Radicle warmth summed up to and including each day, from the start, °C·d. */
  warmth: Float64Array;
}

/**
 * Runs a batch's phases day by day. Radicle warmth counts fully once the last phase is done, and before that
 * by the cube of the share of its last cold phase already done: few seeds wake half way, most near the end.
 */
export function runClock(
  { phases, startedOn }: Pick<TreatmentFacts, 'phases' | 'startedOn'>,
  temperatureOf: TemperatureOf,
  asOf: EpochDay,
  days = LONGEST_DAYS,
): ClockRun {
  const starts: EpochDay[] = phases.map(() => Infinity);
  const effective: number[] = phases.map(() => 0);
  const warmth = new Float64Array(days);
  const lastCold = phases.map((p) => p.kind).lastIndexOf('cold');
  let at = 0;
  let done = 0;
  let heat = 0;
  let ready = phases.length === 0 ? startedOn : Infinity;
  for (let i = 0; i < days; i++) {
    const day = startedOn + i;
    const phase = phases[at];
    const meanC = temperatureOf(day, phase?.kind ?? null);
    let wake = at >= phases.length ? 1 : 0;
    if (phase) {
      if (starts[at] === Infinity) starts[at] = day;
      done += dayCounts(phase.kind, meanC);
      if (at === lastCold) wake = Math.min(1, done / phase.days) ** 3;
      if (day <= asOf) effective[at] = Math.min(phase.days, done);
      if (done >= phase.days - 1e-9) {
        done = 0;
        at++;
        if (at === phases.length) ready = day;
      }
    }
    heat += wake * Math.max(0, meanC - RADICLE_BASE_C);
    warmth[i] = heat;
  }
  return { starts, ready, effective, warmth };
}

/** A batch under treatment as known on a date. */
export interface TreatmentClock {
  asOf: EpochDay;
  phases: {
    kind: PhaseKind;
    days: number;
    effective: number;
    start: Band;
    state: 'done' | 'now' | 'to come';
  }[];
  ready: Band;
  /** Share of seeds expected to show a radicle by the date. */
  radiclesNow: number;
  /** Chance that first radicles show by the end of each coming week. */
  weeks: { until: EpochDay; chance: number }[];
  nextCheck: EpochDay;
  /** Day a check found radicles: sow at once. Null while none were found. */
  radiclesSeenOn: EpochDay | null;
}

/**
 * The clock of a batch: when each phase and the whole is done over the weather years, how likely early
 * radicles are week by week (from the lot's own posterior of the warmth they need), and when to look next.
 * @throws Unfit with a sentence for a phase of no days, or a check of more radicles than seeds
 */
export function treatmentClock(facts: TreatmentFacts, outlook: Outlook): Worked<TreatmentClock> {
  mustRun(facts.phases);
  for (const { n, radicles } of facts.checks)
    if (!(n >= 1 && radicles >= 0 && radicles <= n))
      throw new Unfit(`${radicles} radicles in ${n} seeds looked at: check the two numbers.`);
  const asOf = outlook.asOf;
  const checks = facts.checks.filter((c) => c.day <= asOf && c.day >= facts.startedOn);
  const outdoors = facts.store.kind === 'outdoors';
  const years = outdoors ? outlook.years.length : 1;
  const runs = Array.from({ length: years }, (_, year) =>
    runClock(facts, (day, kind) => meanTempOn(facts.store, kind, outlook, year, day), asOf),
  );
  const theta = thetaPosterior(facts, runs[0], checks);
  const chanceBy = (day: EpochDay) => {
    let chance = 0;
    for (const run of runs)
      for (const { log, weight } of theta)
        if (shareShowing(run, facts, day, log) >= FIRST_RADICLES) chance += weight / runs.length;
    return chance;
  };
  const ready = bandOf(Float64Array.from(runs, (run) => run.ready));
  const weeks = Array.from({ length: 16 }, (_, w) => {
    const until = asOf + 7 * (w + 1);
    return { until, chance: chanceBy(until) };
  });
  const seen = checks.find((c) => c.radicles > 0)?.day ?? null;
  const lastCheck = Math.max(facts.startedOn, ...checks.map((c) => c.day));
  const risky = weeks.find((w) => w.chance >= 0.1)?.until ?? Infinity;
  const nextCheck = Math.max(
    asOf,
    Math.min(lastCheck + 28, Math.max(lastCheck + 7, risky - 7), Math.max(lastCheck + 7, ready.p10)),
  );
  const middle = [...runs].sort((a, b) => a.ready - b.ready)[Math.floor((runs.length - 1) / 2)];
  const now = facts.phases.findIndex((p, i) => middle.effective[i] < p.days - 1e-9);
  const value: TreatmentClock = {
    asOf,
    phases: facts.phases.map((p, i) => ({
      kind: p.kind,
      days: p.days,
      effective: middle.effective[i],
      start: bandOf(Float64Array.from(runs, (run) => run.starts[i])),
      state: now < 0 || i < now ? 'done' : i === now ? 'now' : 'to come',
    })),
    ready,
    radiclesNow: theta.reduce(
      (t, { log, weight }) => t + weight * shareShowing(runs[0], facts, asOf, log),
      0,
    ),
    weeks,
    nextCheck: Math.round(nextCheck),
    radiclesSeenOn: seen,
  };
  return { value, working: workingOf(facts, value, runs.length, checks) };
}

/** Share of seeds with a radicle by a day, for a lot that needs exp(log) times the species' warmth. */
function shareShowing(run: ClockRun, { startedOn, radicleDd }: TreatmentFacts, day: EpochDay, log: number) {
  const i = Math.min(run.warmth.length - 1, day - startedOn);
  const heat = i < 0 ? 0 : run.warmth[i];
  return heat <= 0 ? 0 : normalCdfFast((Math.log(heat / radicleDd.median) - log) / SEED_SD_LOG);
}

/** Posterior of ln θ, the lot's own share of the species' radicle warmth, from its checks. */
function thetaPosterior(facts: TreatmentFacts, run: ClockRun, checks: readonly RadicleCheck[]) {
  const grid = Array.from({ length: THETA_POINTS }, (_, i) => {
    const z = (i / (THETA_POINTS - 1) - 0.5) * 6;
    const log = z * facts.radicleDd.sdLog;
    let weight = -0.5 * z * z;
    for (const { day, n, radicles } of checks) {
      const p = Math.min(1 - 1e-6, Math.max(1e-6, shareShowing(run, facts, day, log)));
      weight += radicles * Math.log(p) + (n - radicles) * Math.log(1 - p);
    }
    return { log, weight };
  });
  const most = Math.max(...grid.map((g) => g.weight));
  const total = grid.reduce((t, g) => t + Math.exp(g.weight - most), 0);
  return grid.map(({ log, weight }) => ({ log, weight: Math.exp(weight - most) / total }));
}

function workingOf(
  facts: TreatmentFacts,
  clock: TreatmentClock,
  years: number,
  checks: readonly RadicleCheck[],
): Step[] {
  return [
    ...clock.phases.map((p) => ({
      what: `Days that counted: ${p.kind}`,
      how:
        p.kind === 'cold'
          ? 'A day counts whole with its mean from 1 to 5 °C, not at all at −1 °C and below or from 10 °C up.'
          : p.kind === 'warm'
            ? 'A day counts whole with its mean from 15 to 25 °C, not at all at 10 or at 30 °C.'
            : 'Days by the calendar.',
      result: p.effective,
      unit: `of ${put(p.days)} d`,
      inputs: [{ name: 'days asked for', value: p.days, unit: 'd', origin: 'choice' as const }],
    })),
    {
      what: 'Ready',
      how:
        facts.store.kind === 'fixed'
          ? `In rooms at ${facts.store.warmC} °C and ${facts.store.coldC} °C.`
          : `Out of doors: the weather so far, then ${years} weather years.`,
      result: clock.ready.p50,
      unit: 'date',
    },
    {
      what: 'Warmth to a radicle',
      how: checks.length
        ? `Starting value, sharpened by ${checks.length} checks.`
        : 'Starting value: no check yet.',
      result: facts.radicleDd.median,
      unit: '°C·d above 1',
      inputs: [
        {
          name: 'half the seeds show a radicle at',
          value: facts.radicleDd.median,
          unit: '°C·d',
          origin: 'starting',
        },
      ],
    },
    {
      what: 'Seeds showing a radicle by now, expected',
      how: 'Share of seeds whose need is met, over the lot’s posterior.',
      result: clock.radiclesNow,
    },
  ];
}
