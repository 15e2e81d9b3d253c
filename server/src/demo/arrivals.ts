import {
  dayOf,
  isoOf,
  type ArrivalFault,
  type ArrivalKind,
  type HoldCause,
  type HoldCover,
  type HoldNote,
  type Lookup,
} from '@kauri/core';
import { v7 as newId } from 'uuid';
import { beginHold, noteHold } from '../features/holds/holds';
import { addArrival } from '../features/arrivals/arrivals';
import type { Work } from '../http/context';

/** Plants of the demo that came from outside so many days ago, and what was taken of them. */
export interface DemoArrival {
  daysAgo: number;
  kind: ArrivalKind;
  species: string;
  supplier: string;
  provenance: string;
  papers: string;
  count: number;
  price: number | null;
  looked: number;
  faults: readonly { fault: ArrivalFault; count: number }[];
  accepted: number;
  quarantineDays: number | null;
  note: string;
  code: string;
  place: string;
  container: string;
  trays: number;
  heightsCm: readonly number[];
  /** It is held in humid air since it came; what was seen and done, so many days ago. */
  held?: {
    cause: HoldCause;
    cover: HoldCover;
    steps: readonly (readonly [daysAgo: number, what: HoldNote])[];
  };
}

/** Writes the demo's arrivals as a grower would have. */
export async function takeIn(work: Work, arrivals: readonly DemoArrival[], lookup: Lookup): Promise<void> {
  const named = <T>(map: ReadonlyMap<string, T>, test: (item: T) => boolean) => [...map.values()].find(test)!;
  for (const one of arrivals) {
    const on = dayOf(work.today) - one.daysAgo;
    const lotId = newId();
    const { supplier, provenance, papers, count, price, looked, accepted, note } = one;
    await addArrival(work, {
      id: newId(),
      on: isoOf(on),
      speciesId: named(lookup.species, ({ code }) => code === one.species).id,
      kind: one.kind,
      ...{ supplier, provenance, papers, count, price, looked, accepted, note },
      failing: one.faults.reduce((sum, fault) => sum + fault.count, 0),
      faults: [...one.faults],
      quarantineUntil: one.quarantineDays === null ? null : isoOf(on + one.quarantineDays),
      lot: {
        id: lotId,
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
    if (!one.held) continue;
    const { cause, cover, steps } = one.held;
    const hold = newId();
    await beginHold(work, lotId, { id: hold, on: isoOf(on), cause, cover, note: '' });
    for (const [ago, what] of steps)
      await noteHold(work, hold, { id: newId(), on: isoOf(dayOf(work.today) - ago), what, note: '' });
  }
}

export const withybeckArrivals: readonly DemoArrival[] = [
  {
    daysAgo: 9,
    kind: 'liner',
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
  {
    daysAgo: 26,
    kind: 'dug plant',
    species: 'IAQ',
    supplier: 'Dug by ourselves',
    provenance: 'Under the old hedge, Merrowdale',
    papers: '',
    count: 14,
    price: null,
    looked: 14,
    faults: [{ fault: 'one-sided', count: 2 }],
    accepted: 12,
    quarantineDays: null,
    note: 'Self-sown holly, dug before the hedge was laid.',
    code: 'IN-IAQ-01',
    place: 'Bench 3',
    container: 'Slit-wall cell 200 mL',
    trays: 1,
    heightsCm: [18, 22, 16, 20],
    held: {
      cause: 'dug in summer',
      cover: 'tent',
      steps: [
        [15, 'flush'],
        [7, 'flush'],
        [6, 'opened'],
        [5, 'opened'],
        [4, 'opened'],
        [3, 'wilted'],
        [1, 'opened'],
      ],
    },
  },
];
