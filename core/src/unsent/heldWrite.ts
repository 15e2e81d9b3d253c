import type { BodyInputOf, ParamsOf, RouteName } from '../contract';

/**
 * Writes of the yard that a device keeps until there is a network: each has its own id, given where it was made, so that it
 * is taken once however often it is sent.
 */
const heldRoutes = [
  'countEmergence',
  'measureLot',
  'pullRoots',
  'inspectRoots',
  'shiftLot',
  'liftLot',
  'writeOff',
  'undoEntry',
  'recordEvent',
  'recordCare',
  'carryLots',
  'undoTogether',
  'markAct',
  'markTogether',
  'undoMark',
  'undoMarks',
  'keepPhoto',
] as const satisfies readonly RouteName[];
export type HeldRoute = (typeof heldRoutes)[number];

/** One write as it is kept: the route, what is in its address, and what it says; a photo says nothing but itself. */
export type HeldWrite = {
  [N in HeldRoute]: {
    route: N;
    params: ParamsOf<N>;
    body: N extends 'keepPhoto' ? null : BodyInputOf<N>;
  };
}[HeldRoute];
type WriteOf<N extends HeldRoute> = Extract<HeldWrite, { route: N }>;

/** The records that a write makes, each of one lot; none where it is of none. */
export function entriesOf(write: HeldWrite): { lotId: string; entry: string }[] {
  switch (write.route) {
    case 'countEmergence':
    case 'measureLot':
    case 'pullRoots':
    case 'inspectRoots':
    case 'shiftLot':
    case 'liftLot':
    case 'writeOff':
      return [{ lotId: write.params.lot, entry: write.body.id }];
    case 'recordEvent':
    case 'recordCare':
    case 'carryLots':
      return (write as WriteOf<'recordEvent'>).body.lots.map(({ id, lotId }) => ({ lotId, entry: id }));
    default:
      return [];
  }
}

/** The lots that a write is about. */
export function lotsOf(write: HeldWrite): string[] {
  if (write.route === 'undoEntry') return [write.params.lot];
  if (write.route === 'undoTogether') return write.body.entries.map(({ lot }) => lot);
  return entriesOf(write).map(({ lotId }) => lotId);
}

/** The lots that a write of any route is about, where it is one of those above; null where it may be about any. */
export function lotsOfAny(route: RouteName, params: unknown, body: unknown): string[] | null {
  // Lots that came of what is taken back go with it, and only the server knows them.
  if (route === 'undoEntry') return null;
  return (heldRoutes as readonly string[]).includes(route)
    ? lotsOf({ route, params, body } as HeldWrite)
    : null;
}
