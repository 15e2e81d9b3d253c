import { closedSetWords } from '../words/closedSets';
import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { BatchStore } from './storeTemperature';
import type { EpochDay } from '../calendar/day';
import type { Beta } from '../chance/beta';
import { bandOf, type Band } from '../chance/quantile';
import type { KnownWaking } from '../species/waking';
import type { Outlook } from '../weather/ensemble';
import { put, type Step, type Worked } from '../working/working';
import { mustRun, type Phase, type PhaseKind } from '../species/protocol';
import { meanTempOn } from './storeTemperature';
import type { Spell } from './waking';
import { OUT_MOST, READY_SHARE, WakingLot } from './wakingLot';

export interface RadicleCheck {
  day: EpochDay;
  n: number;
  radicles: number;
}

export interface TreatmentFacts {
  phases: readonly Phase[];
  startedOn: EpochDay;
  store: BatchStore;
  /** How its kind wakes. */
  waking: KnownWaking;
  /** Whether a long radicle breaks in sowing: taproots are sown sooner. */
  taproot: boolean;
  /** Share alive, as the bag's tests leave it. */
  alive: Beta;
  seeds: number;
  /** Cool moist days the bag had before. */
  before: readonly Spell[];
  checks: readonly RadicleCheck[];
}

const LONGEST_DAYS = 1100;
/** Days ahead that are run. */
const AHEAD_DAYS = 420;
/** Weeks ahead for which the chance of first radicles is told. */
const WEEKS = 16;
/** Half of a day's range in a tub or in the ground, °C: air's, damped. */
export const OUTDOOR_SWING_C = 2;

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
  /** Mean temperature of each day from the start, °C. */
  meanC: Float64Array;
}

/** Runs a batch's phases day by day: which it is in, and how warm it lies. */
export function runClock(
  { phases, startedOn }: Pick<TreatmentFacts, 'phases' | 'startedOn'>,
  temperatureOf: TemperatureOf,
  asOf: EpochDay,
  days = LONGEST_DAYS,
): ClockRun {
  const starts: EpochDay[] = phases.map(() => Infinity);
  const effective: number[] = phases.map(() => 0);
  const means = new Float64Array(days);
  let at = 0;
  let done = 0;
  let ready = phases.length === 0 ? startedOn : Infinity;
  for (let i = 0; i < days; i++) {
    const day = startedOn + i;
    const phase = phases[at];
    means[i] = temperatureOf(day, phase?.kind ?? null);
    if (!phase) continue;
    if (starts[at] === Infinity) starts[at] = day;
    done += dayCounts(phase.kind, means[i]);
    if (day <= asOf) effective[at] = Math.min(phase.days, done);
    if (done >= phase.days - 1e-9) {
      done = 0;
      at++;
      if (at === phases.length) ready = day;
    }
  }
  return { starts, ready, effective, meanC: means };
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
  /** Day on which eight in ten of the living would come up soon after sowing. */
  ready: Band;
  /** Share of the living that would, sown on the date. */
  readyNow: number;
  /** Day by which so many radicles are out that sowing harms: 5 % of taproots, 15 % of small seed. */
  lastToSow: Band;
  /** Cold days the middle seed has had, of those it needs; and its dormancy left, 1 to 0. */
  chilled: { days: number; of: number; dormancy: number };
  /** Whether a look found what hardly any lot in this weather would show. */
  surprising: boolean;
  /** Share of seeds expected to show a radicle by the date. */
  radiclesNow: number;
  /** Chance that first radicles show by the end of each coming week. */
  weeks: { until: EpochDay; chance: number }[];
  nextCheck: EpochDay;
  /** Day a check found radicles: sow at once. Null while none were found. */
  radiclesSeenOn: EpochDay | null;
}

/**
 * The clock of a batch: when it is ready and when it has come too far, how likely first radicles are week by week, and
 * when to look next; over the weather years and over what lots of its kind are like, as its looks leave it.
 * @throws Unfit with a sentence for a phase of no days, or a check of more radicles than seeds
 */
export function treatmentClock(facts: TreatmentFacts, outlook: Outlook): Worked<TreatmentClock> {
  mustRun(facts.phases);
  for (const { n, radicles } of facts.checks)
    if (!(n >= 1 && radicles >= 0 && radicles <= n))
      throw new Unfit(say`${radicles} radicles in ${n} seeds looked at: check the two numbers.`);
  const asOf = outlook.asOf;
  const checks = facts.checks.filter((c) => c.day <= asOf && c.day >= facts.startedOn);
  const outdoors = facts.store.kind === 'outdoors';
  const years = outdoors ? outlook.years.length : 1;
  const length = Math.min(LONGEST_DAYS, Math.max(1, asOf - facts.startedOn + 1 + AHEAD_DAYS));
  const runs = Array.from({ length: years }, (_, year) =>
    runClock(facts, (day, kind) => meanTempOn(facts.store, kind, outlook, year, day), asOf, length),
  );
  const lot = new WakingLot(
    facts,
    runs.map((run) => run.meanC),
    outdoors ? OUTDOOR_SWING_C : 0,
  );
  const surprising = lot.learn(checks);
  const { out, ready: readyShare } = lot.mean(asOf);
  const untils = Array.from({ length: WEEKS }, (_, w) => asOf + 7 * (w + 1));
  const chances = lot.chancesOfFirst(asOf, untils, facts.seeds);
  const weeks = untils.map((until, w) => ({ until, chance: chances[w] }));
  const ready = lot.bandOfDay('ready', READY_SHARE);
  const most = facts.taproot ? OUT_MOST.tap : OUT_MOST.other;
  const lastToSow = lot.bandOfDay('out', most);
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
    readyNow: readyShare,
    lastToSow,
    chilled: lot.chilledBy(asOf),
    surprising,
    radiclesNow: out,
    weeks,
    nextCheck: Math.round(nextCheck),
    radiclesSeenOn: seen,
  };
  return { value, working: workingOf(facts, value, runs.length, checks) };
}

function workingOf(
  facts: TreatmentFacts,
  clock: TreatmentClock,
  years: number,
  checks: readonly RadicleCheck[],
): Step[] {
  const { waking, group, near } = facts.waking;
  const beforeDays = facts.before.reduce((t, [days]) => t + days, 0);
  return [
    ...clock.phases.map((p) => ({
      what: say`Days that counted: ${closedSetWords[p.kind]}`,
      how:
        p.kind === 'cold'
          ? say`A day counts whole with its mean from 1 to 5 °C, not at all at −1 °C and below or from 10 °C up.`
          : p.kind === 'warm'
            ? say`A day counts whole with its mean from 15 to 25 °C, not at all at 10 or at 30 °C.`
            : say`Days by the calendar.`,
      result: p.effective,
      unit: `of ${put(p.days)} d`,
      inputs: [{ name: say`days asked for`, value: p.days, unit: 'd', origin: 'choice' as const }],
    })),
    {
      what: say`Cold the middle seed has had`,
      how: say`It wakes as ${group} do${near ? say`, the nearest kind that is told of` : ''}: cold takes its dormancy away; warmth above ${put(waking.baseC)} °C (${put(waking.baseC + waking.dormantRiseC)} °C while it sleeps) then grows the radicle.${beforeDays ? say` ${beforeDays} cool moist days in the bag before are counted.` : ''}`,
      result: clock.chilled.days,
      unit: `of ${put(clock.chilled.of)} d`,
      inputs: [
        { name: say`cold days of the middle seed`, value: waking.chillDays, unit: 'd', origin: 'starting' },
        { name: say`warm days first`, value: waking.warmDays, unit: 'd', origin: 'starting' },
        { name: say`warmth to a radicle`, value: waking.heatDd, unit: '°C·d', origin: 'starting' },
        {
          name: say`looks taken in`,
          value: checks.length,
          origin: checks.length ? ('record' as const) : ('starting' as const),
        },
      ],
    },
    {
      what: say`Ready: eight in ten of the living would come up soon after sowing`,
      how:
        facts.store.kind === 'fixed'
          ? say`In rooms at ${facts.store.warmC} °C and ${facts.store.coldC} °C, over what lots of its kind are like.`
          : say`Out of doors: the weather so far, then ${years} weather years, over what lots of its kind are like.`,
      result: clock.ready.p50,
      unit: 'date',
    },
    {
      what: say`Last day to sow: ${facts.taproot ? say`5 % of long radicles` : say`15 % of radicles`} out`,
      how: say`Half of lots and years have come so far by then.`,
      result: clock.lastToSow.p50,
      unit: 'date',
    },
    {
      what: say`Seeds showing a radicle by now, expected`,
      how: say`Share of seeds whose warmth is met, times the share alive, over the lot’s posterior.`,
      result: clock.radiclesNow,
    },
  ];
}
