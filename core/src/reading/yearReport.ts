import { say } from '../speech/say';
import type { Year } from '../contract';
import { causeTerms, type OutCause } from '../ledger/ledger';
import { cullReasons, type Culls } from '../lifting/culls';
import { sum, type Worked } from '../working/working';

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
  /** Of those sent, in this year or before it, came back: living ones, which lie here again, and dead ones. */
  cameBack: { living: number; dead: number };
  planted: number;
  /** Standing and lying there, when it began and when it ended. */
  standingBefore: number;
  standing: number;
  lyingBefore: number;
  lying: number;
  /** Gone by cause, the most first: lost while they grew or lay there, culled, given or sold otherwise, pulled to look. */
  gone: { cause: OutCause; count: number }[];
  /** Why trees were culled when they were lifted, the most first; those of which it was not said are not among them. */
  culledFor: Culls[];
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
export function yearSums({ opening, flows, culls }: Year): YearSums {
  const total = (is: (flow: Year['flows'][number]) => boolean) =>
    flows.reduce((t, flow) => t + (is(flow) ? flow.count : 0), 0);
  const before = (account: string) =>
    opening.reduce((t, one) => t + (one.account === account ? one.count : 0), 0);
  const change = (account: string) =>
    total(({ to }) => to === account) - total(({ from }) => from === account);
  const gone = new Map<OutCause, number>();
  for (const { from, to, count } of flows)
    if (isOut(to) && (from === 'standing' || from === 'lifted') && !APART.has(causeOf(to)))
      gone.set(causeOf(to), (gone.get(causeOf(to)) ?? 0) + count);
  const stoodUp = (is: (origin: Origin) => boolean) =>
    total(({ from, to, origin }) => to === 'standing' && from !== 'lifted' && is(origin));
  return {
    sown: total(({ from, to, origin }) => RAISED.has(origin) && to === 'sown' && from !== 'standing'),
    up: stoodUp((origin) => RAISED.has(origin)),
    neverUp: total(({ from, to, origin }) => RAISED.has(origin) && from === 'sown' && isOut(to)),
    came: stoodUp((origin) => !RAISED.has(origin) && !SET_APART.has(origin)),
    fromApart: stoodUp((origin) => SET_APART.has(origin)),
    apart: total(
      ({ from, to }) => (from === 'standing' || from === 'lifted') && isOut(to) && APART.has(causeOf(to)),
    ),
    lifted: total(({ from, to }) => from === 'standing' && to === 'lifted'),
    heldOver: total(({ from, to }) => from === 'lifted' && to === 'out:split'),
    sent: total(({ to }) => to === 'sent'),
    cameBack: {
      living: total(({ from, to }) => from === 'sent' && !isOut(to)),
      dead: total(({ from, to }) => from === 'sent' && isOut(to)),
    },
    planted: change('planted'),
    standingBefore: before('standing'),
    standing: before('standing') + change('standing'),
    lyingBefore: before('lifted'),
    lying: before('lifted') + change('lifted'),
    gone: [...gone].map(([cause, count]) => ({ cause, count })).sort((a, b) => b.count - a.count),
    culledFor: cullReasons
      .map((why) => ({ why, count: culls.reduce((t, one) => t + (one.why === why ? one.count : 0), 0) }))
      .filter(({ count }) => count > 0)
      .sort((a, b) => b.count - a.count),
  };
}

/** The same for each species that anything happened to, or of which anything is there; those with most lifted first. */
export function yearBySpecies(year: Year): { speciesId: string; sums: YearSums }[] {
  const of = <T extends { speciesId: string }>(all: readonly T[], id: string) =>
    all.filter(({ speciesId }) => speciesId === id);
  const ids = new Set([...year.opening, ...year.flows].map(({ speciesId }) => speciesId));
  return [...ids]
    .map((speciesId) => {
      const flows = of(year.flows, speciesId);
      const opening = of(year.opening, speciesId);
      const culls = of(year.culls, speciesId);
      return { speciesId, sums: yearSums({ opening, flows, culls }), isQuiet: flows.length === 0 };
    })
    .filter(({ sums, isQuiet }) => !isQuiet || sums.standing + sums.lying > 0)
    .map(({ speciesId, sums }) => ({ speciesId, sums }))
    .sort((a, b) => b.sums.lifted - a.sums.lifted || b.sums.standing - a.sums.standing);
}

/** Trees lost while they grew or lay there; not those culled, given away or pulled to look at. */
export const lostGrowing = ({ gone }: Pick<YearSums, 'gone'>): number =>
  gone.reduce((total, { cause, count }) => total + (causeTerms[cause].lost === 'growing' ? count : 0), 0);

/** What trees were worth that never reached anybody. */
export interface YearWorth {
  /** What one fetched on average, money. */
  price: number;
  lost: { trees: number; worth: number };
  culled: { trees: number; worth: number };
}

/**
 * What lost and culled trees would have fetched at the mean of what was sent: a rough measure, for not all would have found
 * a buyer.
 * @param priced trees sent at a price that is known
 * @param fetched by them, money
 * @returns null where nothing was sent at a price
 */
export function yearWorth(
  sums: Pick<YearSums, 'gone'>,
  { priced, fetched }: { priced: number; fetched: number },
): Worked<YearWorth> | null {
  if (!(priced > 0)) return null;
  const price = fetched / priced;
  const lost = lostGrowing(sums);
  const culled = sums.gone.find(({ cause }) => cause === 'culled')?.count ?? 0;
  const worthOf = (what: string, trees: number) => ({
    what,
    expression: sum`${trees} × ${price}`,
    result: trees * price,
    inputs: [
      { name: 'trees', value: trees, origin: 'record' as const },
      { name: say`what a tree fetched on average`, value: price, origin: 'record' as const },
    ],
  });
  return {
    value: {
      price,
      lost: { trees: lost, worth: lost * price },
      culled: { trees: culled, worth: culled * price },
    },
    working: [
      {
        what: say`What a tree fetched on average`,
        expression: sum`${fetched} ÷ ${priced}`,
        result: price,
        inputs: [
          { name: say`fetched by what was sent`, value: fetched, origin: 'record' },
          { name: say`trees sent at a price that is known`, value: priced, origin: 'record' },
        ],
      },
      worthOf(say`Lost while they grew or lay`, lost),
      worthOf(say`Culled`, culled),
    ],
  };
}

/** What was paid for a bought plant that lives: the price of one taken over the share that lives, nine times in ten between. */
export const paidForLiving = (
  paid: number,
  { lower, upper }: { lower: number; upper: number },
): { from: number; to: number } => ({ from: paid / upper, to: paid / lower });
