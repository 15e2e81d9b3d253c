import { dayOf, isoOf, type ArrivalFault, type Lookup } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { addArrival } from '../features/arrivals/arrivals';
import type { Work } from '../http/context';

/** Plants of the demo that came from outside so many days ago, and what was taken of them. */
export interface DemoArrival {
  daysAgo: number;
  species: string;
  supplier: string;
  provenance: string;
  papers: string;
  count: number;
  price: number;
  looked: number;
  faults: readonly { fault: ArrivalFault; count: number }[];
  accepted: number;
  quarantineDays: number;
  note: string;
  code: string;
  place: string;
  container: string;
  trays: number;
  heightsCm: readonly number[];
}

/** Writes the demo's arrivals as a grower would have. */
export async function takeIn(work: Work, arrivals: readonly DemoArrival[], lookup: Lookup): Promise<void> {
  const named = <T>(map: ReadonlyMap<string, T>, test: (item: T) => boolean) => [...map.values()].find(test)!;
  for (const one of arrivals) {
    const on = dayOf(work.today) - one.daysAgo;
    const { supplier, provenance, papers, count, price, looked, accepted, note } = one;
    await addArrival(work, {
      id: newId(),
      on: isoOf(on),
      speciesId: named(lookup.species, ({ code }) => code === one.species).id,
      kind: 'liner',
      ...{ supplier, provenance, papers, count, price, looked, accepted, note },
      failing: one.faults.reduce((sum, fault) => sum + fault.count, 0),
      faults: [...one.faults],
      quarantineUntil: isoOf(on + one.quarantineDays),
      lot: {
        id: newId(),
        code: one.code,
        stage: {
          kind: 'container',
          id: newId(),
          placeId: named(lookup.places, ({ place }) => place.name === one.place).id,
          containerTypeId: named(lookup.containers, ({ values }) => values.name === one.container).id,
          trays: one.trays,
        },
        heightsCm: [...one.heightsCm],
        diametersMm: [],
      },
    });
  }
}

export const withybeckArrivals: readonly DemoArrival[] = [
  {
    daysAgo: 9,
    species: 'VOP',
    supplier: 'Fellgate liners',
    provenance: 'Upland valley, two parishes south',
    papers: 'FG-2217',
    count: 160,
    price: 0.42,
    looked: 15,
    faults: [
      { fault: 'j-root', count: 2 },
      { fault: 'circling', count: 1 },
    ],
    accepted: 118,
    quarantineDays: 28,
    note: 'Two trays root-bound at the door; the rest held well.',
    code: 'IN-VOP-01',
    place: 'Bench 3',
    container: 'Slit-wall cell 200 mL',
    trays: 6,
    heightsCm: [21, 24, 19, 26, 22],
  },
];
