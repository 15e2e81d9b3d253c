import type { EpochDay } from '../calendar/day';
import type { RootAct } from './rootActs';
import type { SeedAct } from './seedActs';
import type { PlanAsk } from './planAsk';
import type { Act } from './lotActs';
import { shortDate, yearOf } from '../words/dates';
import { formatQuantity } from '../units/units';
import { count, odds, percent, several } from '../words/numbers';

/** Second, third … as a word. */
const nth = (n: number): string => ['', 'first', 'second', 'third', 'fourth', 'fifth'][n] ?? `${n}th`;

export interface ActWords {
  title: string;
  reason: string;
  /** What waiting costs; the Seed station and the root bench say it in the reason. */
  waiting?: string;
}

/** One act of Today in words: what, why with its figure, and what waiting costs. */
export function actWords(act: Act, code: string, view: EpochDay): ActWords {
  const short = (day: EpochDay) => shortDate(day, yearOf(view));
  const f = act.figures;
  const trees = several(act.trees, 'tree');
  switch (act.rule) {
    case 'write-off':
      return {
        title: `Decide on ${code}: nothing came up`,
        reason: `Last counted ${short(f.since)}: none.`,
        waiting: `${count(act.trees)} seeds hold their room until it is decided.`,
      };
    case 'root-bound':
      return {
        title: `Move ${code} on`,
        reason: `Root-bound in ${odds(f.chance)} forecasts, fill ${f.fill.toFixed(2)}, since ${short(f.since)}. Pull a plug first where that is not yet plain.`,
        waiting: `Roots that circle the wall thicken as they lie and are then cut, not straightened (usual experience): ${trees}.`,
      };
    case 'hold-ends':
      return {
        title:
          act.by! < view ? `Move ${code} on: its window is closing` : `Move ${code} on by ${short(act.by!)}`,
        reason: `Fill ${f.fill.toFixed(2)}; the plug holds.`,
        waiting: `After that more than 1 in 10 forecasts are root-bound${Number.isFinite(f.half) ? `, half by ${short(f.half)}` : ''}: ${trees}.`,
      };
    case 'lid-reached':
      return {
        title: `Raise the lid over ${code}`,
        reason: `The tallest tenth reach it from ${short(act.by!)}, half of forecasts by ${short(f.half)}.`,
        waiting: `Leaders bend under it: ${trees}.`,
      };
    case 'lift':
      return {
        title: `Lift ${code}`,
        reason: `Dormant; window ${short(f.from)} to ${short(f.until)}.`,
        waiting: `Best before ${short(act.by!)}, two weeks ahead of early buds: ${trees}.`,
      };
    case 'prick-out':
      return {
        title: act.by! < view ? `Prick out ${code}: roots are meeting` : `Prick out ${code}`,
        reason: `First true leaves ${f.from > view ? 'expected' : 'since'} ${short(f.from)}; roots of neighbours meet about ${short(act.by!)} (by warmth, a rule of thumb).`,
        waiting: `Later they tear apart and stand still: ${trees}.`,
      };
    case 'root-frost':
      return {
        title: `Shelter the roots of ${code} before night`,
        reason: frostReason(f),
        waiting: `${f.bed ? IN_BED_FROST : IN_CELLS_FROST}: ${trees}.`,
      };
    case 'root-heat':
      return {
        title: `Cool the roots of ${code}`,
        reason: heatReason(f),
        waiting: `${HEAT_ACTS}: ${trees}.`,
      };
    case 'missed-lift':
      return {
        title: `Decide on ${code}: it stood through its winter`,
        reason: `Its lifting window closed ${short(f.missed)}.`,
        waiting: Number.isFinite(f.next)
          ? `Left, it stands until ${short(f.next)}: another season of the bed, larger trees with coarser roots: ${trees}.`
          : `Left, it stands another season: ${trees}.`,
      };
    case 'remeasure':
      return {
        title: `Measure ${code} again`,
        reason: `${percent(f.share)} of it lost height ${short(f.on)}; its height since is only supposed.`,
        waiting: 'Every date of its size rests on a rule of thumb until then.',
      };
    case 'second-season':
      return {
        title:
          f.seasons > 1
            ? `Shift ${code}: its ${nth(f.seasons)} season in its cell`
            : `Plan a shift for ${code}`,
        reason:
          f.seasons > 1
            ? `${f.seasons} seasons in the same container.`
            : 'One season in its container is ending.',
        waiting:
          f.seasons > 2
            ? `After so long, look at every root: cull what circles, pot on what does not (rule of thumb): ${trees}.`
            : `A season more in the same cell grows less and circles more (rule of thumb: one shift a season): ${trees}.`,
      };
    case 'spread':
      return {
        title:
          act.by! > view
            ? `Spread ${code} by ${short(act.by!)}`
            : `Spread ${code}: leaves ${f.half > view ? 'may meet any day' : 'have met'}`,
        reason: `Leaves meet from ${short(act.by!)} in 1 forecast of 10, in half from ${short(f.half)}.`,
        waiting: `Crowded, they go tall and thin: ${trees}.`,
      };
    case 'inoculate':
      return {
        title: `Water nodule inoculum on ${code}`,
        reason: `Two to three weeks after it came up, ${short(f.from)} to ${short(act.by!)}.`,
        waiting: `Later roots take it up less: ${trees}.`,
      };
    case 'feed-out':
      return {
        title: `Feed ${code} again`,
        reason: `Its rated feed has let go 80 % by ${short(f.half)}, ${short(act.by!)} in a warm year.`,
        waiting: `Growth pales and stops: ${trees}.`,
      };
    case 'measure':
      return {
        title: `Measure ${code}`,
        reason: `Last looked at ${short(f.last)}; ${percent(f.fromStart)} of the doubt in its height is still the starting value.`,
        waiting: `${several(f.plants, 'height')}, spread over the lot, give its mean to a tenth, nine times in ten; its dates of size rest on that.`,
      };
    case 'after-sowing':
      return f.cuttings
        ? {
            title: `Settle the cuttings of ${code}`,
            reason: `Stuck ${short(f.sown)}: firm them, water them in, shade and still air where they have leaves. Written down as watered, it is not asked for again.`,
            waiting: 'A cutting that wilts in its first days seldom roots (usual experience).',
          }
        : {
            title: `Finish the sowing of ${code}`,
            reason: `Sown ${short(f.sown)}: water it in, mulch to once or twice the seed’s thickness, ${f.bed ? 'cover and cage it against mice and birds' : 'set it where mice and birds cannot reach it'}. Written down as watered, it is not asked for again.`,
            waiting: 'Mice and birds find a sowing in its first nights; dry seed that has swelled dies.',
          };
    case 'keep-moist':
      return f.cuttings
        ? {
            title: `Keep ${code} moist until it has roots`,
            reason: `Roots may be there from ${short(f.from)}, in half of forecasts by ${short(f.half)}. Feel the medium; water finely where it is dry.`,
            waiting: 'A cutting without roots cannot make up for a day of drying (usual experience).',
          }
        : {
            title: `Keep ${code} moist until it is up`,
            reason: `It may show from ${short(f.from)}, in half of forecasts by ${short(f.half)}. Feel the top finger’s breadth; water finely where it is dry.`,
            waiting: 'Seed that has begun to wake does not live through drying (usual experience).',
          };
    case 'count-up':
      return {
        title: `Count ${code}`,
        reason:
          f.around !== undefined
            ? `Expected up around ${short(f.around)}.`
            : `Last counted ${short(f.lastCount)}, while it was coming up.`,
        waiting: 'A count now tells how many trees there will be, and when.',
      };
    case 'pull-plug':
      return {
        title: `Pull three plugs of ${code}`,
        reason: `Holds in ${odds(f.chanceReady)} forecasts, root-bound in ${odds(f.chanceBound)}.`,
        waiting: `${Math.round(f.vigourFromStart * 100)} % of the doubt in its roots is still the starting value.`,
      };
  }
}

/** A temperature in both systems: who reads it may use either. */
const bothDegrees = (c: number): string => {
  const [metric, us] = (['metric', 'us'] as const).map((system) =>
    formatQuantity(c, 'temperature', system, 0).replace('-', '\u2212'),
  );
  return `${metric} (${us})`;
};

type Figures = Readonly<Record<string, number>>;
const IN_BED_FROST = 'Straw, fleece or leaves over it and round its sides tonight';
const IN_CELLS_FROST =
  'Set it on the ground, push it together, straw or fleece over and round it, or move it under cover';
const HEAT_ACTS = 'Shade it, water early and once at noon, push it together, white boards to the south';
const frostReason = (f: Figures): string =>
  `${bothDegrees(f.airC)} last night; its medium is ${f.frozen >= 1 ? `frozen through, about ${bothDegrees(f.mediumC)}` : `${percent(f.frozen)} frozen`}. ` +
  `Young roots begin to die near ${bothDegrees(f.limitC)} (a starting value, not your species’ own).`;
const heatReason = (f: Figures): string =>
  `${bothDegrees(f.airC)}; cells in the sun come to about ${bothDegrees(f.mediumC)}. Roots begin to die near ${bothDegrees(f.limitC)} (rule of thumb).`;

/** Rules whose lots are gone round together: more than one make one act. */
export const togetherRules = ['root-frost', 'root-heat', 'keep-moist'] as const;
export type TogetherRule = (typeof togetherRules)[number];

/**
 * Several lots that are gone round together, in words.
 * @param codes those at most risk first
 * @param f figures of the one at most risk
 */
export function togetherWords(
  rule: TogetherRule,
  codes: readonly string[],
  f: Figures,
  trees: number,
  view: EpochDay,
): ActWords {
  const named = codes.slice(0, 4).join(', ');
  const rest = codes.length > 4 ? `${named} and ${codes.length - 4} more` : named;
  switch (rule) {
    case 'root-frost':
      return {
        title: `Shelter the roots of ${several(codes.length, 'lot')} before night`,
        reason: `First ${rest}. Of the worst: ${frostReason(f)}`,
        waiting: `Cells first, they freeze through soonest. ${IN_CELLS_FROST}; over beds straw or fleece: ${several(trees, 'tree')}.`,
      };
    case 'root-heat':
      return {
        title: `Cool the roots of ${several(codes.length, 'lot')}`,
        reason: `First ${rest}. Of the worst: ${heatReason(f)}`,
        waiting: `${HEAT_ACTS}: ${several(trees, 'tree')}.`,
      };
    case 'keep-moist':
      return {
        title: `Keep ${several(codes.length, 'sowing')} moist until they are up or rooted`,
        reason: `${rest}: the first may show from ${shortDate(f.from, yearOf(view))}. Feel the top finger’s breadth; water finely where it is dry.`,
        waiting:
          'Seed that has begun to wake, and cuttings without roots, do not live through drying (usual experience).',
      };
  }
}

/** A planned sowing in words: which, for what, and what another week would mean. */
export function planActWords(
  { name, route, isStuck, from, plants, trees, chance }: Omit<PlanAsk, 'sowingId'>,
  today: EpochDay,
): ActWords {
  const day = (value: EpochDay) => shortDate(value, yearOf(today));
  const verb = isStuck ? 'Stick' : 'Sow';
  const late = from + 7 <= today;
  return {
    title: `${verb} ${name} as planned: ${route}`,
    reason: `${late ? 'Was planned' : 'Planned'} for the week of ${day(from)}: ${count(plants)} to stand, for ${several(trees, 'tree')}; in time in ${percent(chance)} of forecasts when it was planned.`,
    waiting: late
      ? 'Sown now it may not be in time any more: on the board, a week later works it out anew. Sown already, say there as which lot.'
      : 'Sown in another week it is in time more or less often: the board works it out.',
  };
}

/** A treatment that a planned sowing needs, with its reason and what waiting does. */
export function treatActWords(
  { name, route, from }: Pick<PlanAsk, 'name' | 'route' | 'from'>,
  { on, days, plants }: NonNullable<PlanAsk['treat']>,
  today: EpochDay,
): ActWords {
  const day = (value: EpochDay) => shortDate(value, yearOf(today));
  const late = today - on;
  return {
    title: `Begin treating ${name} for its planned sowing`,
    reason: `${route}, for ${count(plants)} to stand from the week of ${day(from)}: its treatment takes about ${several(days, 'day')}, so it ${late > 0 ? 'was to begin' : 'begins'} by ${day(on)}. No batch of it is under way.`,
    waiting:
      late > 0
        ? `Begun now it is done about ${day(today + days)}: move the sowing on the board, or buy seed treated.`
        : 'Begun later, it is sown later: the board works out what that does.',
  };
}

/** What the Seed station asks for, with its reason. */
export function seedActWords(act: SeedAct, name: string, today: EpochDay): ActWords {
  const day = (value: EpochDay) => shortDate(value, yearOf(today));
  const f = act.figures;
  switch (act.rule) {
    case 'radicles-out':
      return {
        title: `Sow ${name} at once: radicles are out`,
        reason: `Seen ${day(f.since)}; sow by ${day(act.by!)}, root down, barely covered, mulch, cover against rodents.`,
      };
    case 'sow-batch':
      return {
        title: act.by! <= today ? `Sow ${name}: its treatment is done` : `Make ready to sow ${name}`,
        reason: `Done ${day(act.by!)} in the middle of the weather years; radicles within a week: ${percent(f.chance)}.`,
      };
    case 'check-batch':
      return {
        title: `Look for radicles in ${name}`,
        reason: `Chance that some show within a week: ${percent(f.chance)}.`,
      };
    case 'retest':
      return {
        title: f.tested ? `Test ${name} again` : `Test ${name}`,
        reason: `${f.tested ? 'About' : 'Never tested: by its kind about'} ${percent(f.alive)} alive, but it may be ${Math.round(f.low * 100)} or ${Math.round(f.high * 100)} %.`,
      };
    case 'likely-dead':
      return {
        title: `${name} is likely dead`,
        reason: `About ${percent(f.alive)} alive; below a tenth since ${day(f.since)}. Test it, or give the room to fresh seed.`,
      };
    case 'sever':
      return {
        title: `Sever and pot the layer ${name}`,
        reason: `By ${day(act.by!)}, so that it makes roots in its pot before frost.`,
      };
    case 'keep-on':
      return {
        title: `Keep the layer ${name} on its branch over winter`,
        reason:
          `${f.severBy < today ? `The last day to sever it was ${day(f.severBy)}` : `Roots are there by ${day(f.severBy)} in only ${odds(f.chance)} forecasts`}. ` +
          `Wrap the pouch against frost; sever between ${day(f.from)} and ${day(f.until)}, once roots are seen.`,
      };
    case 'late-up':
      return {
        title: `Look at ${name}: it is late coming up`,
        reason: `${count(f.up)} up where ordinary seed would show ${count(Math.round(f.expected))}; about ${count(Math.round(f.final))} to come in all. Count, dig for seed, look for rot and mice.`,
      };
    case 'look-layer':
      return {
        title: `Look for roots in the layer ${name}`,
        reason: `Rooted in time for ${day(f.severBy)}: ${percent(f.chance)}.`,
      };
  }
}

/** What the root bench asks for, with its reason. */
export function rootActWords(act: RootAct, code: string): ActWords {
  const { failing, pulled, lots, begun } = act.figures;
  return act.rule === 'roots-rejected'
    ? {
        title: `Deal with the roots of ${code}`,
        reason: `Rejected: ${failing} of ${pulled} pulled plants fail. Shift, shave or cull before any go out.`,
      }
    : {
        title: `Judge the roots of ${several(lots, 'lot')} before they go`,
        reason: `${begun ? `${begun} half judged, ` : ''}${lots - begun} not pulled yet. Some nine good plants accept a lot, two or three bad ones reject it.`,
      };
}
