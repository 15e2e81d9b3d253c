import {
  byNature,
  dayOf,
  givenNames,
  lookupFrom,
  lotAhead,
  lotsOf,
  type EpochDay,
  type Lookup,
  type LotFacts,
  type WeatherSeries,
  type SiteElement,
} from '@kauri/core';
import type {
  Catalogue,
  KeptClimate,
  KeptLearnt,
  LotDetail,
  Place,
  WeatherColumns,
} from '@kauri/core/contract';
import type { Area } from '@kauri/core/contract/paths';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { call } from '../api/client';
import { OfflineError, sentenceOf } from '../api/problem';
import { dayAway, type Contact } from '../device/clock';
import { lotRecords } from '../device/lotRecords';
import { useDevice } from './device';
import { factsReader } from './lotFacts';
import { lotKeeper } from './lotKeeper';
import type { Gathered } from './others';
import { lotsAhead } from './lotsAhead';
import { usePreferences } from './preferences';
import { useSession } from './session';

type Part = 'lots' | 'settings' | 'weather';
/** What writes of each area change of what is kept here. */
const touches: Readonly<Record<Area, readonly Part[]>> = {
  lots: ['lots'],
  growing: ['lots'],
  roots: ['lots'],
  parcels: ['lots'],
  plantings: ['lots'],
  arrivals: ['lots'],
  holds: ['lots'],
  seed: ['lots', 'settings'],
  weather: ['lots', 'settings', 'weather'],
  archive: ['lots', 'settings', 'weather'],
  yard: ['settings'],
  water: ['settings'],
  learnt: ['settings'],
  today: [],
  plan: [],
  people: [],
  instruments: [],
  year: [],
};

/** The nursery's catalogue, lots, records and weather, as the server has them. */
export const useNursery = defineStore('nursery', () => {
  const session = useSession();
  const device = useDevice();
  const catalogue = shallowRef<Catalogue | null>(null);
  const weather = shallowRef<WeatherColumns | null>(null);
  /** Covers over places, and values learnt from own lots: both change forecasts. */
  const climate = shallowRef<KeptClimate | null>(null);
  const learnt = shallowRef<KeptLearnt | null>(null);
  /** What stands on the plan, for the shade it casts. */
  const plan = shallowRef<readonly SiteElement[]>([]);
  /** Grows with every change of the weather, so that forecasts know to start anew. */
  const weatherVersion = ref(0);

  const nurseryId = computed(() => session.nurseryId!);
  const params = computed(() => ({ nursery: nurseryId.value }));
  const lookup = computed<Lookup>(() =>
    lookupFrom(
      catalogue.value ?? { species: [], places: [], containers: [], media: [] },
      climate.value?.climate,
      learnt.value?.learnt,
      catalogue.value
        ? {
            elements: plan.value,
            latitudeDeg: catalogue.value.nursery.latitudeDeg,
            longitudeDeg: catalogue.value.nursery.longitudeDeg,
          }
        : undefined,
    ),
  );
  /** Writes of this nursery that the server does not have yet. */
  const unsent = computed(() =>
    device.waiting.filter((act) => act.nurseryId === nurseryId.value).map(({ write }) => write),
  );
  const readFacts = factsReader();
  const keeper = lotKeeper(
    {
      stamps: (ids) => call('lotStamps', { params: params.value, query: ids ? { ids: ids.join() } : {} }),
      records: async (ids, stamps) =>
        lotRecords(await device.remembered(), nurseryId.value, ids, stamps, (wanted) =>
          call('lotRecords', { params: params.value, query: { ids: wanted.join() } }),
        ),
    },
    () => dayOf(catalogue.value!.nursery.today),
    (row, records) => readFacts.warm(row, records, lookup.value),
  );
  const { whole } = keeper;
  const aheadOf = lotsAhead();
  /** Lots with what was done here and is not sent yet. */
  const ahead = computed(() =>
    aheadOf({ lots: keeper.lots.value, evidence: keeper.evidence.value }, unsent.value),
  );
  const lots = computed(() => ahead.value.lots);
  const evidence = computed(() => ahead.value.evidence);
  /** Why the lots could not be fetched; null while nothing is wrong. */
  const trouble = ref<string | null>(null);
  /** Every lot as forecasts read it, derived here and nowhere else: a changed record makes that lot’s anew. */
  const read = computed(() => readFacts.all(lots.value, evidence.value, lookup.value));
  const facts = computed<ReadonlyMap<string, LotFacts>>(() => read.value.facts);
  /** Lots that could not be read, with why. */
  const unread = computed<ReadonlyMap<string, string>>(() => read.value.faults);
  /** The weather as the core reads it; NaN where nothing was measured. */
  const series = computed<WeatherSeries>(() => {
    const numbers = (values: readonly (number | null)[]) => Float64Array.from(values, (v) => v ?? NaN);
    const days = weather.value!;
    return {
      start: dayOf(days.start ?? catalogue.value!.nursery.today),
      tMinC: numbers(days.tMinC),
      tMaxC: numbers(days.tMaxC),
      rainMm: numbers(days.rainMm),
      humidity: numbers(days.humidity),
      windMs: numbers(days.windMs),
    };
  });
  /** Days since the newest day of weather; Infinity where there is none at all. */
  const weatherBehind = computed(() => {
    const { start, tMinC } = series.value;
    const last = tMinC.findLastIndex((t) => !Number.isNaN(t));
    return last < 0 ? Infinity : dayOf(catalogue.value!.nursery.today) - (start + last);
  });
  /** The first day there is anything to see of; any day until that is known. */
  const firstDay = computed<EpochDay>(() => {
    if (!whole.value) return -Infinity;
    const today = dayOf(catalogue.value!.nursery.today);
    return Math.min(today - 365, ...[...keeper.index.value.values()].map((lot) => dayOf(lot.sownOn)));
  });

  const readCatalogue = async () => givenNames(await call('catalogue', { params: params.value }));

  /** Opens the nursery; its lots arrive behind. */
  async function load() {
    const [answer, days, covers, taught, site] = await Promise.all([
      readCatalogue(),
      call('weather', { params: params.value }),
      call('climate', { params: params.value }),
      call('learnt', { params: params.value }),
      call('site', { params: params.value }),
    ]);
    openedAway = !device.reachable;
    usePreferences().nurseryUnits = answer.nursery.units;
    climate.value = covers;
    learnt.value = taught;
    plan.value = site.plan.elements;
    catalogue.value = { ...answer, nursery: { ...answer.nursery, today: todayHere(answer.nursery) } };
    setWeather(days);
    void fetchLots();
  }

  /** When the server last answered, and what day it was here then. */
  const contact = () =>
    JSON.parse(localStorage.getItem(`kauri.contact.${nurseryId.value}`) ?? 'null') as Contact | null;
  /** The nursery’s day: as the server says or, while it cannot be asked, as many days on as have passed since it did. */
  function todayHere({ today, timeZone }: Catalogue['nursery']): string {
    if (device.isSure) {
      noteContact(today);
      return today;
    }
    const last = contact();
    return last ? dayAway(last, timeZone, Date.now()) : today;
  }
  function noteContact(today: string) {
    if (!device.contact) return;
    localStorage.setItem(`kauri.contact.${nurseryId.value}`, JSON.stringify({ ...device.contact, today }));
  }

  /** Fetches the lots, or what changed of them; what goes wrong is said and can be tried again. */
  async function fetchLots() {
    trouble.value = null;
    try {
      await keeper.refresh();
    } catch (error) {
      trouble.value = sentenceOf(error);
    }
  }

  function setWeather(days: WeatherColumns) {
    weather.value = days;
    weatherVersion.value++;
  }

  async function reloadWeather() {
    setWeather(await call('weather', { params: params.value }));
  }

  /**
   * Asks what day it is and whether anything changed: a page left open over midnight goes on with the new day, and takes
   * in what others recorded meanwhile.
   */
  async function catchUp() {
    const before = catalogue.value!;
    const { today, changed } = await call('day', { params: params.value }).catch((error: unknown) => {
      if (error instanceof OfflineError) turnOver(todayHere(before.nursery));
      throw error;
    });
    noteContact(today);
    const isNewDay = today !== before.nursery.today;
    if (isNewDay) {
      turnOver(today);
      await reloadWeather();
    }
    if (!isNewDay && !keeper.isBehind(changed)) return;
    await keeper.refresh();
    trouble.value = null;
  }

  /** Takes in what others wrote; what it does not touch stays as it is. */
  async function takeIn({ areas, lots }: Gathered) {
    if (!catalogue.value) return;
    if (areas === null) {
      await Promise.all([catchUp(), reloadSettings()]);
      return;
    }
    const touched = (part: Part) => [...areas].some((area) => touches[area].includes(part));
    await Promise.all([
      touched('settings') ? reloadSettings() : null,
      touched('weather') ? reloadWeather() : null,
      !touched('lots') ? null : lots ? keeper.refreshSome([...lots]) : keeper.refresh(),
    ]);
  }

  /** What is as it was is not replaced: all that is derived from it would be derived again. */
  async function reloadSettings() {
    const [answer, covers, taught, site] = await Promise.all([
      readCatalogue(),
      call('climate', { params: params.value }),
      call('learnt', { params: params.value }),
      call('site', { params: params.value }),
    ]);
    const differs = (a: unknown, b: unknown) => JSON.stringify(a) !== JSON.stringify(b);
    const today = catalogue.value!.nursery.today;
    const fresh = { ...answer, nursery: { ...answer.nursery, today } };
    if (differs(fresh, catalogue.value)) catalogue.value = fresh;
    if (differs(covers, climate.value)) climate.value = covers;
    if (differs(taught, learnt.value)) learnt.value = taught;
    if (differs(site.plan.elements, plan.value)) plan.value = site.plan.elements;
  }

  function turnOver(today: string) {
    const now = catalogue.value!;
    if (now.nursery.today !== today) catalogue.value = { ...now, nursery: { ...now.nursery, today } };
  }

  /** Opened without a network, it shows what was seen last: all of it is asked for anew once there is one. */
  let openedAway = false;
  device.follow({
    taken(answered) {
      // The last answer of each lot tells all of it.
      const byLot = new Map<string, LotDetail>();
      for (const { act, answer } of answered) {
        if (act.nurseryId !== nurseryId.value) continue;
        const {
          lot,
          evidence: records,
          lots: several,
        } = answer as Partial<LotDetail> & { lots?: LotDetail[] };
        for (const detail of lot && records ? [answer as LotDetail] : (several ?? []))
          byLot.set(detail.lot.id, detail);
      }
      if (byLot.size) takeLots([...byLot.values()]);
    },
    check(write) {
      for (const id of lotsOf(write)) {
        const [row, records] = [lots.value.get(id), evidence.value.get(id)];
        if (row && records) lotAhead({ row, evidence: records }, write);
      }
    },
    async back() {
      if (!catalogue.value) return;
      if (openedAway) await load();
      else await catchUp();
    },
  });

  /** Takes in what the server answered after a record; the device has it too, for when there is no network. */
  function takeLots(details: readonly LotDetail[]) {
    keeper.takeLots(details);
    const records = { lots: details.map(({ lot }) => lot), evidence: details.map((one) => one.evidence) };
    const of = nurseryId.value;
    void device.remembered().then((memory) => memory?.keepLots(of, new Map(), records));
  }
  const takeLot = (detail: LotDetail) => takeLots([detail]);
  const dropLot = (id: string) => keeper.drop([id]);

  function takePlace(place: Place) {
    const before = catalogue.value!;
    const places = [...before.places.filter((p) => p.id !== place.id), place].sort((a, b) =>
      byNature(a.place.name, b.place.name),
    );
    catalogue.value = { ...before, places };
  }

  function dropPlace(id: string) {
    const before = catalogue.value!;
    catalogue.value = { ...before, places: before.places.filter((p) => p.id !== id) };
  }

  /** Takes changed parts of the catalogue in, so that every view follows. */
  function takeCatalogue(part: Partial<Catalogue>) {
    catalogue.value = { ...catalogue.value!, ...part };
  }

  async function reloadCatalogue() {
    catalogue.value = await readCatalogue();
  }

  return {
    dropPlace,
    takeCatalogue,
    reloadCatalogue,
    catalogue,
    lots,
    evidence,
    weather,
    weatherVersion,
    series,
    nurseryId,
    params,
    lookup,
    facts,
    unread,
    firstDay,
    weatherBehind,
    load,
    fetchLots,
    trouble,
    whole,
    index: keeper.index,
    arrived: keeper.arrived,
    expected: keeper.expected,
    past: keeper.past,
    pastLots: keeper.pastLots,
    lookBack: keeper.lookBack,
    setWeather,
    reloadWeather,
    catchUp,
    takeIn,
    climate,
    plan,
    learnt,
    takeLot,
    takeLots,
    dropLot,
    takePlace,
  };
});
