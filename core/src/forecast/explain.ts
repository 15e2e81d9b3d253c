import { cellMlAt, cellMlOf } from '../home/home';
import { gompertz } from '../growth/gompertz';
import { grownTo } from '../growth/legs';
import { rootFill } from '../roots/rootFill';
import type { Outlook } from '../weather/ensemble';
import type { Warmth } from '../weather/sums';
import { put, sum, type Step } from '../working/working';
import type { Emergence } from './emergence';
import type { GrowthDraws } from './growthDraws';
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
  g: GrowthDraws,
  runs: Runs,
  at: number,
  heights: Float64Array,
): Step[] {
  const view = runs.keptDays[at];
  const cellMl = cellMlOf(facts.home);
  const steps: Step[] = [
    {
      what: 'Weather used',
      how: `Days as recorded up to the date the forecast is made, then as many ways for the weather to go on as there are years: ${yearsUsed(outlook)}.`,
      result: outlook.years.length,
      unit: 'years',
    },
  ];
  const middle = middleIndex(heights);
  if (emergence.days[middle] > view) {
    steps.push({
      what: 'Coming up',
      how: 'In the middle run this lot has not come up by the date looked at.',
      result: emergence.days[middle],
      unit: 'date',
      inputs: [
        {
          name: 'warmth to emerge',
          value: facts.species.emergenceDd.median,
          unit: '°C·d',
          origin: 'starting',
        },
      ],
    });
    return steps;
  }
  const d = middle % runs.draws;
  const [whole, k, sinceUp] = [g.heightAsymptote[d], g.heightRate[d], runs.thermal[at][middle]];
  // After a move the last leg is shown: from the size it had then, on the warmth since.
  const leg = g.legs.findLast((l) => l.from <= sinceUp) ?? g.legs[0];
  const moved = leg.from > 0;
  const h0 = grownTo(whole, facts.species.seedlingHeightCm, k, g.legs, leg.from);
  const tau = sinceUp - leg.from;
  const a = whole * leg.scale;
  steps.push(
    {
      what: 'Height of the middle run',
      expression: sum`${a} × exp(0 − ln(${a} ÷ ${h0}) × exp(0 − ${k} × ${tau}))`,
      result: gompertz(a, h0, k, tau),
      unit: 'cm',
      inputs: [
        {
          name: moved ? 'warmth since it was moved' : 'warmth since it came up',
          value: tau,
          unit: '°C·d',
          origin: 'record',
        },
        {
          name: 'size the crowd tends to',
          value: a,
          unit: 'cm',
          origin: facts.sizes.length ? 'record' : 'starting',
        },
        {
          name: 'growth rate',
          value: k,
          unit: 'per °C·d',
          origin: facts.sizes.length ? 'record' : 'starting',
        },
        {
          name: moved ? 'height when it was moved' : 'seedling height',
          value: h0,
          unit: 'cm',
          origin: moved ? 'record' : 'starting',
        },
      ],
      source: 'Gompertz curve in thermal time; grid posterior of size and rate',
    },
    {
      what: 'How far height still rests on the starting value',
      how: 'Spread of the size now over its spread before any measurement.',
      result: Math.round(g.heightStartingShare * 100),
      unit: '%',
    },
  );
  const byFill = middleIndex(runs.rootMl[at]);
  const upOn = emergence.days[byFill];
  const run = Math.floor(byFill / runs.draws);
  const parameters = {
    ratePerDd: facts.species.rootRatePerDd,
    linearAtMl: facts.species.rootLinearAtMl,
    vigour: g.vigour[byFill % runs.draws],
  };
  // Home by home: roots go on from what they were when the lot was moved.
  let initialMl = facts.species.rootInitialMl;
  let movedOn = upOn;
  for (const { from } of homesOf(facts).slice(1)) {
    if (from <= movedOn || from > view) continue;
    const days = warmthOfRun(warmth, run, movedOn, from - 1);
    const old = cellMlAt(homesOf(facts), movedOn);
    initialMl = rootFill({ initialMl, cellMl: old, ...parameters }, days).value.last * old;
    movedOn = from;
  }
  const days = warmthOfRun(warmth, run, movedOn, view);
  const roots = rootFill({ initialMl, cellMl, ...parameters }, days);
  steps.push(
    {
      what: facts.home.kind === 'container' ? 'Medium in a cell' : 'Medium a tree has to itself',
      expression:
        facts.home.kind === 'container'
          ? put(cellMl)
          : sum`1000 ÷ ${facts.home.densityPerM2} × ${facts.home.settledDepthMm}`,
      result: cellMl,
      unit: 'mL',
    },
    ...roots.working,
    {
      what: 'How far root vigour still rests on the starting value',
      how: facts.pulls.length
        ? 'Spread of vigour now over its spread before any plug was pulled.'
        : 'No plug pulled yet.',
      result: Math.round(g.vigourStartingShare * 100),
      unit: '%',
    },
    {
      what: 'Dates',
      how: `Each of ${runs.count} runs (weather years × draws from what is believed of this lot) gives its own date; shown are the tenth, middle and ninetieth of a hundred.`,
      result: runs.count,
      unit: 'runs',
    },
  );
  return steps;
}

function yearsUsed({ recordedYears, generatedYears, normals }: Outlook): string {
  const made = `${generatedYears} made from ${normals.origin === 'record' ? 'your own averages' : 'a rough climate by latitude and height'}`;
  const own = `${recordedYears} past years of your own`;
  if (generatedYears === 0) return own;
  return recordedYears === 0 ? made : `${own} and ${made}`;
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
