import { say } from '../speech/say';
import { normalCdf } from '../chance/normal';
import { Unfit } from '../working/unfit';
import { put, sum, type Step, type Worked } from '../working/working';

/** A price that trees of a height and more fetch, or are worth where they are planted. */
export interface PriceStep {
  fromCm: number;
  price: number;
}

/** What a season costs and risks a tree, in the nursery's own money. */
export interface HoldTerms {
  ladder: readonly PriceStep[];
  /** Place and care of one tree for a season where it stands, and in the home it would be moved to. */
  holdCost: number;
  moveCost: number;
  /** Moving it once: hands, pot and medium. */
  moveOnce: number;
  /** Share of trees lost in a season, 0–1. */
  lossShare: number;
}

/** Mean heights of a lot, cm, run by run: on the day asked, and at the end of each season from then on. */
export interface SeasonHeights {
  now: ArrayLike<number>;
  ends: readonly ArrayLike<number>[];
}

export type Choice = 'now' | 'hold' | 'move';

export interface ChoiceValue {
  choice: Choice;
  /** What a tree is worth by it, costs taken off. */
  value: number;
  /** Share of forecasts in which it is the best. */
  chanceBest: number;
}

export interface HoldOrMove {
  choices: ChoiceValue[];
  best: Choice;
  /** Seasons it is held where holding is best, in the middle forecast; 0 where it goes now. */
  seasons: number;
  /** Cost of place and care a season at which holding would no longer be the best; null where it is not. */
  turnsAt: number | null;
  /** How the value now falls over the steps of price: share of trees from each on. */
  sharesNow: number[];
}

/** Groups of runs alike in height, from which the next season is foreseen. */
const GROUPS = 5;

/** Price of a tree of a lot whose mean height is known: over its plants, by the steps. */
function priceAt(meanCm: number, cv: number, ladder: readonly PriceStep[]): number {
  if (!(meanCm > 0)) return 0;
  let total = 0;
  let before = 0;
  for (const { fromCm, price } of ladder) {
    total += (price - before) * (1 - normalCdf((fromCm - meanCm) / (cv * meanCm)));
    before = price;
  }
  return total;
}

const mean = (values: ArrayLike<number>): number => {
  let total = 0;
  for (let i = 0; i < values.length; i++) total += values[i];
  return values.length ? total / values.length : 0;
};

/**
 * Value of a lot from the end of its first season on, run by run: at each end it goes, or is held another season if that
 * is worth more, as far as its height then tells.
 */
function valueOfEnds(
  ends: readonly ArrayLike<number>[],
  cv: number,
  terms: HoldTerms,
  cost: number,
): { value: Float64Array; heldOn: Float64Array } {
  const last = ends.length - 1;
  const runs = ends[0].length;
  let value = Float64Array.from(ends[last], (h) => priceAt(h, cv, terms.ladder));
  let heldOn = new Float64Array(runs);
  for (let s = last - 1; s >= 0; s--) {
    const order = Array.from({ length: runs }, (_, i) => i).sort((a, b) => ends[s][a] - ends[s][b]);
    const next = new Float64Array(runs);
    const held = new Float64Array(runs);
    for (let g = 0; g < GROUPS; g++) {
      const group = order.slice(Math.floor((g * runs) / GROUPS), Math.floor(((g + 1) * runs) / GROUPS));
      const foreseen = (1 - terms.lossShare) * mean(group.map((i) => value[i])) - cost;
      for (const i of group) {
        const goes = priceAt(ends[s][i], cv, terms.ladder);
        const holds = foreseen > goes;
        next[i] = holds ? (1 - terms.lossShare) * value[i] - cost : goes;
        held[i] = holds ? heldOn[i] + 1 : 0;
      }
    }
    value = next;
    heldOn = held;
  }
  return { value, heldOn };
}

/**
 * Hold a lot, move it up, or let it go now: V = max{goes now, −move + E[V′ in the new home], −cost + E[V′]}, over the
 * forecast's own runs (optimal stopping by groups of runs; Longstaff & Schwartz 2001, Rev. Financ. Stud. 14:113).
 * @param cv spread between plants over their mean
 * @param moved the same lot in the home it would be moved to; null where there is none to try
 * @throws Unfit for sizes that do not rise in the list of prices, a cost below 0, or no season ahead
 */
export function holdOrMove(
  stays: SeasonHeights,
  moved: SeasonHeights | null,
  cv: number,
  terms: HoldTerms,
): Worked<HoldOrMove> {
  const { ladder, lossShare } = terms;
  if (ladder.length === 0) throw new Unfit(say`Give a price for at least one size.`);
  for (let i = 1; i < ladder.length; i++)
    if (!(ladder[i].fromCm > ladder[i - 1].fromCm))
      throw new Unfit(say`Sizes in a list of prices rise from one line to the next.`);
  if (!(terms.holdCost >= 0 && terms.moveCost >= 0 && terms.moveOnce >= 0))
    throw new Unfit(say`A cost is 0 or more.`);
  if (!(lossShare >= 0 && lossShare < 1))
    throw new Unfit(say`Trees lost in a season are less than all of them.`);
  if (stays.ends.length === 0) throw new Unfit(say`No season’s growth lies within the forecast.`);
  const runs = stays.now.length;
  const goes = Float64Array.from({ length: runs }, (_, i) => priceAt(stays.now[i], cv, ladder));
  const held = valueOfEnds(stays.ends, cv, terms, terms.holdCost);
  const holds = held.value.map((v) => (1 - lossShare) * v - terms.holdCost);
  const moves =
    moved && moved.ends.length > 0
      ? valueOfEnds(moved.ends, cv, terms, terms.moveCost).value.map(
          (v) => (1 - lossShare) * v - terms.moveCost - terms.moveOnce,
        )
      : null;
  const all: { choice: Choice; values: Float64Array }[] = [
    { choice: 'now', values: goes },
    { choice: 'hold', values: holds },
    ...(moves ? [{ choice: 'move' as const, values: moves }] : []),
  ];
  const choices = all.map(({ choice, values }) => {
    let best = 0;
    for (let i = 0; i < runs; i++)
      if (all.every((other) => other.values === values || values[i] >= other.values[i])) best++;
    return { choice, value: mean(values), chanceBest: best / runs };
  });
  const ranked = [...choices].sort((a, b) => b.value - a.value);
  const best = ranked[0].choice;
  const otherThanHold = Math.max(...choices.filter((c) => c.choice !== 'hold').map((c) => c.value));
  const extra = Float64Array.from(held.heldOn).sort();
  const value: HoldOrMove = {
    choices,
    best,
    seasons: best === 'now' ? 0 : best === 'hold' ? 1 + extra[Math.floor((runs - 1) / 2)] : 1,
    turnsAt: best === 'hold' ? terms.holdCost + (ranked[0].value - otherThanHold) : null,
    sharesNow: ladder.map(({ fromCm }) => {
      const h = mean(stays.now);
      return h > 0 ? 1 - normalCdf((fromCm - h) / (cv * h)) : 0;
    }),
  };
  const worth = (values: ArrayLike<number>) => put(mean(values));
  const working: Step[] = [
    {
      what: say`A tree that goes now`,
      how: say`Its lot’s mean is ${put(mean(stays.now))} cm, plants spread ${put(cv * 100)} % about it; each step of price by the share that reaches it.`,
      result: mean(goes),
      inputs: ladder.map(({ fromCm, price }) => ({
        name: say`from ${put(fromCm)} cm`,
        value: price,
        origin: 'choice' as const,
      })),
    },
    {
      what: say`A tree that is held`,
      expression: sum`${1 - lossShare} × ${mean(held.value)} − ${terms.holdCost}`,
      how: say`Season by season it goes, or is held on where that is foreseen to be worth more; ${runs} forecasts.`,
      result: mean(holds),
      inputs: [
        { name: say`lost in a season`, value: lossShare, origin: 'choice' },
        { name: say`place and care, a season`, value: terms.holdCost, origin: 'choice' },
      ],
      source: 'Optimal stopping by groups of runs; Longstaff & Schwartz 2001',
    },
  ];
  if (moves)
    working.push({
      what: say`A tree that is moved up`,
      how: say`The same in its new home, less ${put(terms.moveOnce)} for moving it: ${worth(moves)}.`,
      result: mean(moves),
      inputs: [
        { name: say`moving it`, value: terms.moveOnce, origin: 'choice' },
        { name: say`place and care there, a season`, value: terms.moveCost, origin: 'choice' },
      ],
    });
  return { value, working };
}

/** A lot of one bed, and what each way with it is worth. */
export interface BedLot {
  name: string;
  trees: number;
  said: HoldOrMove;
}

/** What may be done with a whole bed: empty it, leave it as it stands, or go by each lot. */
export type BedWay = 'clear' | 'hold' | 'each';

export interface BedHold {
  /** What all its trees are worth by each way, costs taken off. */
  worth: Record<BedWay, number>;
  best: BedWay;
  /**
   * What a square metre would have to earn elsewhere, over the time it is held, for emptying the bed to be the better; null
   * where emptying it is no worse.
   */
  elsewherePerM2: number | null;
}

/**
 * A whole bed held, emptied or left to each lot's own best, from what a tree of each is worth by it. Going lot by lot is
 * never worth less; it is named only where lots of one bed differ.
 * @param areaM2 ground that emptying the bed gives back
 * @throws Unfit for a bed without trees or ground
 */
export function holdTogether(lots: readonly BedLot[], areaM2: number): Worked<BedHold> {
  if (!lots.some((lot) => lot.trees > 0)) throw new Unfit(say`No trees stand here.`);
  if (!(areaM2 > 0)) throw new Unfit(say`A bed has ground to give back.`);
  const by = ({ said }: BedLot, choice: Choice) => said.choices.find((c) => c.choice === choice)?.value ?? 0;
  const own = (lot: BedLot) => by(lot, lot.said.best);
  const total = (worthOf: (lot: BedLot) => number) =>
    lots.reduce((t, lot) => t + lot.trees * worthOf(lot), 0);
  const worth = {
    clear: total((lot) => by(lot, 'now')),
    hold: total((lot) => by(lot, 'hold')),
    each: total(own),
  };
  const together = worth.hold > worth.clear ? 'hold' : 'clear';
  const best: BedWay = worth.each > worth[together] ? 'each' : together;
  const gain = worth[best] - worth.clear;
  const elsewherePerM2 = gain > 0 ? gain / areaM2 : null;
  const working: Step[] = [
    ...lots.map((lot) => ({
      what: lot.name,
      how: say`${put(lot.trees)} trees; a tree is worth ${put(by(lot, 'now'))} now, ${put(by(lot, 'hold'))} held.`,
      result: lot.trees * own(lot),
    })),
    {
      what: say`The bed, emptied now`,
      how: say`Every tree goes now.`,
      result: worth.clear,
    },
    {
      what: say`The bed, held`,
      how: say`Every lot is held, each as long as that is foreseen to be worth more.`,
      result: worth.hold,
    },
  ];
  if (elsewherePerM2 !== null)
    working.push({
      what: say`A square metre of it`,
      expression: sum`(${worth[best]} − ${worth.clear}) / ${areaM2}`,
      result: elsewherePerM2,
    });
  return { value: { worth, best, elsewherePerM2 }, working };
}
