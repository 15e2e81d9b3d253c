import type { EpochDay } from '../calendar/day';
import { loadSolver } from '../stock/solver';
import { choiceOf, type SeasonChoice, type SeasonProblem } from './season';

/** A season served as well as was found, and how much better it could be at most. */
export interface SeasonBest {
  choice: SeasonChoice;
  /** No way of serving the season costs less than this, money. */
  bound: number;
  /** How far the choice may be from the best, as a share of its cost. */
  gap: number;
}

/** What one more square metre of a kind of place, throughout, would save. */
export interface RoomWorth {
  kind: number;
  perM2: number;
  /** First and last day on which it is short. */
  from: EpochDay;
  until: EpochDay;
}

/** A row of the programme: what the ways in it take together of a kind of place on a day, of a week's hours, or of a limit. */
interface Row {
  of: { way: number; amount: number }[];
  most: number;
  /** The kind and the day, where it is about room. */
  room: { kind: number; day: EpochDay } | null;
  /** Whether what is bought in takes of it too. */
  isMoney: boolean;
}

/**
 * A mixed-integer programme (HiGHS): ways are taken whole or not, what stands is shared out, what is left is short; each kind
 * of place holds what it holds on every day, each week its hours. It goes on from a choice that is known, tells of better
 * ones as they are found, and ends when it is near enough, out of time, or told to stop.
 * @param start a possible choice, which the answer is never worse than
 * @throws Error when the solver fails
 */
export async function solveSeason(
  problem: SeasonProblem,
  start: SeasonChoice,
  {
    seconds,
    near = 0.005,
    told = () => true,
  }: {
    seconds: number;
    /** Near enough, as a share of what the start saves against serving nobody: what nothing can serve would hide all else. */
    near?: number;
    /** Is told of the best so far and its bound; false stops. */
    told?: (best: SeasonBest) => boolean;
  },
): Promise<SeasonBest> {
  const { ways } = problem;
  // Nothing to choose between: what stands is shared out as well as can be already.
  if (ways.length === 0) return { choice: start, bound: start.cost, gap: 0 };
  const highs = await loadSolver();
  const model = modelOf(problem, rowsOf(problem));
  let best = start;
  let bound = -Infinity;
  const gapOf = (choice: SeasonChoice) => Math.max(0, (choice.cost - bound) / Math.max(1e-9, choice.cost));
  const taken = (values: Float64Array) => ways.flatMap((_, way) => (values[way] > 0.5 ? [way] : []));
  const better = (values: Float64Array) => {
    const choice = choiceOf(problem, taken(values));
    if (choice.cost < best.cost) best = choice;
  };
  const { callbackType, modelStatus } = highs.constants;
  highs.withModel(model, (one) => {
    const saves = problem.lines.reduce((sum, { trees, loss }) => sum + trees * loss, 0) - start.cost;
    one.options.set({
      output_flag: false,
      time_limit: seconds,
      mip_rel_gap: 0,
      mip_abs_gap: Math.max(1e-6, near * saves),
    });
    one.setSolution({ colValue: valuesOf(problem, start) });
    const look = (dual: number | undefined): boolean => {
      if (dual !== undefined && Number.isFinite(dual)) bound = Math.max(bound, dual);
      return told({ choice: best, bound, gap: gapOf(best) });
    };
    let go = true;
    one.run({
      [callbackType.mipImprovingSolution]({ data }) {
        if (data.mip_solution) better(data.mip_solution);
        go = look(data.mip_dual_bound) && go;
      },
      [callbackType.mipLogging]({ data }) {
        go = look(data.mip_dual_bound) && go;
      },
      [callbackType.mipInterrupt](event) {
        if (!go) event.interrupt();
      },
    });
    const status = one.getModelStatus();
    if (one.info.get('primal_solution_status') === 2) better(one.getSolution().colValue);
    const dual = one.info.get('mip_dual_bound');
    if (typeof dual === 'number' && Number.isFinite(dual)) bound = Math.max(bound, dual);
    else if (status === modelStatus.optimal) bound = Math.max(bound, one.getObjectiveValue());
  });
  // Costs are added up in another order than the solver's.
  bound = Math.min(bound, best.cost);
  return { choice: best, bound, gap: gapOf(best) };
}

/**
 * What room is worth at the edge: the duals of the same programme with ways that may be parted at will, so a guide, not a
 * promise. Kinds of which there is enough are left out; the dearest first.
 */
export async function worthOfRoom(problem: SeasonProblem): Promise<RoomWorth[]> {
  const rows = rowsOf(problem);
  if (rows.length === 0) return [];
  const highs = await loadSolver();
  const model = modelOf(problem, rows, false);
  const duals = highs.withModel(model, (one) => {
    one.options.set({ output_flag: false });
    one.run();
    return one.getSolution().rowDual;
  });
  const worth = new Map<number, RoomWorth>();
  rows.forEach(({ room }, at) => {
    const dual = Math.abs(duals[problem.lines.length + problem.stocks.length + at]);
    if (room === null || dual < 1e-6) return;
    const { kind, day } = room;
    const of = worth.get(kind);
    if (!of) worth.set(kind, { kind, perM2: dual, from: day, until: day });
    else {
      of.perM2 += dual;
      of.from = Math.min(of.from, day);
      of.until = Math.max(of.until, day);
    }
  });
  return [...worth.values()].sort((a, b) => b.perM2 - a.perM2);
}

/**
 * Days on which what is taken of a kind of place is most, weeks whose hours could run out, and limits that could. A day on which all stand
 * that stand on the day before it, and no more room is free, says all that the day before says.
 */
function rowsOf(problem: SeasonProblem): Row[] {
  const { ways, free, from, limits, money } = problem;
  const rows: Row[] = [];
  free.forEach((days, kind) => {
    const here = ways.flatMap(({ rooms }, way) =>
      rooms.flatMap((room) => (room.kind === kind ? [{ way, ...room }] : [])),
    );
    const marks = new Set(here.map((room) => Math.max(from, room.from)));
    for (let at = 1; at < days.length; at++) if (days[at] < days[at - 1]) marks.add(from + at);
    const sorted = [...marks].filter((day) => day - from < days.length).sort((a, b) => a - b);
    let before: Row | null = null;
    for (const day of sorted) {
      const of = new Map<number, number>();
      for (const room of here)
        if (room.from <= day && day < room.until) of.set(room.way, (of.get(room.way) ?? 0) + room.m2);
      const row: Row = {
        room: { kind, day },
        isMoney: false,
        most: Math.max(0, days[day - from]),
        of: [...of].map(([way, amount]) => ({ way, amount })),
      };
      const says =
        before !== null &&
        row.most <= before.most &&
        before.of.every(({ way, amount }) => (of.get(way) ?? 0) >= amount);
      if (says) rows.pop();
      rows.push(row);
      before = row;
    }
  });
  if (problem.hours) {
    const weeks = new Map<EpochDay, Row['of']>();
    ways.forEach(({ work }, way) => {
      for (const { week, hours } of work) {
        if (!weeks.has(week)) weeks.set(week, []);
        weeks.get(week)!.push({ way, amount: hours });
      }
    });
    for (const [week, of] of weeks)
      rows.push({ room: null, isMoney: false, most: Math.max(0, problem.hours(week)), of: joined(of) });
  }
  limits.forEach((most, limit) => {
    const of = ways.flatMap(({ takes }, way) =>
      takes.flatMap((taken) => (taken.limit === limit ? [{ way, amount: taken.amount }] : [])),
    );
    rows.push({ room: null, isMoney: limit === money, most: Math.max(0, most), of: joined(of) });
  });
  return rows.filter(
    ({ of, most, isMoney }) => isMoney || of.reduce((sum, { amount }) => sum + amount, 0) > most,
  );
}

/** A way may work twice in a week. */
function joined(of: Row['of']): Row['of'] {
  const sums = new Map<number, number>();
  for (const { way, amount } of of) sums.set(way, (sums.get(way) ?? 0) + amount);
  return [...sums].map(([way, amount]) => ({ way, amount }));
}

/** Columns: ways, then what each stock gives each of its lines, then what is bought in and what is short of each line. */
function columnsOf({ ways, stocks, lines }: SeasonProblem) {
  const gives = stocks.flatMap((stock, of) => stock.lines.map((line) => ({ stock: of, line })));
  return {
    gives,
    atGive: ways.length,
    atBought: ways.length + gives.length,
    atShort: ways.length + gives.length + lines.length,
    count: ways.length + gives.length + 2 * lines.length,
  };
}

function valuesOf(problem: SeasonProblem, { ways, stock, bought, short }: SeasonChoice): Float64Array {
  const { gives, atGive, atBought, atShort, count } = columnsOf(problem);
  const values = new Float64Array(count);
  for (const way of ways) values[way] = 1;
  gives.forEach(({ stock: of, line }, i) => (values[atGive + i] = stock[of].get(line) ?? 0));
  bought.forEach((trees, line) => (values[atBought + line] = trees));
  short.forEach((trees, line) => (values[atShort + line] = trees));
  return values;
}

function modelOf(problem: SeasonProblem, rows: readonly Row[], whole = true) {
  const { ways, stocks, lines } = problem;
  const { gives, atGive, atBought, atShort, count } = columnsOf(problem);
  const entries: { at: number; value: number }[][] = Array.from({ length: count }, () => []);
  // Rows: each line is served, each stock gives what it has, then room and hours.
  ways.forEach(({ line, trees }, way) => entries[way].push({ at: line, value: trees }));
  gives.forEach(({ stock, line }, i) =>
    entries[atGive + i].push({ at: line, value: 1 }, { at: lines.length + stock, value: 1 }),
  );
  lines.forEach((_, line) => {
    entries[atBought + line].push({ at: line, value: 1 });
    entries[atShort + line].push({ at: line, value: 1 });
  });
  rows.forEach(({ of, isMoney }, i) => {
    const at = lines.length + stocks.length + i;
    for (const { way, amount } of of) entries[way].push({ at, value: amount });
    if (isMoney)
      lines.forEach(({ buy }, line) => buy !== null && entries[atBought + line].push({ at, value: buy }));
  });
  const starts = [0];
  const indices: number[] = [];
  const values: number[] = [];
  for (const column of entries) {
    for (const { at, value } of column) {
      indices.push(at);
      values.push(value);
    }
    starts.push(indices.length);
  }
  const numRows = lines.length + stocks.length + rows.length;
  return {
    numCols: count,
    numRows,
    colCost: [
      ...ways.map(({ cost }) => cost),
      ...gives.map(() => 0),
      ...lines.map(({ buy }) => buy ?? 0),
      ...lines.map(({ loss }) => loss),
    ],
    colLower: new Float64Array(count),
    colUpper: [
      ...ways.map(() => 1),
      ...gives.map(({ stock }) => stocks[stock].trees),
      ...lines.map(({ trees, buy }) => (buy === null ? 0 : trees)),
      ...lines.map(({ trees }) => trees),
    ],
    rowLower: [
      ...lines.map(({ trees }) => trees),
      ...stocks.map(() => -Infinity),
      ...rows.map(() => -Infinity),
    ],
    rowUpper: [
      ...lines.map(() => Infinity),
      ...stocks.map(({ trees }) => trees),
      ...rows.map(({ most }) => most),
    ],
    matrix: { format: 'csc' as const, numRows, numCols: count, starts, indices, values },
    ...(whole
      ? { integrality: Int32Array.from({ length: count }, (_, i) => (i < ways.length ? 1 : 0)) }
      : {}),
  };
}
