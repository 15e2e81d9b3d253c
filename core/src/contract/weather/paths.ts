import type { Path } from '../route';

/** Weather, stations, covers: method and path of every route. */
export const weatherPaths = {
  weather: ['GET', '/nurseries/:nursery/weather'],
  importWeather: ['POST', '/nurseries/:nursery/weather/import'],
  exportWeather: ['GET', '/nurseries/:nursery/weather.csv'],
  importMeasurements: ['POST', '/nurseries/:nursery/measurements/import'],
  tablesTaken: ['GET', '/nurseries/:nursery/tables'],
  takeTableBack: ['POST', '/nurseries/:nursery/tables/:table/undo'],
  climate: ['GET', '/nurseries/:nursery/climate'],
  setClimate: ['PUT', '/nurseries/:nursery/climate'],
  stations: ['GET', '/nurseries/:nursery/stations'],
  addStation: ['POST', '/nurseries/:nursery/stations'],
  readStations: ['POST', '/nurseries/:nursery/stations/readings'],
  rawReadings: ['GET', '/nurseries/:nursery/stations/:station/readings'],
  failStation: ['POST', '/nurseries/:nursery/stations/:station/fault'],
  coverFit: ['GET', '/nurseries/:nursery/stations/:station/cover'],
  exportMeasurements: ['GET', '/nurseries/:nursery/measurements.csv'],
} as const satisfies Record<string, Path>;
