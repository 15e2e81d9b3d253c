import { seededRandom } from '../chance/random';
import type { RoomTaken, SeasonProblem, SeasonStock, SeasonWay } from './season';

/** How large a made season is. */
export interface MadeSeason {
  lines: number;
  kinds: number;
  /** Room of each kind, m². */
  roomM2: number;
  days: number;
  /** Weeks in which a line may be sown, for each of two routes. */
  weeks: number;
  stocks: number;
  hours?: number;
  /** Money there is, where some lines can be served by buying in. */
  money?: number;
  seed: number;
}

/** A season of lines, ways and stock, made by a seeded source: alike in kind to a nursery's. */
export function madeSeason({
  lines: n,
  kinds,
  roomM2,
  days,
  weeks,
  stocks: m,
  hours,
  money,
  seed,
}: MadeSeason): SeasonProblem {
  const random = seededRandom(seed);
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const lines = Array.from({ length: n }, () => {
    const loss = 1 + 2 * random();
    return {
      trees: whole(1, 8) * 50,
      loss,
      buy: money !== undefined && random() < 0.6 ? loss * (0.5 + random()) : null,
    };
  });
  const ways: SeasonWay[] = [];
  lines.forEach(({ trees, loss }, line) => {
    for (let route = 0; route < 2; route++) {
      const kind = whole(0, kinds - 1);
      const second = whole(0, kinds - 1);
      const first = whole(0, Math.max(0, days - 7 * weeks - 200));
      const length = whole(120, 260);
      const perM2 = whole(60, 300);
      const each = 0.2 + 0.6 * random();
      for (let week = 0; week < weeks; week++)
        for (const share of [1, 0.5]) {
          const of = Math.ceil(trees * share);
          const from = first + 7 * week;
          const until = Math.min(days, from + length - 5 * week);
          const move = from + Math.floor((until - from) / 3);
          const rooms: RoomTaken[] = [
            { kind, from, until: move, m2: of / perM2 / 3 },
            { kind: second, from: move, until, m2: of / perM2 },
          ];
          const late = 0.02 + 0.03 * Math.abs(week - weeks / 2);
          ways.push({
            line,
            trees: of,
            cost: 5 + of * each * loss * 0.6 + of * loss * late,
            rooms,
            work: [
              { week: from - (from % 7), hours: of / 200 },
              { week: move - (move % 7), hours: of / 100 },
            ],
            takes: money === undefined ? [] : [{ limit: 0, amount: of * each * loss * 0.3 }],
          });
        }
    }
  });
  const stocks: SeasonStock[] = Array.from({ length: m }, () => ({
    trees: whole(20, 200),
    lines: lines.flatMap((_, line) => (random() < 0.3 ? [line] : [])),
  }));
  const free = Array.from({ length: kinds }, () => {
    const taken = random() * 0.4;
    const leaves = whole(0, days);
    return Float64Array.from({ length: days }, (_, day) => roomM2 * (day < leaves ? 1 - taken : 1));
  });
  return {
    from: 0,
    free,
    lines,
    ways,
    stocks,
    hours: hours === undefined ? null : () => hours,
    limits: money === undefined ? [] : [money],
    money: money === undefined ? null : 0,
  };
}
