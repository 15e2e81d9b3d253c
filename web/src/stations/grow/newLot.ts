import type { ShownPlace } from '../yard/usePlaces';

/** A code for the next lot: year, species, and the first number not taken. */
export function nextCode(speciesCode: string, sownOn: string, taken: Iterable<string>): string {
  const used = new Set([...taken].map((code) => code.toUpperCase()));
  const year = sownOn.slice(2, 4);
  for (let n = 1; ; n++) {
    const code = `${year}-${speciesCode}-${String(n).padStart(2, '0')}`;
    if (!used.has(code)) return code;
  }
}

/** Ground that is worth sowing in, m². */
const WORTH_M2 = 0.05;

/**
 * The place a new lot is offered: the first bed or bench with room, in their order; where none has any the first of all.
 * @returns its id, empty where nothing can stand anywhere yet
 */
export function firstWithRoom(places: readonly ShownPlace[]): string {
  const some = places.filter(({ place }) => place.place.kind !== 'bay');
  const roomy = some.find(({ occupancy }) =>
    occupancy.kind === 'bed' ? occupancy.freeM2 >= WORTH_M2 : occupancy.layout.freeLengthMm > 0,
  );
  return (roomy ?? some[0])?.place.id ?? '';
}

/**
 * What a blank field stands for: as much as is needed, no more than is free. Where nothing is free it is what is needed,
 * and the room says that it is too much; where it is not known what is needed, all that is free.
 * @param step in whole steps of which it is told: a need is rounded up, room down
 */
export function asWanted(need: number | null, free: number, step: number): number {
  const exact = (steps: number) => Math.round(steps * 1e6) / 1e6;
  const inSteps = (steps: number) => exact(steps * step);
  const room = inSteps(Math.floor(exact(free / step)));
  if (need === null) return room;
  const needed = inSteps(Math.ceil(exact(need / step)));
  return room > 0 ? Math.min(needed, room) : needed;
}
