import {
  dayOf,
  lookupFrom,
  type EpochDay,
  type Lookup,
  type LotFacts,
  type WeatherSeries,
} from '@kauri/core';
import type {
  Catalogue,
  Evidence,
  KeptClimate,
  KeptLearnt,
  LotDetail,
  LotRow,
  Place,
  WeatherColumns,
} from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { call } from '../api/client';
import { factsReader, sameEvidence } from './lotFacts';
import { usePreferences } from './preferences';
import { useSession } from './session';

/** The nursery's catalogue, lots, records and weather, as the server has them. */
export const useNursery = defineStore('nursery', () => {
  const session = useSession();
  const catalogue = shallowRef<Catalogue | null>(null);
  const lots = shallowRef<Map<string, LotRow>>(new Map());
  const evidence = shallowRef<Map<string, Evidence>>(new Map());
  const weather = shallowRef<WeatherColumns | null>(null);
  /** Covers over places, and values learnt from own lots: both change forecasts. */
  const climate = shallowRef<KeptClimate | null>(null);
  const learnt = shallowRef<KeptLearnt | null>(null);
  /** Grows with every change of the weather, so that forecasts know to start anew. */
  const weatherVersion = ref(0);

  const nurseryId = computed(() => session.nurseryId!);
  const params = computed(() => ({ nursery: nurseryId.value }));
  const lookup = computed<Lookup>(() =>
    lookupFrom(
      catalogue.value ?? { species: [], places: [], containers: [], media: [] },
      climate.value?.climate,
      learnt.value?.learnt,
    ),
  );
  const readFacts = factsReader();
  /** Every lot as forecasts read it, derived here and nowhere else: a changed record makes that lot’s anew. */
  const read = computed(() => readFacts(lots.value, evidence.value, lookup.value));
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
  const firstDay = computed<EpochDay>(() => {
    const today = dayOf(catalogue.value!.nursery.today);
    return Math.min(today - 365, ...[...lots.value.values()].map((lot) => dayOf(lot.sownOn)));
  });

  async function load() {
    const [answer, days, covers, taught] = await Promise.all([
      call('catalogue', { params: params.value }),
      call('weather', { params: params.value }),
      call('climate', { params: params.value }),
      call('learnt', { params: params.value }),
      loadLots(),
    ]);
    usePreferences().nurseryUnits = answer.nursery.units;
    climate.value = covers;
    learnt.value = taught;
    catalogue.value = answer;
    setWeather(days);
  }

  async function loadLots() {
    const rows: LotRow[] = [];
    const records: Evidence[] = [];
    let after: string | undefined;
    do {
      const page = { params: params.value, query: { after, limit: 200 } };
      const [lotPage, evidencePage] = await Promise.all([call('lots', page), call('evidence', page)]);
      rows.push(...lotPage.lots);
      records.push(...evidencePage.evidence);
      after = lotPage.next ?? undefined;
    } while (after !== undefined);
    // What did not change stays the object it was, so that nothing is derived from it again.
    const [lotsBefore, evidenceBefore] = [lots.value, evidence.value];
    lots.value = new Map(
      rows.map((row) => {
        const before = lotsBefore.get(row.id);
        return [row.id, before && JSON.stringify(before) === JSON.stringify(row) ? before : row];
      }),
    );
    evidence.value = new Map(
      records.map((record) => {
        const before = evidenceBefore.get(record.lotId);
        return [record.lotId, before && sameEvidence(before, record) ? before : record];
      }),
    );
  }

  function setWeather(days: WeatherColumns) {
    weather.value = days;
    weatherVersion.value++;
  }

  async function reloadWeather() {
    setWeather(await call('weather', { params: params.value }));
  }

  /** Asks what day it is; a page left open over midnight goes on with the new day and what was recorded meanwhile. */
  async function turnDay() {
    const { today } = await call('day', { params: params.value });
    const before = catalogue.value!;
    if (today === before.nursery.today) return;
    catalogue.value = { ...before, nursery: { ...before.nursery, today } };
    await Promise.all([loadLots(), reloadWeather()]);
  }

  /** Takes in what the server answered after a record, so that every view follows. */
  function takeLots(details: readonly LotDetail[]) {
    lots.value = new Map([...lots.value, ...details.map(({ lot }) => [lot.id, lot] as const)]);
    evidence.value = new Map([...evidence.value, ...details.map((d) => [d.lot.id, d.evidence] as const)]);
  }
  const takeLot = (detail: LotDetail) => takeLots([detail]);

  function takePlace(place: Place) {
    const before = catalogue.value!;
    const places = [...before.places.filter((p) => p.id !== place.id), place].sort((a, b) =>
      a.place.name.localeCompare(b.place.name),
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
    catalogue.value = await call('catalogue', { params: params.value });
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
    loadLots,
    setWeather,
    reloadWeather,
    turnDay,
    climate,
    learnt,
    takeLot,
    takeLots,
    takePlace,
  };
});
