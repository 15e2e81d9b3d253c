import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import { cellMlAt, cellMlOf } from '../home/home';
import { LATER_SHAPE, seasonShare } from '../growth/seasons';
import { addedIn, grownOver, warmInSeason } from '../growth/stretches';
import { linearIn, rootFill } from '../roots/rootFill';
import type { Outlook } from '../weather/ensemble';
import type { Warmth } from '../weather/sums';
import { put, sum, type Step } from '../working/working';
import type { Emergence } from './emergence';
import type { LotDraws } from './lotDraws';
import { homesOf } from './lotHomes';
import { type LotFacts } from './lotFacts';
import type { Runs } from './runs';

/**
 * The steps behind a lot's forecast, shown on its middle run: the one whose height (and then whose root
 * fill) stands in the middle of all runs on the date looked at.
 */
export function explainForecast(
  facts: LotFacts,
  outlook: Outlook,
  warmth: Warmth,
  emergence: Emergence,
  g: LotDraws,
  runs: Runs,
  at: number,
  heights: Float64Array,
): Step[] {
  const view = runs.keptDays[at];
  const cellMl = cellMlOf(facts.home);
  const steps: Step[] = [
    {
      what: say`Weather used`,
      how: say`Days as recorded up to the date the forecast is made, then as many ways for the weather to go on as there are years: ${yearsUsed(outlook)}.`,
      result: outlook.years.length,
      unit: 'years',
    },
  ];
  const middle = middleIndex(heights);
  if (emergence.days[middle] > view) {
    steps.push({
      what: say`Coming up`,
      how: say`In the middle run this lot has not come up by the date looked at.`,
      result: emergence.days[middle],
      unit: 'date',
      inputs: [
        {
          name: say`warmth to emerge`,
          value: facts.species.emergenceDd.median,
          unit: '°C·d',
          origin: 'starting',
        },
      ],
    });
    return steps;
  }
  steps.push(...heightSteps(facts, emergence, g, runs, middle, view, heights[middle]), {
    what: say`How far height still rests on the starting value`,
    how: say`Spread of the lot’s factor now over its spread before any measurement.`,
    result: Math.round(g.height.belief.startingShare * 100),
    unit: '%',
  });
  const byFill = middleIndex(runs.rootMl[at]);
  const upOn = emergence.days[byFill];
  const run = Math.floor(byFill / runs.draws);
  const linear = (ml: number) => linearIn(facts.species.rootLinearAtMl, ml);
  const parameters = {
    ratePerDd: facts.species.rootRatePerDd,
    vigour: g.vigour[byFill % runs.draws],
  };
  // Home by home: roots go on from what they were when the lot was moved.
  let initialMl = facts.species.rootInitialMl;
  let movedOn = upOn;
  for (const { from } of homesOf(facts).slice(1)) {
    if (from <= movedOn || from > view) continue;
    const days = warmthOfRun(warmth, run, movedOn, from - 1);
    const old = cellMlAt(homesOf(facts), movedOn);
    initialMl =
      rootFill({ initialMl, cellMl: old, linearAtMl: linear(old), ...parameters }, days).value.last * old;
    movedOn = from;
  }
  const days = warmthOfRun(warmth, run, movedOn, view);
  const roots = rootFill({ initialMl, cellMl, linearAtMl: linear(cellMl), ...parameters }, days);
  steps.push(
    {
      what: facts.home.kind === 'container' ? say`Medium in a cell` : say`Medium a tree has to itself`,
      expression:
        facts.home.kind === 'container'
          ? put(cellMl)
          : sum`1000 ÷ ${facts.home.densityPerM2} × ${facts.home.settledDepthMm}`,
      result: cellMl,
      unit: 'mL',
    },
    ...roots.working,
    {
      what: say`How far root vigour still rests on the starting value`,
      how: facts.pulls.length
        ? say`Spread of vigour now over its spread before any plug was pulled.`
        : say`No plug pulled yet.`,
      result: Math.round(g.roots.startingShare * 100),
      unit: '%',
    },
    {
      what: say`Dates`,
      how: say`Each of ${runs.count} runs (weather years × draws from what is believed of this lot) gives its own date; shown are the tenth, middle and ninetieth of a hundred.`,
      result: runs.count,
      unit: 'runs',
    },
  );
  return steps;
}

/** Height of the middle run, season by season and home by home. */
function heightSteps(
  facts: LotFacts,
  emergence: Emergence,
  g: LotDraws,
  runs: Runs,
  middle: number,
  view: EpochDay,
  shown: number,
): Step[] {
  const year = Math.floor(middle / runs.draws);
  const curve = g.heights.curves[middle % runs.draws];
  const plant = g.plantIn(year, emergence.days[middle]);
  const origin = facts.sizes.length ? 'record' : 'starting';
  const steps: Step[] = [];
  let size = curve.initial;
  let before: number | null = null;
  for (const stretch of g.heights.stretches(plant)) {
    if (stretch.from > view) break;
    const warm = view < stretch.to ? warmInSeason(stretch, plant.warmth.by, view) : stretch.warmTo;
    const { cut } = stretch;
    if (cut) {
      const left = 'keep' in cut ? size * cut.keep : Math.min(size, cut.toCm);
      steps.push({
        what: 'keep' in cut ? say`Height left after it was browsed` : say`Height it was cut back to`,
        ...('keep' in cut && { expression: sum`${size} × ${cut.keep}` }),
        result: left,
        unit: 'cm',
      });
      size = left;
    }
    if (warm <= stretch.warmFrom) continue;
    const moved = before === stretch.season;
    before = stretch.season;
    const result = grownOver({ ...stretch, cut: undefined }, curve, size, warm);
    const what = say`Height of the middle run ${moved ? say`since it was moved` : say`in season ${stretch.season + 1}`}`;
    const inputs: Step['inputs'] = [
      {
        name: moved ? say`warmth since it was moved` : say`warmth of the season`,
        value: warm - stretch.warmFrom,
        unit: '°C·d',
        origin: 'record',
      },
      { name: say`growth rate`, value: curve.ratePerDd, unit: 'per °C·d', origin },
      { name: say`what its home allows`, value: stretch.scale, origin: 'record' },
      {
        name: moved
          ? say`height when it was moved`
          : stretch.season === 0
            ? say`seedling height`
            : say`height before`,
        value: size,
        unit: 'cm',
        origin: stretch.season === 0 && !moved ? 'starting' : 'record',
      },
    ];
    if (stretch.season === 0) {
      const most = curve.firstTo * stretch.scale;
      steps.push({
        what,
        expression:
          size < most
            ? sum`${most} × exp(ln(${size} ÷ ${most}) × exp(0 − ${curve.ratePerDd} × ${warm - stretch.warmFrom}))`
            : put(size),
        result,
        unit: 'cm',
        inputs: [...inputs, { name: say`size the crowd tends to`, value: most, unit: 'cm', origin }],
        source: 'Gompertz curve in thermal time; grid posterior of size and rate',
      });
    } else {
      const whole = addedIn(curve, stretch.season) * stretch.scale;
      const share = (w: number) => seasonShare(LATER_SHAPE, curve.ratePerDd * w);
      steps.push({
        what,
        expression: sum`${size} + ${whole} × (${share(warm)} − ${share(stretch.warmFrom)})`,
        result,
        unit: 'cm',
        inputs: [...inputs, { name: say`what the season adds`, value: whole, unit: 'cm', origin }],
        source: 'Seasons’ growth added up; each a Gompertz share of what it adds',
      });
    }
    size = result;
  }
  if (size > 0 && shown > 0)
    steps.push({
      what: say`Height of the middle run`,
      how: facts.sizes.length
        ? say`What its samples lie off that curve is carried on; it fades as the lot grows.`
        : say`With the model’s own error as this run drew it.`,
      expression: sum`${size} × ${shown / size}`,
      result: shown,
      unit: 'cm',
    });
  return steps;
}

function yearsUsed({ recordedYears, generatedYears, normals }: Outlook): string {
  const made = say`${generatedYears} made from ${normals.origin === 'record' ? say`your own averages` : say`a rough climate by latitude and height`}`;
  const own = say`${recordedYears} past years of your own`;
  if (generatedYears === 0) return own;
  return recordedYears === 0 ? made : say`${own} and ${made}`;
}

function middleIndex(values: Float64Array): number {
  const order = Array.from(values, (_, i) => i).sort((a, b) => values[a] - values[b]);
  return order[Math.floor((order.length - 1) / 2)];
}

function warmthOfRun(warmth: Warmth, year: number, from: number, to: number): Float64Array {
  const start = Math.max(from, warmth.pastStart);
  return Float64Array.from({ length: Math.max(0, to - start + 1) }, (_, i) => {
    const day = start + i;
    return day <= warmth.asOf
      ? warmth.past[day - warmth.pastStart]
      : (warmth.years[year][day - warmth.asOf - 1] ?? 0);
  });
}
