import type { Climate, Station } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { v7 as newId } from 'uuid';
import { shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';

/** Weather stations and loggers, and the covers over places. */
export const useStations = defineStore('stations', () => {
  const nursery = useNursery();
  const stations = shallowRef<Station[] | null>(null);
  async function load() {
    stations.value = (await call('stations', { params: nursery.params })).stations;
  }
  async function add(name: string, coverId: string | null, id = newId()) {
    const answer = await call('addStation', { params: nursery.params, body: { id, name, coverId } });
    stations.value = answer.stations;
  }
  /** Reads every station, and takes the days it brought into the forecasts. */
  async function read() {
    const answer = await call('readStations', { params: nursery.params, body: {} });
    stations.value = answer.stations;
    if (answer.days > 0) nursery.setWeather(answer.weather);
    return answer;
  }
  async function fail(station: string, fault: 'none' | 'gap' | 'spike' | 'drift' | 'stuck' | 'dead') {
    await call('failStation', { params: { ...nursery.params, station }, body: { fault } });
  }
  async function fit(station: string) {
    return (await call('coverFit', { params: { ...nursery.params, station } })).fit;
  }
  async function setClimate(climate: Climate) {
    const { version } = nursery.climate!;
    nursery.climate = await call('setClimate', { params: nursery.params, body: { version, climate } });
  }
  return { stations, load, add, read, fail, fit, setClimate };
});
