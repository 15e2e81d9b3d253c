import {
  factsFrom,
  type EpochDay,
  type Held,
  type HomeSpell,
  type LotFacts,
  type LotForecast,
  type RibbonDay,
} from '@kauri/core';
import { wrap, type Remote } from 'comlink';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import type { ForecastWorker, LotView } from '../workers/forecast.worker';
import { latestOnly } from './latestOnly';
import { useNursery } from './nursery';
import { useSeason } from './season';

/** Forecasts of all lots at the ribbon's date, worked out in a worker and never in a view. */
export const useForecasts = defineStore('forecasts', () => {
  const nursery = useNursery();
  const season = useSeason();
  const views = shallowRef<Map<string, LotView>>(new Map());
  /** The date the views are of: trails the ribbon by the time the worker takes. */
  const viewsOf = ref<EpochDay | null>(null);
  const ribbon = shallowRef<{ start: EpochDay; days: RibbonDay[] } | null>(null);
  const selectedId = ref<string | null>(null);
  const selected = shallowRef<LotForecast | null>(null);
  const failure = ref<string | null>(null);

  const startWorker = () =>
    new Worker(new URL('../workers/forecast.worker.ts', import.meta.url), { type: 'module' });
  let worker: Remote<ForecastWorker> | null = null;
  let sentWeather = -1;
  let sentLots: unknown = null;
  let sentLookup: unknown = null;

  async function prepared(): Promise<Remote<ForecastWorker>> {
    worker ??= wrap<ForecastWorker>(startWorker());
    const { series, weatherVersion, catalogue, evidence, lookup } = nursery;
    if (sentWeather !== weatherVersion) {
      const { latitudeDeg, elevationM } = catalogue!.nursery;
      await worker.setWeather(series, { latitudeDeg, elevationM });
      sentWeather = weatherVersion;
    }
    if (sentLots !== evidence || sentLookup !== lookup) {
      await worker.setLots(allFacts());
      sentLots = evidence;
      sentLookup = lookup;
    }
    return worker;
  }

  const allFacts = (lookup = nursery.lookup) =>
    [...nursery.lots.values()].map((lot) => factsFrom(lot, nursery.evidence.get(lot.id)!, lookup));

  /** Long work, in a worker of its own that ends with it. */
  async function apart<T>(
    lots: LotFacts[],
    work: (remote: Remote<ForecastWorker>) => Promise<T>,
  ): Promise<T> {
    const own = startWorker();
    try {
      const remote = wrap<ForecastWorker>(own);
      const { latitudeDeg, elevationM } = nursery.catalogue!.nursery;
      await remote.setWeather(nursery.series, { latitudeDeg, elevationM });
      await remote.setLots(lots);
      return await work(remote);
    } finally {
      own.terminate();
    }
  }
  const asOf = () => Math.min(season.view, season.today);
  /** Past forecasts beside what was measured. */
  const held = (): Promise<Held[]> => apart(allFacts(), (remote) => remote.held(asOf()));
  /** What lots teach of their species, read with the species’ own values and none that were learnt. */
  const teaching = () =>
    apart(allFacts({ ...nursery.lookup, learnt: [] }), (remote) => remote.teaching(asOf()));

  const askAll = latestOnly(async (view: EpochDay, today: EpochDay) => {
    try {
      const answers = await (await prepared()).all(view, today);
      views.value = new Map(answers.map((answer) => [answer.forecast.lotId, answer]));
      viewsOf.value = view;
      failure.value = null;
    } catch (error) {
      failure.value = error instanceof Error ? error.message : String(error);
    }
  });
  const askOne = latestOnly(async (lotId: string | null, view: EpochDay, today: EpochDay) => {
    const answer = lotId === null ? null : await (await prepared()).one(lotId, view, today);
    if (selectedId.value === lotId) selected.value = answer;
  });
  const askRibbon = latestOnly(async (today: EpochDay, start: EpochDay, end: EpochDay) => {
    ribbon.value = { start, days: await (await prepared()).ribbon(today, start, end) };
  });

  const changed = computed(() => [nursery.weatherVersion, nursery.evidence, nursery.lookup] as const);
  function start() {
    watch([() => season.view, () => season.today, changed], () => askAll(season.view, season.today), {
      immediate: true,
    });
    watch(
      [selectedId, () => season.view, changed],
      () => askOne(selectedId.value, season.view, season.today),
      { immediate: true },
    );
    watch(
      [() => season.strip, () => season.today, () => nursery.weatherVersion],
      () => askRibbon(season.today, season.strip.start, season.strip.end),
      {
        immediate: true,
      },
    );
  }

  function select(lotId: string | null) {
    if (lotId !== selectedId.value) selected.value = null;
    selectedId.value = lotId;
  }

  /** Forecast of a lot that might be sown, for plans. */
  const suppose = async (facts: LotFacts) => (await prepared()).suppose(facts, season.today);
  /** A lot as it stays, and as it would be moved on. */
  const moved = async (lotId: string, move: HomeSpell) => (await prepared()).moved(lotId, move, season.today);
  /** Run-out of controlled-release feeds between two days. */
  const feed = async (from: EpochDay, until: EpochDay, warmerByC: number) =>
    (await prepared()).feed(season.today, from, until, warmerByC);

  /** A lot as it stands, and with its cells set apart. */
  const spread = async (lotId: string, apart: number) =>
    (await prepared()).spread(lotId, apart, season.today);

  const acts = computed(() => [...views.value.values()].flatMap((view) => view.acts));
  return {
    views,
    viewsOf,
    ribbon,
    selectedId,
    selected,
    failure,
    acts,
    start,
    select,
    suppose,
    moved,
    spread,
    teaching,
    held,
    feed,
  };
});
