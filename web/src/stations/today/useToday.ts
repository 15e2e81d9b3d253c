import {
  actWords,
  agendaOf,
  dayOf,
  emergenceActs,
  rootActs,
  rootActWords,
  ruleTerms,
  seedActWords,
  workRates,
  type ActMark,
  type ActWords,
  type AgendaItem,
  type SeedAct,
} from '@kauri/core';
import type { KeptMark, TodayRules } from '@kauri/core/contract';
import { computed } from 'vue';
import type { RouteLocationRaw } from 'vue-router';
import { useLots } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useRoots } from '../../stores/roots';
import { useSeason } from '../../stores/season';
import { useSeed } from '../../stores/seed';
import { useTodayBook } from '../../stores/todayBook';
import { useComingUp } from '../seed/up/useComingUp';

/** One thing to do, with its words and where it leads. */
export interface TodayItem extends AgendaItem {
  part: 'lot' | 'seed' | 'roots';
  words: ActWords;
  to: RouteLocationRaw;
}

/** What is to be done at the ribbon’s date, from every part of the nursery, and what was done about it. */
export function useToday() {
  const season = useSeason();
  const forecasts = useForecasts();
  const seed = useSeed();
  const roots = useRoots();
  const kept = useTodayBook();
  const { lots } = useLots();
  const { shown: rising } = useComingUp();

  const byId = computed(() => new Map(lots.value.map((lot) => [lot.row.id, lot])));
  const asOf = computed(() => Math.min(season.view, season.today));

  const fromLots = computed(() =>
    forecasts.acts.flatMap((act): TodayItem[] => {
      const lot = byId.value.get(act.lotId);
      if (!lot) return [];
      const words = actWords(act, lot.row.code, season.view);
      const to = { name: 'grow', params: { lot: act.lotId } };
      return [{ ...act, subjectId: act.lotId, part: 'lot', words, to }];
    }),
  );

  const lateActs = computed(() =>
    rising.value.flatMap(({ lot, outlook }) =>
      outlook && lot.view.standing.tally.sown > 0 && lot.view.standing.decision.kind !== 'write-off'
        ? emergenceActs(lot.row.id, outlook.value)
        : [],
    ),
  );
  const fromSeed = computed(() =>
    [...seed.acts, ...lateActs.value].map((act): TodayItem => {
      const { name, seeds, to } = seedSubject(act);
      return { ...act, trees: seeds, part: 'seed', words: seedActWords(act, name, season.view), to };
    }),
  );
  /** What a seed act is about, how many seeds or plants are at stake, and where it leads. */
  function seedSubject({ part, subjectId }: SeedAct): { name: string; seeds: number; to: RouteLocationRaw } {
    if (part === 'layers')
      return {
        name: seed.room.layers.find((l) => l.id === subjectId)?.tree ?? '',
        seeds: 1,
        to: { name: 'seed-layers', params: { layer: subjectId } },
      };
    if (part === 'up') {
      const lot = byId.value.get(subjectId);
      return {
        name: lot?.row.code ?? '',
        seeds: lot?.view.standing.tally.sown ?? 0,
        to: { name: 'seed-up', params: { lot: subjectId } },
      };
    }
    const batch = part === 'clock' ? seed.treatmentById.get(subjectId) : undefined;
    const lot = seed.lotById.get(batch?.seedLotId ?? subjectId);
    const species = lot ? seed.speciesOf(lot.speciesId).common.toLowerCase() : '';
    return {
      name: batch ? `${species}, “${batch.name}”` : `${species} ${lot?.code ?? ''}`,
      seeds: Math.round(batch?.seeds ?? seed.held.get(subjectId)?.seeds ?? 0),
      to: batch
        ? { name: 'seed-clock', params: { batch: subjectId } }
        : { name: 'seed', params: { seedLot: subjectId } },
    };
  }

  const fromRoots = computed(() => {
    const judged = lots.value.flatMap(({ row, view }) => {
      const verdict = roots.verdictOf(row.id)?.value.sequential;
      return verdict ? [{ lotId: row.id, standing: view.standing, verdict }] : [];
    });
    const standing = (ids: readonly string[]) =>
      ids.reduce((t, id) => t + (byId.value.get(id)?.view.standing.tally.standing ?? 0), 0);
    return rootActs(judged, asOf.value).map((act): TodayItem => {
      const only = act.rule === 'roots-rejected' ? act.lotIds[0] : null;
      return {
        ...act,
        subjectId: only,
        trees: standing(act.lotIds),
        part: 'roots',
        words: rootActWords(act, only === null ? '' : byId.value.get(only)!.row.code),
        to: { name: 'roots', params: { lot: only ?? '' } },
      };
    });
  });

  const toMark = ({ on, until, ...mark }: KeptMark): ActMark => ({
    ...mark,
    on: dayOf(on),
    until: dayOf(until),
  });
  const marks = computed(() => (kept.book?.marks ?? []).map(toMark));
  const rates = computed(() =>
    workRates(
      (kept.book?.marks ?? []).flatMap(({ rule, minutes, trees, mark }) =>
        mark === 'done' && minutes !== null ? [{ work: ruleTerms[rule].work, trees, minutes }] : [],
      ),
    ),
  );
  const rules = computed<TodayRules['rules']>(() => kept.book?.rules.rules ?? {});
  const agenda = computed(() =>
    agendaOf(
      [...fromLots.value, ...fromSeed.value, ...fromRoots.value],
      marks.value,
      rules.value,
      rates.value,
      season.view,
    ),
  );

  return { agenda, rates, byId };
}
