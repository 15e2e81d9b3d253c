import {
  dayFrom,
  dayOf,
  feltWeather,
  isoOf,
  mondayOf,
  partsOf,
  planSowing,
  pointOf,
  routeLot,
  runSeason,
  sowRoute,
  nothingLearnt,
  startingRoutes,
  traysOnBench,
  type KnownWeather,
  type Lookup,
  type SeasonNursery,
} from '@kauri/core';
import type { PlannedSowing, SeasonAsked } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { seasonProposal } from '../db/schema/index';
import { sowLot } from '../features/lots/sow';
import type { Work } from '../http/context';
import { readSeason } from '../jobs/seasonWork';
import { keepValue } from '../nursery/values';

/** The season was planned so long ago, days: some of it has been carried out since. */
const MADE_AGO = 28;
/** Lines wanted this far ahead are planned for; what is wanted sooner stands. */
const SOWN_FOR_DAYS = 300;
/** Choosing may take so long, and takes far less, seconds. */
const SECONDS = 10;

const asked: SeasonAsked = {
  chance: 0.8,
  hoursAWeek: null,
  hourCost: 14,
  treeWorth: 0.8,
  buyTimes: null,
  spend: null,
  seedInStore: false,
};
/** What the season is planned with, and what another way of it was tried with. */
const plans: readonly { name: string; asked: SeasonAsked }[] = [
  { name: 'With what we have', asked },
  { name: 'Surer, and some bought in', asked: { ...asked, chance: 0.9, buyTimes: 0.9 } },
];

/** A season planned four weeks ago and chosen, partly carried out since; another beside it; and a week in spring that is over-full. */
export async function planAhead(work: Work, lookup: Lookup, weather: KnownWeather): Promise<void> {
  const today = dayOf(work.today);
  const madeOn = today - MADE_AGO;
  const pinned = crowdedBench(lookup, weather, today);
  const whole = await readSeason(work.tx, { nurseryId: work.nurseryId, asked, today: isoOf(madeOn) });
  const lines = whole.lines.filter(({ on }) => on > today + SOWN_FOR_DAYS);
  if (!lines.length) return;
  const nursery: SeasonNursery = { ...whole, lines, planned: pinned, runs: new Map() };
  for (const [at, plan] of plans.entries()) {
    const begun = Date.now();
    const result = await runSeason(
      { ...nursery, terms: plan.asked },
      { seconds: SECONDS, now: () => (Date.now() - begun) / 1000, newId, told: () => undefined },
    );
    await work.tx.insert(seasonProposal).values({
      nurseryId: work.nurseryId,
      id: newId(),
      ...plan,
      state: 'done',
      step: 'done',
      share: 1,
      madeOn: isoOf(madeOn),
      result,
      chosen: at === 0,
    });
    if (at > 0) continue;
    const sowings = result.sowings.map(({ sowing }) => sowing);
    const left = await carriedOut(work, sowings, lookup, today);
    await keepValue(work, 'plan', null, { schema: 1, sowings: [...pinned, ...left] });
  }
}

/** Seeds sown for each plant that is to stand. */
const SEEDS_A_PLANT = 1.6;

/** Sows what was planned for a day that has gone by. @returns what is still to be done */
async function carriedOut(
  work: Work,
  sowings: readonly PlannedSowing[],
  lookup: Lookup,
  today: number,
): Promise<PlannedSowing[]> {
  const left: PlannedSowing[] = [];
  let sown = 0;
  for (const sowing of sowings) {
    const { stages, speciesId, start } = sowing;
    const [{ from, plants, placeId, containerTypeId, trays, densityPerM2, areaM2 }] = stages;
    if (dayOf(from) > today || start === 'cuttings') {
      left.push(sowing);
      continue;
    }
    await sowLot(work, {
      id: newId(),
      code: `${lookup.species.get(speciesId)!.code}-P${++sown}`,
      speciesId,
      sownOn: from,
      seedState: start === 'fresh seed' ? 'fresh' : 'ready',
      targetHeightCm: null,
      note: 'Sown as planned.',
      seeds: Math.ceil(SEEDS_A_PLANT * plants),
      origin: 'seed',
      seedLotId: null,
      treatmentId: null,
      stockBedId: null,
      cutting: null,
      patch: null,
      stage:
        containerTypeId === null
          ? { kind: 'bed', id: newId(), placeId, densityPerM2: densityPerM2!, areaM2: areaM2! }
          : { kind: 'container', id: newId(), placeId, containerTypeId, trays: trays! },
    });
  }
  return left;
}

/** Share of a bench that each of the two sowings takes which do not fit on it together. */
const TOO_MUCH = 0.6;

/** Two sowings pinned by hand to one bench in the week of 10 May, or November in the south, that is too small for both. */
function crowdedBench(lookup: Lookup, weather: KnownWeather, today: number): PlannedSowing[] {
  const { latitudeDeg } = weather.outlook.site;
  const places = [...lookup.places.values()];
  const containers = [...lookup.containers.values()];
  const bench = places.find(({ place }) => place.kind === 'bench');
  if (bench?.place.kind !== 'bench') return [];
  const month = latitudeDeg >= 0 ? 5 : 11;
  const { year } = partsOf(today);
  const inMay = [year, year + 1].map((y) => mondayOf(dayFrom(y, month, 10)));
  const on = inMay.find((day) => day > today + 7)!;
  const felt = feltWeather(weather);
  const kinds = [...lookup.species.values()].filter(({ code }) => code === 'ALN' || code === 'BPU');
  return kinds.flatMap((species): PlannedSowing[] => {
    const route = startingRoutes(species, [bench], containers).find(({ name }) => name === 'Cells, as plugs');
    if (!route) return [];
    const [stage] = route.stages;
    const { trayLengthMm, trayWidthMm, cellsPerTray } = lookup.containers.get(stage.containerTypeId!)!.values;
    const holds = traysOnBench(bench.place.design, { lengthMm: trayLengthMm, widthMm: trayWidthMm }).value;
    const wanted = { on: on + 130, until: on + 190, fromCm: null, toCm: null, chance: asked.chance };
    const point = pointOf(sowRoute(routeLot(route, lookup, nothingLearnt), on, wanted, felt), wanted);
    if (!point.serves) return [];
    const plants = Math.floor(TOO_MUCH * holds) * cellsPerTray;
    const trees = Math.floor(plants * stage.goesOn * point.serves);
    const aim = { lineId: null, wanted, trees };
    return [{ ...planSowing(newId(), route, point, aim, lookup.containers, today), pinned: true }];
  });
}
