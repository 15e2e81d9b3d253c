import { z } from 'zod';
import { Id, PlainDate } from '../basics';
import { atStation, inNursery, route } from '../route';
import { weatherPaths as paths } from './paths';
import * as weather from './schemas';

/** Weather, stations, covers. */
export const weatherRoutes = {
  weather: route(paths.weather, 'visitor', 'Daily weather, column by column', {
    params: inNursery,
    answer: weather.WeatherColumns,
  }),
  importWeather: route(paths.importWeather, 'grower', 'Check or take a station’s table', {
    params: inNursery,
    query: weather.WeatherImportQuery,
    bodyType: 'text/csv',
    answerType: 'application/x-ndjson',
    answer: weather.ImportProgress,
  }),
  exportWeather: route(paths.exportWeather, 'visitor', 'Daily weather as a table', {
    params: inNursery,
    answerType: 'text/csv',
    answer: z.string(),
  }),
  importMeasurements: route(paths.importMeasurements, 'crew', 'Check or take a table of measured plants', {
    params: inNursery,
    query: weather.MeasurementImportQuery,
    bodyType: 'text/csv',
    answerType: 'application/x-ndjson',
    answer: weather.ImportProgress,
  }),
  tablesTaken: route(paths.tablesTaken, 'visitor', 'Tables that were taken in lately', {
    params: inNursery,
    answer: weather.TablesTaken,
  }),
  takeTableBack: route(paths.takeTableBack, 'grower', 'Take a table back that was taken in, as one act', {
    params: z.object({ nursery: Id, table: Id }),
    body: z.object({ id: Id }),
    answer: weather.TableTakenBack,
  }),
  climate: route(paths.climate, 'visitor', 'Covers, and which places stand under them', {
    params: inNursery,
    answer: weather.KeptClimate,
  }),
  setClimate: route(paths.setClimate, 'grower', 'Change covers, or what stands under them', {
    params: inNursery,
    body: weather.EditedClimate,
    answer: weather.KeptClimate,
  }),
  stations: route(paths.stations, 'visitor', 'Weather stations and how they are doing', {
    params: inNursery,
    answer: weather.Stations,
  }),
  addStation: route(paths.addStation, 'grower', 'Add a weather station, or a logger under a cover', {
    params: inNursery,
    body: weather.NewStation,
    answer: weather.Stations,
  }),
  readStations: route(paths.readStations, 'crew', 'Read every station up to now', {
    params: inNursery,
    answer: weather.StationRead,
  }),
  rawReadings: route(paths.rawReadings, 'visitor', 'Hourly readings as they came, doubted ones among them', {
    params: atStation,
    query: z.object({ from: PlainDate, to: PlainDate }),
    answer: weather.RawReadings,
  }),
  failStation: route(paths.failStation, 'grower', 'Make a station’s stand-in fail, or mend it', {
    params: atStation,
    body: weather.FailStation,
  }),
  coverFit: route(paths.coverFit, 'visitor', 'What a logger says its cover adds to a day', {
    params: atStation,
    answer: weather.CoverFitted,
  }),
  exportMeasurements: route(paths.exportMeasurements, 'visitor', 'Every measured plant as a table', {
    params: inNursery,
    answerType: 'text/csv',
    answer: z.string(),
  }),
} as const;
