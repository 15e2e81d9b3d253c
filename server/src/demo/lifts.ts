import { autumnStart, dayOf, isoOf, type Culls, type EpochDay } from '@kauri/core';
import type { NewParcel } from '@kauri/core/contract';
import { and, eq, inArray } from 'drizzle-orm';
import { v7 as newId } from 'uuid';
import { lot, place, species } from '../db/schema/index';
import type { Work } from '../http/context';
import { lotRow } from '../features/lots/lotRows';
import { liftLot } from '../features/lots/records';
import { ordersOf } from '../features/plan/orders';
import { look } from '../features/parcels/looks';
import { parcelsOf, sendTrees } from '../features/parcels/parcels';
import { setAside } from '../features/parcels/setAside';
import { keepValue } from '../nursery/values';

/** Share of a lift that reaches the taller of two grades. */
const TALLER = 0.72;

/** A lift of the demo sorted into two grades about the height that most reach. */
export function twoGrades(lifted: number, heightCm: number, where: string): NewParcel[] {
  const at = Math.max(10, Math.round((heightCm * 0.8) / 10) * 10);
  const taller = Math.round(lifted * TALLER);
  const of = (grade: string, fromCm: number | null, toCm: number | null, count: number): NewParcel => ({
    id: newId(),
    grade,
    fromCm,
    toCm,
    count,
    bundleOf: 25,
    place: where,
  });
  return [of(`${at}–${at + 20}`, at, at + 20, taller), of(`under ${at}`, null, at, lifted - taller)].filter(
    ({ count }) => count > 0,
  );
}

/** Of those culled in the demo, most are small and a third go for their roots. */
export function cullsOf(culled: number): Culls[] {
  const roots = Math.round(culled / 3);
  const of: Culls[] = [
    { why: 'small', count: culled - roots },
    { why: 'roots', count: roots },
  ];
  return of.filter(({ count }) => count > 0);
}

/** Species that the demo sells as hedging, by code. */
const HEDGING = ['CBE', 'CRA', 'PSP', 'COR', 'ACA', 'ROS'];

/** By what the demo's trees are sorted: by height, and hedging by its collar as well. */
async function grades(work: Work): Promise<void> {
  const rows = await work.tx
    .select({ id: species.id, code: species.code })
    .from(species)
    .where(eq(species.nurseryId, work.nurseryId));
  const hedging = rows.filter(({ code }) => HEDGING.includes(code)).map(({ id }) => id);
  const grade = (fromCm: number | null, toCm: number | null, collarMm: number | null = null) => ({
    name: '',
    fromCm,
    toCm,
    collarMm,
  });
  await keepValue(work, 'grading', null, {
    schema: 1,
    schemes: [
      {
        id: newId(),
        name: 'By height',
        speciesIds: [],
        grades: [grade(20, 40), grade(40, 60), grade(60, 90), grade(90, null)],
      },
      ...(hedging.length
        ? [
            {
              id: newId(),
              name: 'Hedging, with collars',
              speciesIds: hedging,
              grades: [grade(20, 40, 3), grade(40, 60, 4), grade(60, 80, 6), grade(80, null, 8)],
            },
          ]
        : []),
    ],
  });
}

/** Days from a lift until the last of it was sent. */
const SENT_AFTER = 40;

/** Everything lifted in winters gone by has left: nothing lies in a trench for a year. */
async function sendOld(work: Work): Promise<void> {
  const { parcels } = await parcelsOf(work.tx, work.nurseryId, work.today);
  const byDay = new Map<EpochDay, typeof parcels>();
  for (const parcel of parcels) {
    const on = dayOf(parcel.since) + SENT_AFTER;
    if (parcel.held > 0 && on <= dayOf(work.today)) byDay.set(on, [...(byDay.get(on) ?? []), parcel]);
  }
  for (const [on, of] of byDay)
    await sendTrees(work, {
      id: newId(),
      on: isoOf(on),
      order: null,
      to: 'Spring sales at the yard',
      note: '',
      parts: of.map(({ id, held }) => ({ parcelId: id, count: held })),
    });
}

/** The lot that is being lifted for an order, days since, the share of it that is up, what has gone, and what waits for its buyer. */
const LIFTED_NOW = { code: '25-CBE-01', daysAgo: 6, share: 0.7, sent: 40, aside: 15 };

/** Days from the start of autumn in which bare-root trees of the demo are at rest. */
const RESTS_DAYS = 120;

/** While trees rest, one lot is partly lifted and lies heeled in, and some of it went to whoever it was promised to. */
async function liftNow(work: Work, latitudeDeg: number): Promise<void> {
  const { tx, nurseryId, today } = work;
  const on = dayOf(today) - LIFTED_NOW.daysAgo;
  const rests = on - autumnStart(latitudeDeg, on) < RESTS_DAYS;
  const [row] = await tx
    .select({ id: lot.id })
    .from(lot)
    .where(and(eq(lot.nurseryId, nurseryId), eq(lot.code, LIFTED_NOW.code)));
  if (!row || !rests) return;
  const now = (await lotRow(tx, nurseryId, row.id))!;
  const lifted = Math.floor(now.held.standing * LIFTED_NOW.share);
  if (lifted < 2 * LIFTED_NOW.sent || now.sownOn > isoOf(on)) return;
  const [bay] = await tx
    .select({ name: place.name })
    .from(place)
    .where(and(eq(place.nurseryId, nurseryId), inArray(place.name, ['Heel-in bay 1'])));
  await liftLot(work, row.id, {
    id: newId(),
    on: isoOf(on),
    note: 'Bundled in 25s.',
    lifted,
    culled: 4,
    culls: cullsOf(4),
    parcels: twoGrades(lifted, 40, bay?.name ?? 'Trench'),
  });
  const { parcels } = await parcelsOf(tx, nurseryId, today);
  const taller = parcels.find(({ lotId, held, fromCm }) => lotId === row.id && held > 0 && fromCm !== null)!;
  const orders = await ordersOf(work);
  const wants = orders.find(({ lines }) =>
    lines.some(({ speciesId, state }) => speciesId === taller.speciesId && state === 'promised'),
  );
  const line = wants?.lines.find(({ speciesId }) => speciesId === taller.speciesId);
  if (!wants || !line) return;
  await sendTrees(work, {
    id: newId(),
    on: isoOf(on + 2),
    order: { id: wants.id, lineId: line.id },
    to: '',
    note: 'Fetched with their own trailer.',
    parts: [{ parcelId: taller.id, count: LIFTED_NOW.sent }],
  });
  await setAside(work, {
    id: newId(),
    order: { id: wants.id, lineId: line.id },
    parts: [{ parcelId: taller.id, count: LIFTED_NOW.aside }],
  });
  await look(work, {
    id: newId(),
    place: taller.place,
    on: isoOf(on + 4),
    tempC: null,
    seen: [],
    note: 'Moist to the hand; voles kept off.',
  });
  await keepValue(work, 'papers', null, {
    schema: 1,
    fields: [{ name: 'Registration number', value: 'WB 0417' }],
  });
}

/** What was lifted in the demo: old lifts have left, and one lies heeled in while trees rest. */
export async function liftAndSend(work: Work, latitudeDeg: number): Promise<void> {
  await grades(work);
  await sendOld(work);
  await liftNow(work, latitudeDeg);
}
