import {
  fillTogether,
  needsOf,
  roomOfPlace,
  waterInWeek,
  type EpochDay,
  type EvaporationAhead,
  say,
  inWords,
} from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { computed, onMounted, shallowRef } from 'vue';
import { useForecasts } from '../../stores/forecasts';
import { keptKey } from '../../stores/kept';
import { useNursery } from '../../stores/nursery';
import { usePlan } from '../../stores/plan';
import { usePreferences } from '../../stores/preferences';
import { percent } from '../../words/numbers';
import { WEEKS, type BoardPlace, type useBoard } from './useBoard';

/** A figure by week, drawn as bars. */
export interface BoardLoad {
  name: string;
  most: string;
  /** Of the largest, 0–1; weeks of nothing are left out. */
  weeks: readonly { week: EpochDay; share: number; words: string }[];
}
/** Places of one kind under one cover, that open and close together. */
export interface BoardGroup {
  key: string;
  words: string;
  isShut: boolean;
}
/** A line of the board. */
export type BoardLine =
  | { kind: 'head'; group: BoardGroup }
  | { kind: 'load'; load: BoardLoad }
  | { kind: 'place'; row: BoardPlace };

const kindWords = inWords({ bed: 'Beds', bench: 'Benches', ground: 'Standing ground', bay: 'Bays' } as const);
const kinds = Object.keys(kindWords) as (keyof typeof kindWords)[];

/** The lines of the board: what the plan asks for by week, and places by kind and cover, each group open or shut. */
export function useBoardLines({ rows, from }: Pick<ReturnType<typeof useBoard>, 'rows' | 'from'>) {
  const nursery = useNursery();
  const plan = usePlan();
  const forecasts = useForecasts();
  const { show } = usePreferences();
  const shut = useSessionStorage<string[]>(keptKey('board-shut'), []);
  const evaporation = shallowRef<EvaporationAhead | null>(null);
  // Without it there is no row of water.
  onMounted(() => forecasts.evaporation().then((ahead) => (evaporation.value = ahead)));

  const weeks = computed(() => Array.from({ length: WEEKS }, (_, i) => from.value + 7 * i));
  const loadOf = (
    name: string,
    amountOf: (week: EpochDay, at: number) => number,
    wordsOf: (amount: number) => string,
    top?: number,
  ): BoardLoad => {
    const amounts = weeks.value.map(amountOf);
    const most = Math.max(0, ...amounts);
    return {
      name,
      most: wordsOf(most),
      weeks: weeks.value.flatMap((week, at) =>
        amounts[at] > 0 ? [{ week, share: amounts[at] / (top ?? most), words: wordsOf(amounts[at]) }] : [],
      ),
    };
  };
  const loads = computed<BoardLoad[]>(() => {
    if (!plan.sowings.length) return [];
    const hours = new Map(needsOf(plan.sowings, nursery.lookup).hours.map((of) => [of.week, of.hours]));
    const water = evaporation.value;
    return [
      loadOf(
        say`Hours of work`,
        (week) => hours.get(week) ?? 0,
        (amount) => `${Number(amount.toFixed(1))} h`,
      ),
      ...(water
        ? [
            loadOf(
              say`Water, planned`,
              (week) => waterInWeek(plan.sowings, week, nursery.lookup, water),
              (amount) => show(amount, 'volume', 0),
            ),
          ]
        : []),
    ].filter((load) => load.weeks.length);
  });
  const coverOf = computed(() => {
    const { covers, places } = nursery.climate!.climate;
    const names = new Map(covers.map(({ id, name }) => [id, name]));
    return new Map(places.map(({ placeId, coverId }) => [placeId, names.get(coverId) ?? '']));
  });
  const groups = computed(() => {
    const found = new Map<string, { words: string; rows: BoardPlace[] }>();
    for (const kind of kinds)
      for (const row of rows.value) {
        if (row.place.place.kind !== kind) continue;
        const cover = coverOf.value.get(row.place.id);
        const key = `${kind} ${cover ?? ''}`;
        const words = `${kindWords[kind]}${cover ? `, ${cover}` : ''}`;
        found.set(key, { words, rows: [...(found.get(key)?.rows ?? []), row] });
      }
    return found;
  });
  const lines = computed<BoardLine[]>(() => [
    ...loads.value.map((load): BoardLine => ({ kind: 'load', load })),
    ...[...groups.value].flatMap(([key, { words, rows: of }]): BoardLine[] => {
      const over = of.filter((row) => row.over.length).length;
      const isShut = shut.value.includes(key);
      const group = { key, words: `${words}${over ? say` · ${over} over-full` : ''}`, isShut };
      if (!isShut) return [{ kind: 'head', group }, ...of.map((row): BoardLine => ({ kind: 'place', row }))];
      const fill = fillTogether(
        of.map(({ place, all }) => ({ m2: roomOfPlace(place), spans: all })),
        from.value,
        WEEKS,
      );
      const together = loadOf(say`All together`, (_, at) => fill[at], percent, 1);
      return [
        { kind: 'head', group },
        { kind: 'load', load: together },
      ];
    }),
  ]);
  const toggle = ({ key, isShut }: BoardGroup) =>
    (shut.value = isShut ? shut.value.filter((one) => one !== key) : [...shut.value, key]);
  return { lines, toggle };
}
