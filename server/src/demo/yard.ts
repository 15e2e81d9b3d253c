import {
  bedGeometry,
  bucketHolds,
  bucketTest,
  dayOf,
  dripGrid,
  heldShareOf,
  isoOf,
  zonesFor,
  type BedDesign,
  type MediumValues,
} from '@kauri/core';
import type { Drip, PlaceBody, Programme, WaterPlan } from '@kauri/core/contract';
import { asc, eq } from 'drizzle-orm';
import { v7 as newId } from 'uuid';
import { medium } from '../db/schema/index';
import { ControllerLink } from '../features/water/controller';
import { readInto } from '../features/water/routes';
import { checkPlace } from '../features/yard/checks';
import { addDesign } from '../features/yard/designs';
import { moveStock } from '../features/yard/kinds';
import { addPlace } from '../features/yard/places';
import { keepValue } from '../nursery/values';
import type { Work } from '../http/context';
import type { DemoNursery } from './nurseries';

/** Drip as it lies on the demo's beds: turbulent emitters on a thin line. */
const drip = {
  lineSpacingMm: 300,
  emitterSpacingMm: 300,
  emitterFlowLph: 1.6,
  nominalPressureM: 10,
  exponent: 0.5,
  insideDiameterMm: 10,
  manufacturingCv: 0.04,
  canopyCover: 0.8,
  rainShare: 0.9,
};

interface Bed {
  id: string;
  design: BedDesign;
  medium: MediumValues;
}

/** The demo's designs, site, places, condition checks, heaps of medium, and its watering. */
export async function makeYard(work: Work, demo: DemoNursery, irrigationUrl: string): Promise<void> {
  const media = await work.tx
    .select()
    .from(medium)
    .where(eq(medium.nurseryId, work.nurseryId))
    .orderBy(asc(medium.id));
  await keepValue(work, 'site', 0, { schema: 1, elements: demo.site.map((e) => ({ ...e, id: newId() })) });
  const designs = new Map<string, { id: string; design: BedDesign }>();
  for (const [name, values] of Object.entries(demo.designs)) {
    const design = { schema: 1 as const, ...values };
    const kept = await addDesign(work, newId(), { name, design: design as never });
    designs.set(name, { id: kept.id, design });
  }
  const beds: Bed[] = [];
  const ids = new Map<string, string>();
  for (const p of demo.places) {
    const id = newId();
    ids.set(p.name, id);
    const spot = {
      name: p.name,
      eastM: p.east,
      northM: p.north,
      angleDeg: p.angle ?? 0,
      mediumId: media[p.medium].id,
    };
    const from = p.design ? designs.get(p.design)! : null;
    const place = from
      ? {
          ...spot,
          kind: 'bed',
          design: from.design,
          builtOn: isoOf(dayOf(work.today) - 1000),
          builtFrom: { designId: from.id, version: 1 },
        }
      : { ...spot, kind: p.as ?? 'bench', design: { schema: 1, ...p.bench } };
    await addPlace(work, id, place as PlaceBody);
    if (from) beds.push({ id, design: from.design, medium: media[p.medium].values });
  }
  const ago = (days: number) => isoOf(dayOf(work.today) - days);
  if (demo.water) {
    await makeChecks(work, ids, ago);
    await moveStock(work, media[0].id, { id: newId(), day: ago(230), litres: 6000, why: 'bought', note: '' });
    await moveStock(work, media[0].id, {
      id: newId(),
      day: ago(215),
      litres: -4300,
      why: 'filled',
      note: 'Beds topped up before sowing.',
    });
    await moveStock(work, media[0].id, {
      id: newId(),
      day: ago(12),
      litres: 900,
      why: 'spent',
      note: 'From the rowan bed, clean.',
    });
    await moveStock(work, media[3].id, { id: newId(), day: ago(225), litres: 1500, why: 'bought', note: '' });
    await moveStock(work, media[3].id, {
      id: newId(),
      day: ago(220),
      litres: -1180,
      why: 'filled',
      note: '',
    });
    await makeWater(work, demo.water, beds, ids, irrigationUrl);
  }
}

async function makeChecks(work: Work, ids: ReadonlyMap<string, string>, ago: (days: number) => string) {
  const check = (
    name: string,
    days: number,
    condition: 'sound' | 'watch' | 'repair',
    note: string,
    repaired = false,
  ) => checkPlace(work, ids.get(name)!, { id: newId(), day: ago(days), condition, repaired, note });
  await check('Bed 1', 40, 'sound', '');
  await check('Bed 4', 40, 'watch', 'Long side bows a little at the middle foot.');
  await check('Bed 6, shallow trial', 41, 'repair', 'Weeds root through: the gap is too small.');
  await check('Bed 3', 120, 'sound', 'Corner bracket replaced.', true);
}

/** Lays drip on every bed, makes zones within the tap, sends the programme and reads three weeks of it. */
async function makeWater(
  work: Work,
  tap: { litres: number; seconds: number },
  beds: readonly Bed[],
  ids: ReadonlyMap<string, string>,
  irrigationUrl: string,
) {
  const drips: Drip[] = beds.map(({ id }) => ({ placeId: id, ...drip }));
  const supply = bucketTest(tap.litres, tap.seconds).value;
  const grid = new Map(
    beds.map(({ id, design }) => {
      const g = bedGeometry(design).value;
      return [
        id,
        {
          g,
          drip: dripGrid({ insideLengthMm: g.insideLengthMm, insideWidthMm: g.insideWidthMm, ...pick(drip) })
            .value,
        },
      ];
    }),
  );
  const zones = zonesFor(
    beds.map(({ id }) => ({ placeId: id, flowLph: grid.get(id)!.drip.totalFlowLph })),
    supply,
  ).map((zone, i) => ({ id: newId(), name: `Zone ${i + 1}`, placeIds: zone.placeIds }));
  const plan: WaterPlan = {
    schema: 1,
    bucketLitres: tap.litres,
    bucketSeconds: tap.seconds,
    pressureM: 12,
    dryDown: 0.5,
    drips,
    zones,
  };
  await keepValue(work, 'water', 0, plan);
  const programme: Programme = {
    from: isoOf(dayOf(work.today) - 21),
    zones: zones.map((zone) => ({
      id: zone.id,
      name: zone.name,
      minutes: 20,
      everyDays: 7,
      places: zone.placeIds.map((placeId) => {
        const bed = beds.find((b) => b.id === placeId)!;
        const { g, drip: laid } = grid.get(placeId)!;
        const { heldMm } = bucketHolds({
          depthMm: g.settledDepthMm,
          heldShare: heldShareOf(bed.medium),
          canopyCover: drip.canopyCover,
          dryDown: plan.dryDown,
          rainShare: drip.rainShare,
          applicationMmPerH: laid.applicationMmPerH,
        }).value;
        return {
          placeId,
          flowLph: laid.totalFlowLph,
          areaM2: g.insideAreaM2,
          heldMm,
          cover: drip.canopyCover,
          rainShare: drip.rainShare,
        };
      }),
    })),
  };
  await keepValue(work, 'programme', 0, programme);
  const link = new ControllerLink(irrigationUrl, work.nurseryId);
  await link.sendProgramme(programme);
  await link.fail(ids.get('Bed 9')!, 'stuck-closed');
  await readInto(work, link);
}

function pick({ lineSpacingMm, emitterSpacingMm, emitterFlowLph }: typeof drip) {
  return { lineSpacingMm, emitterSpacingMm, emitterFlowLph };
}
