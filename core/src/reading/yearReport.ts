import type { Year } from '../contract';
import { causeTerms, type OutCause } from '../ledger/ledger';

/** What a year came to, in seeds and trees. */
export interface YearSums {
  /** Seeds sown and cuttings stuck. */
  sown: number;
  /** Of what was in the ground, come up; and what never will. */
  up: number;
  neverUp: number;
  /** Plants that were not raised of seed or cuttings: bought in, severed, dug. */
  came: number;
  /** Left their lot to be lots of their own, pricked out or set apart; and what stood in those then. */
  apart: number;
  fromApart: number;
  lifted: number;
  /** Lifted ones that went back into the ground for another year. */
  heldOver: number;
  sent: number;
  planted: number;
  /** Standing and lying there, when it began and when it ended. */
  standingBefore: number;
  standing: number;
  lyingBefore: number;
  lying: number;
  /** Gone by cause, the most first: lost while they grew or lay there, culled, given or sold otherwise, pulled to look. */
  gone: { cause: OutCause; count: number }[];
}

type Origin = Year['flows'][number]['origin'];
/** How lots begin that are raised here, and those that come of other lots. */
const RAISED: ReadonlySet<Origin> = new Set(['seed', 'cuttings']);
const SET_APART: ReadonlySet<Origin> = new Set(['pricked', 'split']);

/** Causes that take trees out of one lot and into another of the same nursery. */
const APART: ReadonlySet<OutCause> = new Set(['pricked-out', 'split']);

const isOut = (account: string): account is `out:${OutCause}` => account.startsWith('out:');
const causeOf = (account: `out:${OutCause}`): OutCause => account.slice(4) as OutCause;

/**
 * What the ledger's movements of a year come to.
 * @returns sums that add up: what stood and lay before, with what came up and came, less what left and was lost, is what stands
 *   and lies at the end
 */
export function yearSums({ opening, flows }: Year): YearSums {
  const sum = (is: (flow: Year['flows'][number]) => boolean) =>
    flows.reduce((total, flow) => total + (is(flow) ? flow.count : 0), 0);
  const before = (account: string) =>
    opening.reduce((total, one) => total + (one.account === account ? one.count : 0), 0);
  const change = (account: string) => sum(({ to }) => to === account) - sum(({ from }) => from === account);
  const gone = new Map<OutCause, number>();
  for (const { from, to, count } of flows)
    if (isOut(to) && (from === 'standing' || from === 'lifted') && !APART.has(causeOf(to)))
      gone.set(causeOf(to), (gone.get(causeOf(to)) ?? 0) + count);
  const stoodUp = (is: (origin: Origin) => boolean) =>
    sum(({ from, to, origin }) => to === 'standing' && from !== 'lifted' && is(origin));
  return {
    sown: sum(({ from, to, origin }) => RAISED.has(origin) && to === 'sown' && from !== 'standing'),
    up: stoodUp((origin) => RAISED.has(origin)),
    neverUp: sum(({ from, to, origin }) => RAISED.has(origin) && from === 'sown' && isOut(to)),
    came: stoodUp((origin) => !RAISED.has(origin) && !SET_APART.has(origin)),
    fromApart: stoodUp((origin) => SET_APART.has(origin)),
    apart: sum(
      ({ from, to }) => (from === 'standing' || from === 'lifted') && isOut(to) && APART.has(causeOf(to)),
    ),
    lifted: sum(({ from, to }) => from === 'standing' && to === 'lifted'),
    heldOver: sum(({ from, to }) => from === 'lifted' && to === 'out:split'),
    sent: change('sent'),
    planted: change('planted'),
    standingBefore: before('standing'),
    standing: before('standing') + change('standing'),
    lyingBefore: before('lifted'),
    lying: before('lifted') + change('lifted'),
    gone: [...gone].map(([cause, count]) => ({ cause, count })).sort((a, b) => b.count - a.count),
  };
}

/** The same for each species that anything happened to, or of which anything is there; those with most lifted first. */
export function yearBySpecies(year: Year): { speciesId: string; sums: YearSums }[] {
  const ids = new Set([...year.opening, ...year.flows].map(({ speciesId }) => speciesId));
  return [...ids]
    .map((speciesId) => {
      const flows = year.flows.filter((one) => one.speciesId === speciesId);
      const opening = year.opening.filter((one) => one.speciesId === speciesId);
      return { speciesId, sums: yearSums({ opening, flows }), isQuiet: flows.length === 0 };
    })
    .filter(({ sums, isQuiet }) => !isQuiet || sums.standing + sums.lying > 0)
    .map(({ speciesId, sums }) => ({ speciesId, sums }))
    .sort((a, b) => b.sums.lifted - a.sums.lifted || b.sums.standing - a.sums.standing);
}

/** Trees lost while they grew or lay there; not those culled, given away or pulled to look at. */
export const lostGrowing = ({ gone }: Pick<YearSums, 'gone'>): number =>
  gone.reduce((total, { cause, count }) => total + (causeTerms[cause].lost === 'growing' ? count : 0), 0);
