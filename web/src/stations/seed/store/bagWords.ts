import { inWords } from '@kauri/core';

/** What each part of what is written on a bag is called, by its path. */
export const bagWords: Readonly<Record<string, string>> = inWords({
  code: 'code',
  speciesId: 'species',
  collectedOn: 'collected on',
  receivedOn: 'received on',
  seedsPerKg: 'seeds a kilogram',
  moisturePct: 'moisture',
  store: 'store',
  storeTempC: 'temperature of the store',
  price: 'price a kilogram',
  'provenance.place': 'where it was collected',
  'provenance.latitudeDeg': 'latitude',
  'provenance.longitudeDeg': 'longitude',
  'provenance.altitudeM': 'altitude',
  'provenance.zone': 'seed zone',
  'provenance.collector': 'collected by',
  'provenance.parents': 'parent plants',
  note: 'note',
});
