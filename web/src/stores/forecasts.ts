import {
  type Hands,
  type EpochDay,
  type GradeAsk,
  type Held,
  type HomeSpell,
  type LotFacts,
  type LotForecast,
  type LotToLift,
  type LyingParcel,
  type PromiseAsk,
  type RibbonDay,
  type RouteLot,
  type RoutePoint,
  type TreesWanted,
} from '@kauri/core';
import { useDebounceFn } from '@vueuse/core';
import { type Remote } from 'comlink';
import { wrapSpeaking } from '../workers/speaking';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import type { ForecastWorker, LotView } from '../workers/forecast.worker';
import { factsReader } from './lotFacts';
import { latestOnly } from './latestOnly';
import { useNursery } from './nursery';
import { useParcels } from './parcels';
import { useSeason } from './season';
import { parts } from './slices';

/** Lots handed to the worker, or taken from it, at once. */
const AT_ONCE = 60;
/** Sowings run ahead at once, so that what was found is told early. */
const SOWINGS_AT_ONCE = 13;
/** All lots are asked for at every move of the ribbon while that takes no longer than this, ms; else once it rests. */
const LONG_MS = 250;
const REST_MS = 150;

/** Forecasts of all lots at the ribbon's date, worked out in a worker and never in a view. */
export const useForecasts = defineStore('forecasts', () => {
  const nursery = useNursery();
  const season = useSeason();
  const parcels = useParcels();
  const views = shallowRef<Map<string, LotView>>(new Map());
  /** The date the views are of: trails the ribbon by the time the worker takes. */
  const viewsOf = ref<EpochDay | null>(null);
  const ribbon = shallowRef<{ start: EpochDay; days: RibbonDay[] } | null>(null);
  const selectedId = ref<string | null>(null);
  const selected = shallowRef<LotForecast | null>(null);
  const failure = ref<string | null>(null);
  /** Lots whose forecast failed, with why. */
  const faults = shallowRef<ReadonlyMap<string, string>>(new Map());

  const startWorker = () =>
    new Worker(new URL('../workers/forecast.worker.ts', import.meta.url), { type: 'module' });
  let worker: Remote<ForecastWorker> | null = null;
  let sentWeather = -1;
  /** Lots as the worker has them. */
  let sentFacts: ReadonlyMap<string, LotFacts> = new Map();

  /** The worker with everything it needs; who asks while it is being handed over waits for all of it. */
  let preparing: Promise<unknown> = Promise.resolve();
  function prepared(): Promise<Remote<ForecastWorker>> {
    const now = preparing.then(handOver);
    preparing = now.catch(() => undefined);
    return now;
  }
  async function handOver(): Promise<Remote<ForecastWorker>> {
    worker ??= wrapSpeaking<ForecastWorker>(startWorker());
    const { series, weatherVersion, catalogue, facts } = nursery;
    if (sentWeather !== weatherVersion) {
      const { latitudeDeg, elevationM } = catalogue!.nursery;
      await worker.setWeather(series, { latitudeDeg, elevationM });
      sentWeather = weatherVersion;
    }
    // Handed over a few at a time: a whole nursery at once would hold the page.
    if (sentFacts !== facts) {
      const changed = [...facts.values()].filter((lot) => sentFacts.get(lot.id) !== lot);
      const gone = [...sentFacts.keys()].filter((id) => !facts.has(id));
      sentFacts = facts;
      await worker.putLots([], gone);
      for (const some of parts(changed, AT_ONCE)) await worker.putLots(some, []);
    }
    return worker;
  }

  const allFacts = () => [...nursery.facts.values()];
  /** Lots with the species’ own values, and none that were learnt. */
  const unlearntFacts = () => {
    const { lots, evidence, lookup } = nursery;
    return [
      ...factsReader()
        .all(lots, evidence, { ...lookup, learnt: [] })
        .facts.values(),
    ];
  };

  /** Long work, in a worker of its own that ends with it. */
  async function apart<T>(
    lots: LotFacts[],
    work: (remote: Remote<ForecastWorker>) => Promise<T>,
  ): Promise<T> {
    const own = startWorker();
    try {
      const remote = wrapSpeaking<ForecastWorker>(own);
      const { latitudeDeg, elevationM } = nursery.catalogue!.nursery;
      await remote.setWeather(nursery.series, { latitudeDeg, elevationM });
      for (const some of parts(lots, AT_ONCE)) await remote.putLots(some, []);
      return await work(remote);
    } finally {
      own.terminate();
    }
  }
  const asOf = () => Math.min(season.view, season.today);
  /** Past forecasts beside what was measured; of lots of the past too. Their bands are those that forecasts start with. */
  async function held(): Promise<Held[]> {
    await nursery.lookBack();
    const asStarted = allFacts().map(({ bandWidths: _, ...facts }) => facts);
    return apart(asStarted, (remote) => remote.held(asOf()));
  }
  /** The same of one lot. */
  const heldOf = async (lotId: string): Promise<Held[]> => (await prepared()).held(asOf(), lotId);
  /** What lots teach of their species, read with the species’ own values and none that were learnt. */
  async function teaching() {
    await nursery.lookBack();
    return apart(unlearntFacts(), (remote) => remote.teaching(asOf()));
  }

  /** Whether somebody shows all lots: worked out from then on, and not for who looks at something else. */
  const allWanted = ref(false);
  const wantAll = () => void (allWanted.value = true);
  /** Likewise the strip of the season, which a phone folds away. */
  const ribbonWanted = ref(false);
  const wantRibbon = () => void (ribbonWanted.value = true);

  /** How long all lots took last, ms: where it is long, the ribbon rests before it is asked again. */
  let allTook = 0;
  const askAll = latestOnly(async (view: EpochDay, today: EpochDay) => {
    const begun = performance.now();
    try {
      const answer = await (await prepared()).all(view, today);
      const before = views.value;
      const changed = new Map<string, LotView>();
      for (let left = answer.changed; left > 0; left -= AT_ONCE)
        for (const lot of await worker!.more(AT_ONCE)) changed.set(lot.forecast.lotId, lot);
      views.value = new Map(answer.ids.map((id) => [id, changed.get(id) ?? before.get(id)!]));
      faults.value = new Map(answer.faults.map(({ lotId, fault }) => [lotId, fault]));
      viewsOf.value = view;
      failure.value = null;
      allTook = performance.now() - begun;
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

  const changed = computed(() => [nursery.weatherVersion, nursery.facts, nursery.whole] as const);
  const askNow = () => askAll(season.view, season.today);
  const askRested = useDebounceFn(askNow, REST_MS);
  const askChosen = () => askOne(selectedId.value, season.view, season.today);
  /** While the ribbon is dragged a lot’s course follows now and then, and when it rests. */
  const askChosenSoon = useDebounceFn(askChosen, 40, { maxWait: 250 });
  /** Follows the date, the lots and the weather for as long as whoever starts it lives. */
  function start() {
    allWanted.value = ribbonWanted.value = false;
    watch(
      [() => season.view, () => season.today, changed, allWanted],
      () => allWanted.value && nursery.whole && (allTook > LONG_MS ? askRested() : askNow()),
      { immediate: true },
    );
    watch([selectedId, changed], askChosen, { immediate: true });
    watch(() => season.view, askChosenSoon);
    watch(
      [() => season.strip, () => season.today, () => nursery.weatherVersion, ribbonWanted],
      () => ribbonWanted.value && askRibbon(season.today, season.strip.start, season.strip.end),
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

  /** A lot over the seasons ahead, as it stays and as it would be moved on. */
  const seasons = async (lotId: string, move: HomeSpell | null) =>
    (await prepared()).seasons(lotId, move, season.today);

  /** Bed lots lifted in turn with the hands there are. */
  const lifting = async (lots: readonly LotToLift[], hands: Hands) =>
    (await prepared()).lifting([...lots], { ...hands }, season.today);

  /** What lots of a species can be promised for on some days. */
  const promisable = async (ask: Omit<PromiseAsk, 'on'>, days: readonly EpochDay[]) => {
    const ids = [...nursery.lots.values()]
      .filter((lot) => lot.speciesId === ask.speciesId && lot.held.standing > 0)
      .map((lot) => lot.id);
    await parcels.ready();
    return (await prepared()).promisable(ids, { ...ask }, [...days], season.today, {
      parcels: parcels.ofSpecies(ask.speciesId),
      species: { ...nursery.lookup.species.get(ask.speciesId)!.values },
    });
  };

  /** What a lot would give by grade on a day. */
  const grades = async (lotId: string, view: EpochDay, { classes, bad, ...ask }: GradeAsk) =>
    (await prepared()).grades(
      lotId,
      { ...ask, classes: classes.map((one) => ({ ...one })), bad: bad && { ...bad } },
      view,
      season.today,
    );

  /** Until when lifted trees keep where they lie. */
  const keeps = async (lying: readonly LyingParcel[]) => {
    const values = [...nursery.lookup.species].map(([id, one]) => [id, { ...one.values }] as const);
    return (await prepared()).keeps(
      lying.map((parcel) => ({ ...parcel })),
      new Map(values),
      season.today,
    );
  };

  /**
   * What sowings of some routes on some days come to, in a worker of its own: told route by route, as far as they are.
   * @param told is asked after each batch of days whether to go on
   */
  const sowings = (
    routes: readonly RouteLot[],
    days: readonly EpochDay[],
    wanted: TreesWanted,
    told: (route: number, points: RoutePoint[]) => boolean,
  ) =>
    apart([], async (remote) => {
      for (const [i, route] of routes.entries())
        for (const some of parts([...days], SOWINGS_AT_ONCE))
          if (!told(i, await remote.sowings(route, some, { ...wanted }, season.today))) return;
    });

  /** Evapotranspiration to be expected in the open from today on. */
  const evaporation = async () => (await prepared()).evaporation(season.today);

  /** A lot as it stands, and with its cells set apart. */
  const spread = async (lotId: string, apart: number) =>
    (await prepared()).spread(lotId, apart, season.today);

  return {
    views,
    viewsOf,
    ribbon,
    selectedId,
    selected,
    failure,
    faults,
    start,
    wantAll,
    allWanted,
    wantRibbon,
    select,
    suppose,
    moved,
    spread,
    promisable,
    keeps,
    grades,
    lifting,
    sowings,
    evaporation,
    seasons,
    teaching,
    held,
    heldOf,
    feed,
  };
});
