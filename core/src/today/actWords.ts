import { say, word } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import type { RootAct } from './rootActs';
import type { SeedAct } from './seedActs';
import type { PlanAsk } from './planAsk';
import type { Act } from './lotActs';
import { shortDate, yearOf } from '../words/dates';
import { formatQuantity } from '../units/units';
import { count, odds, percent, surely, several } from '../words/numbers';

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
        title: say`Decide on ${code}: nothing came up`,
        reason: say`Last counted ${short(f.since)}: none.`,
        waiting: say`${count(act.trees)} seeds hold their room until it is decided.`,
      };
    case 'root-bound':
      return {
        title: say`Move ${code} on`,
        reason: say`Root-bound in ${odds(f.chance)} forecasts, fill ${f.fill.toFixed(2)}, since ${short(f.since)}. Pull a plug first where that is not yet plain.`,
        waiting: say`Roots that circle the wall thicken as they lie and are then cut, not straightened (usual experience): ${trees}.`,
      };
    case 'hold-ends':
      return {
        title:
          act.by! < view
            ? say`Move ${code} on: its window is closing`
            : say`Move ${code} on by ${short(act.by!)}`,
        reason: say`Fill ${f.fill.toFixed(2)}; the plug holds.`,
        waiting: say`After that more than 1 in 10 forecasts are root-bound${Number.isFinite(f.half) ? say`, half by ${short(f.half)}` : ''}: ${trees}.`,
      };
    case 'lid-reached':
      return {
        title: say`Raise the lid over ${code}`,
        reason: say`The tallest tenth reach it from ${short(act.by!)}, half of forecasts by ${short(f.half)}.`,
        waiting: say`Leaders bend under it: ${trees}.`,
      };
    case 'lift':
      return {
        title: say`Lift ${code}`,
        reason: say`Dormant; window ${short(f.from)} to ${short(f.until)}.`,
        waiting: say`Best before ${short(act.by!)}, two weeks ahead of early buds: ${trees}.`,
      };
    case 'prick-out':
      return {
        title: act.by! < view ? say`Prick out ${code}: roots are meeting` : say`Prick out ${code}`,
        reason: say`First true leaves ${f.from > view ? say`expected` : say`since`} ${short(f.from)}; roots of neighbours meet about ${short(act.by!)} (by warmth, a rule of thumb).`,
        waiting: say`Later they tear apart and stand still: ${trees}.`,
      };
    case 'root-frost':
      return {
        title: say`Shelter the roots of ${code} before night`,
        reason: frostReason(f),
        waiting: `${f.bed ? inBedFrost() : inCellsFrost()}: ${trees}.`,
      };
    case 'root-heat':
      return {
        title: say`Cool the roots of ${code}`,
        reason: heatReason(f),
        waiting: `${heatActs()}: ${trees}.`,
      };
    case 'missed-lift':
      return {
        title: say`Decide on ${code}: it stood through its winter`,
        reason: say`Its lifting window closed ${short(f.missed)}.`,
        waiting: Number.isFinite(f.next)
          ? say`Left, it stands until ${short(f.next)}: another season of the bed, larger trees with coarser roots: ${trees}.`
          : say`Left, it stands another season: ${trees}.`,
      };
    case 'remeasure':
      return {
        title: say`Measure ${code} again`,
        reason: say`${percent(f.share)} of it lost height ${short(f.on)}; its height since is only supposed.`,
        waiting: say`Every date of its size rests on a rule of thumb until then.`,
      };
    case 'second-season':
      return {
        title:
          f.seasons > 1
            ? say`Shift ${code}: its ${nth(f.seasons)} season in its cell`
            : say`Plan a shift for ${code}`,
        reason:
          f.seasons > 1
            ? say`${f.seasons} seasons in the same container.`
            : say`One season in its container is ending.`,
        waiting:
          f.seasons > 2
            ? say`After so long, look at every root: cull what circles, pot on what does not (rule of thumb): ${trees}.`
            : say`A season more in the same cell grows less and circles more (rule of thumb: one shift a season): ${trees}.`,
      };
    case 'spread':
      return {
        title:
          act.by! > view
            ? say`Spread ${code} by ${short(act.by!)}`
            : say`Spread ${code}: leaves ${f.half > view ? say`may meet any day` : say`have met`}`,
        reason: say`Leaves meet from ${short(act.by!)} in 1 forecast of 10, in half from ${short(f.half)}.`,
        waiting: say`Crowded, they go tall and thin: ${trees}.`,
      };
    case 'inoculate':
      return {
        title: say`Water nodule inoculum on ${code}`,
        reason: say`Two to three weeks after it came up, ${short(f.from)} to ${short(act.by!)}.`,
        waiting: say`Later roots take it up less: ${trees}.`,
      };
    case 'feed-out':
      return {
        title: say`Feed ${code} again`,
        reason: say`Its rated feed has let go 80 % by ${short(f.half)}, ${short(act.by!)} in a warm year.`,
        waiting: say`Growth pales and stops: ${trees}.`,
      };
    case 'measure':
      return {
        title: say`Measure ${code}`,
        reason: say`Last looked at ${short(f.last)}; ${percent(f.fromStart)} of the doubt in its height is still the starting value.`,
        waiting: say`${several(f.plants, 'height')}, spread over the lot, give its mean to a tenth, nine times in ten; its dates of size rest on that.`,
      };
    case 'after-sowing':
      return f.cuttings
        ? {
            title: say`Settle the cuttings of ${code}`,
            reason: say`Stuck ${short(f.sown)}: firm them, water them in, shade and still air where they have leaves. Written down as watered, it is not asked for again.`,
            waiting: say`A cutting that wilts in its first days seldom roots (usual experience).`,
          }
        : {
            title: say`Finish the sowing of ${code}`,
            reason: say`Sown ${short(f.sown)}: water it in, mulch to once or twice the seed’s thickness, ${f.bed ? say`cover and cage it against mice and birds` : say`set it where mice and birds cannot reach it`}. Written down as watered, it is not asked for again.`,
            waiting: say`Mice and birds find a sowing in its first nights; dry seed that has swelled dies.`,
          };
    case 'keep-moist':
      return f.cuttings
        ? {
            title: say`Keep ${code} moist until it has roots`,
            reason: say`Roots may be there from ${short(f.from)}, in half of forecasts by ${short(f.half)}. Feel the medium; water finely where it is dry.`,
            waiting: say`A cutting without roots cannot make up for a day of drying (usual experience).`,
          }
        : {
            title: say`Keep ${code} moist until it is up`,
            reason: say`It may show from ${short(f.from)}, in half of forecasts by ${short(f.half)}. Feel the top finger’s breadth; water finely where it is dry.`,
            waiting: say`Seed that has begun to wake does not live through drying (usual experience).`,
          };
    case 'count-up':
      return {
        title: say`Count ${code}`,
        reason:
          f.around !== undefined
            ? say`Expected up around ${short(f.around)}.`
            : say`Last counted ${short(f.lastCount)}, while it was coming up.`,
        waiting: say`The count tells how many trees there will be, and when.`,
      };
    case 'pull-plug':
      return {
        title: say`Pull three plugs of ${code}`,
        reason: say`Holds in ${odds(f.chanceReady)} forecasts, root-bound in ${odds(f.chanceBound)}.`,
        waiting: say`${Math.round(f.vigourFromStart * 100)} % of the doubt in its roots is still the starting value.`,
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
const inBedFrost = () => say`Straw, fleece or leaves over it and round its sides tonight`;
const inCellsFrost = () =>
  say`Set it on the ground, push it together, straw or fleece over and round it, or move it under cover`;
const heatActs = () =>
  say`Shade it, water early and once at noon, push it together, white boards to the south`;
const frostReason = (f: Figures): string =>
  say`${bothDegrees(f.airC)} last night; its medium is ${f.frozen >= 1 ? say`frozen through, about ${bothDegrees(f.mediumC)}` : say`${percent(f.frozen)} frozen`}. ` +
  say`Young roots begin to die near ${bothDegrees(f.limitC)} (a starting value, not your species’ own).`;
const heatReason = (f: Figures): string =>
  say`${bothDegrees(f.airC)}; cells in the sun come to about ${bothDegrees(f.mediumC)}. Roots begin to die near ${bothDegrees(f.limitC)} (rule of thumb).`;

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
  const rest = codes.length > 4 ? say`${named} and ${codes.length - 4} more` : named;
  switch (rule) {
    case 'root-frost':
      return {
        title: say`Shelter the roots of ${several(codes.length, 'lot')} before night`,
        reason: say`First ${rest}. Of the worst: ${frostReason(f)}`,
        waiting: say`Cells first, they freeze through soonest. ${inCellsFrost()}; over beds straw or fleece: ${several(trees, 'tree')}.`,
      };
    case 'root-heat':
      return {
        title: say`Cool the roots of ${several(codes.length, 'lot')}`,
        reason: say`First ${rest}. Of the worst: ${heatReason(f)}`,
        waiting: `${heatActs()}: ${several(trees, 'tree')}.`,
      };
    case 'keep-moist':
      return {
        title: say`Keep ${several(codes.length, 'sowing')} moist until they are up or rooted`,
        reason: say`${rest}: the first may show from ${shortDate(f.from, yearOf(view))}. Feel the top finger’s breadth; water finely where it is dry.`,
        waiting: say`Seed that has begun to wake, and cuttings without roots, do not live through drying (usual experience).`,
      };
  }
}

/** A planned sowing in words: which, for what, and what another week would mean. */
export function planActWords(
  { name, route, isStuck, from, plants, trees, chance }: Omit<PlanAsk, 'sowingId'>,
  today: EpochDay,
): ActWords {
  const day = (value: EpochDay) => shortDate(value, yearOf(today));
  const verb = isStuck ? say`Stick` : say`Sow`;
  const late = from + 7 <= today;
  return {
    title: say`${verb} ${name} as planned: ${word(route)}`,
    reason: say`${late ? say`Was planned` : say`Planned`} for the week of ${day(from)}: ${count(plants)} to stand, for ${several(trees, 'tree')}; in time in ${surely(chance)} of forecasts when it was planned.`,
    waiting: late
      ? say`Sown now it may not be in time any more: on the board, a week later works it out anew. Sown already, say there as which lot.`
      : say`Sown in another week it is in time more or less often: the board works it out.`,
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
    title: say`Begin treating ${name} for its planned sowing`,
    reason: say`${word(route)}, for ${count(plants)} to stand from the week of ${day(from)}: its treatment takes about ${several(days, 'day')}, so it ${late > 0 ? say`was to begin` : say`begins`} by ${day(on)}. No batch of it is under way.`,
    waiting:
      late > 0
        ? say`Begun now it is done about ${day(today + days)}: move the sowing on the board, or buy seed treated.`
        : say`Begun later, it is sown later: the board works out what that does.`,
  };
}

/** What the Seed station asks for, with its reason. */
export function seedActWords(act: SeedAct, name: string, today: EpochDay): ActWords {
  const day = (value: EpochDay) => shortDate(value, yearOf(today));
  const f = act.figures;
  switch (act.rule) {
    case 'radicles-out':
      return {
        title: say`Sow ${name} at once: radicles are out`,
        reason: say`Seen ${day(f.since)}; sow by ${day(act.by!)}, root down, barely covered, mulch, cover against rodents.`,
      };
    case 'sow-batch':
      return {
        title: act.by! <= today ? say`Sow ${name}: its treatment is done` : say`Make ready to sow ${name}`,
        reason: say`Done ${day(act.by!)} in the middle of the weather years; radicles within a week: ${surely(f.chance)}.`,
      };
    case 'check-batch':
      return {
        title: say`Look for radicles in ${name}`,
        reason: say`Chance that some show within a week: ${surely(f.chance)}.`,
      };
    case 'retest':
      return {
        title: f.tested ? say`Test ${name} again` : say`Test ${name}`,
        reason: say`${f.tested ? say`About` : say`Never tested: by its kind about`} ${percent(f.alive)} alive, but it may be ${Math.round(f.low * 100)} or ${Math.round(f.high * 100)} %.`,
      };
    case 'likely-dead':
      return {
        title: say`${name} is likely dead`,
        reason: say`About ${percent(f.alive)} alive; below a tenth since ${day(f.since)}. Test it, or give the room to fresh seed.`,
      };
    case 'sever':
      return {
        title: say`Sever and pot the layer ${name}`,
        reason: say`By ${day(act.by!)}, so that it makes roots in its pot before frost.`,
      };
    case 'keep-on':
      return {
        title: say`Keep the layer ${name} on its branch over winter`,
        reason:
          `${f.severBy < today ? say`The last day to sever it was ${day(f.severBy)}` : say`Roots are there by ${day(f.severBy)} in only ${odds(f.chance)} forecasts`}. ` +
          say`Wrap the pouch against frost; sever between ${day(f.from)} and ${day(f.until)}, once roots are seen.`,
      };
    case 'late-up':
      return {
        title: say`Look at ${name}: it is late coming up`,
        reason: say`${count(f.up)} up where ordinary seed would show ${count(Math.round(f.expected))}; about ${count(Math.round(f.final))} to come in all. Count, dig for seed, look for rot and mice.`,
      };
    case 'look-layer':
      return {
        title: say`Look for roots in the layer ${name}`,
        reason: say`Rooted in time for ${day(f.severBy)}: ${surely(f.chance)}.`,
      };
  }
}

/** What the root bench asks for, with its reason. */
export function rootActWords(act: RootAct, code: string): ActWords {
  const { failing, pulled, lots, begun } = act.figures;
  return act.rule === 'roots-rejected'
    ? {
        title: say`Deal with the roots of ${code}`,
        reason: say`Rejected: ${failing} of ${pulled} pulled plants fail. Shift, shave or cull before any go out.`,
      }
    : {
        title: say`Judge the roots of ${several(lots, 'lot')} before they go`,
        reason: say`${begun ? say`${begun} half judged, ` : ''}${lots - begun} not pulled yet. Some nine good plants accept a lot, two or three bad ones reject it.`,
      };
}
