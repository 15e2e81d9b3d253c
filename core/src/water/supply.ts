import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Worked } from '../working/working';

/** What a tap gives, by filling a bucket. @returns L/h @throws Unfit when either is not above 0 */
export function bucketTest(litres: number, seconds: number): Worked<number> {
  if (!(litres > 0 && seconds > 0))
    throw new Unfit(say`A bucket test needs litres and seconds, both above 0.`);
  const value = (litres / seconds) * 3600;
  return {
    value,
    working: [
      {
        what: say`What the tap gives`,
        expression: sum`${litres} ÷ ${seconds} × 3600`,
        result: value,
        unit: 'L/h',
      },
    ],
  };
}

/** Share of the measured supply a zone may draw, so that pressure holds. */
export const USABLE_SUPPLY = 0.85;

export interface Drawing {
  placeId: string;
  flowLph: number;
}

export interface Zone {
  placeIds: string[];
  flowLph: number;
}

/**
 * Splits places into watering zones, none of which draws more than the tap gives with some in hand: the
 * largest first, each into the first zone that still takes it (first-fit decreasing).
 * @throws Unfit with a sentence naming a place that alone needs more than the supply
 */
export function zonesFor(
  drawings: readonly Drawing[],
  supplyLph: number,
  nameOf: (id: string) => string = (id) => id,
): Zone[] {
  const limit = supplyLph * USABLE_SUPPLY;
  const zones: Zone[] = [];
  for (const { placeId, flowLph } of [...drawings].sort((a, b) => b.flowLph - a.flowLph)) {
    if (flowLph > limit)
      throw new Unfit(
        say`${nameOf(placeId)} alone needs ${Math.round(flowLph)} L/h; the tap gives ${Math.round(supplyLph)} and ${Math.round(limit)} of it may be drawn. Take fewer lines, wider spacing or smaller emitters.`,
      );
    const zone = zones.find((z) => z.flowLph + flowLph <= limit + 1e-9);
    if (zone) {
      zone.placeIds.push(placeId);
      zone.flowLph += flowLph;
    } else zones.push({ placeIds: [placeId], flowLph });
  }
  return zones;
}
