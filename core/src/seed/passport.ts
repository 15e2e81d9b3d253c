import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { stores, type Store } from '../species/startValues';

/** What is known of where a seed lot comes from. */
export interface Provenance {
  place: string;
  latitudeDeg: number | null;
  longitudeDeg: number | null;
  altitudeM: number | null;
  zone: string;
  collector: string;
  parents: number | null;
}

/** A seed lot as files carry it. */
export interface SeedLotRecord {
  code: string;
  latin: string;
  common: string;
  collectedOn: string | null;
  receivedOn: string;
  grams: number;
  seedsPerKg: number;
  moisturePct: number | null;
  store: Store;
  price: number | null;
  provenance: Provenance;
  note: string;
}

/** Kauri's own columns: one seed lot a line, SI units, ISO dates. */
export const seedLotColumns = [
  'code',
  'latin',
  'common',
  'collected_on',
  'received_on',
  'grams',
  'seeds_per_kg',
  'moisture_pct',
  'store',
  'price',
  'place',
  'latitude',
  'longitude',
  'altitude_m',
  'zone',
  'collector',
  'parents',
  'note',
] as const;

type Line = Record<string, string>;

const text = (value: string | number | null) => (value === null ? '' : String(value));

export function seedLotLine(lot: SeedLotRecord): Line {
  const p = lot.provenance;
  return {
    code: lot.code,
    latin: lot.latin,
    common: lot.common,
    collected_on: text(lot.collectedOn),
    received_on: lot.receivedOn,
    grams: text(lot.grams),
    seeds_per_kg: text(lot.seedsPerKg),
    moisture_pct: text(lot.moisturePct),
    store: lot.store,
    price: text(lot.price),
    place: p.place,
    latitude: text(p.latitudeDeg),
    longitude: text(p.longitudeDeg),
    altitude_m: text(p.altitudeM),
    zone: p.zone,
    collector: p.collector,
    parents: text(p.parents),
    note: lot.note,
  };
}

/**
 * The multi-crop passport descriptors a seed lot fills (FAO/Bioversity MCPD V.2.1, 2015): one accession a line.
 * Columns it says nothing of stay empty, as the standard asks.
 */
export const passportColumns = [
  'PUID',
  'INSTCODE',
  'ACCENUMB',
  'COLLNUMB',
  'COLLCODE',
  'COLLNAME',
  'COLLINSTADDRESS',
  'COLLMISSID',
  'GENUS',
  'SPECIES',
  'SPAUTHOR',
  'SUBTAXA',
  'SUBTAUTHOR',
  'CROPNAME',
  'ACCENAME',
  'ACQDATE',
  'ORIGCTY',
  'COLLSITE',
  'DECLATITUDE',
  'LATITUDE',
  'DECLONGITUDE',
  'LONGITUDE',
  'COORDUNCERT',
  'COORDDATUM',
  'GEOREFMETH',
  'ELEVATION',
  'COLLDATE',
  'BREDCODE',
  'BREDNAME',
  'SAMPSTAT',
  'ANCEST',
  'COLLSRC',
  'DONORCODE',
  'DONORNAME',
  'DONORNUMB',
  'OTHERNUMB',
  'DUPLSITE',
  'DUPLINSTNAME',
  'STORAGE',
  'MLSSTAT',
  'REMARKS',
] as const;

/** MCPD storage codes: 11 short-term seed, 12 medium-term seed, 13 long-term, 20 field, 99 other. */
const storageCodes: Record<Store, string> = {
  room: '11',
  fridge: '12',
  freezer: '13',
  'cool-moist': '11',
  outdoors: '99',
};

export function passportLine(lot: SeedLotRecord): Line {
  const [genus = '', species = ''] = lot.latin.split(/\s+/);
  const p = lot.provenance;
  const line: Line = Object.fromEntries(passportColumns.map((column) => [column, '']));
  return Object.assign(line, {
    ACCENUMB: lot.code,
    COLLNAME: p.collector,
    GENUS: genus,
    SPECIES: species,
    CROPNAME: say`forest and fruit trees`,
    ACCENAME: lot.common,
    ACQDATE: lot.receivedOn.replaceAll('-', ''),
    COLLSITE: p.place,
    DECLATITUDE: text(p.latitudeDeg),
    DECLONGITUDE: text(p.longitudeDeg),
    ELEVATION: text(p.altitudeM),
    COLLDATE: text(lot.collectedOn).replaceAll('-', ''),
    // 100: wild.
    SAMPSTAT: '100',
    STORAGE: storageCodes[lot.store],
    REMARKS: [
      `grams:${lot.grams}`,
      `seedsperkg:${lot.seedsPerKg}`,
      p.zone && `zone:${p.zone}`,
      p.parents !== null && `parents:${p.parents}`,
      lot.note.replaceAll(';', ','),
    ]
      .filter(Boolean)
      .join(';'),
  });
}

function numberOf(line: Line, name: string): number | null {
  const raw = (line[name] ?? '').trim().replace(',', '.');
  if (raw === '') return null;
  const value = Number(raw);
  if (!Number.isFinite(value)) throw new Unfit(say`${name}: “${raw}” is not a number.`);
  return value;
}

function dateOf(line: Line, name: string): string | null {
  const raw = (line[name] ?? '').trim();
  if (raw === '' || /^-+$/.test(raw)) return null;
  const match = /^(\d{4})-?(\d{2}|--)-?(\d{2}|--)$/.exec(raw);
  if (!match) throw new Unfit(say`${name}: “${raw}” is not a date.`);
  // A part the collector did not know is written with dashes: the middle of the year, or of the month.
  const iso = `${match[1]}-${match[2] === '--' ? '07' : match[2]}-${match[3] === '--' ? '15' : match[3]}`;
  const day = new Date(`${iso}T00:00:00Z`);
  if (Number.isNaN(day.getTime()) || day.toISOString().slice(0, 10) !== iso)
    throw new Unfit(say`${name}: “${raw}” is not a date that exists.`);
  return iso;
}

/**
 * One line of a file of seed lots, in Kauri's columns or in passport descriptors.
 * @param usual seeds a kilogram of the species where the line gives none, by its latin name
 * @throws Unfit with a sentence for a line that lacks its name or species, or holds impossible figures
 */
export function readSeedLot(line: Line, usual: (latin: string) => number | null): SeedLotRecord {
  return 'ACCENUMB' in line ? readPassport(line, usual) : readOwn(line, usual);
}

function readOwn(line: Line, usual: (latin: string) => number | null): SeedLotRecord {
  const of = (name: string) => (line[name] ?? '').trim();
  const store = (of('store') || 'fridge') as Store;
  if (!stores.includes(store)) throw new Unfit(say`store: “${store}” is none of ${stores.join(', ')}.`);
  return checked(
    {
      code: of('code'),
      latin: of('latin'),
      common: of('common'),
      collectedOn: dateOf(line, 'collected_on'),
      receivedOn: dateOf(line, 'received_on') ?? dateOf(line, 'collected_on') ?? '',
      grams: numberOf(line, 'grams') ?? 0,
      seedsPerKg: numberOf(line, 'seeds_per_kg') ?? usual(of('latin')) ?? 0,
      moisturePct: numberOf(line, 'moisture_pct'),
      store,
      price: numberOf(line, 'price'),
      provenance: {
        place: of('place'),
        latitudeDeg: numberOf(line, 'latitude'),
        longitudeDeg: numberOf(line, 'longitude'),
        altitudeM: numberOf(line, 'altitude_m'),
        zone: of('zone'),
        collector: of('collector'),
        parents: numberOf(line, 'parents'),
      },
      note: of('note'),
    },
    'code',
  );
}

function readPassport(line: Line, usual: (latin: string) => number | null): SeedLotRecord {
  const of = (name: string) => (line[name] ?? '').trim();
  const latin = `${of('GENUS')} ${of('SPECIES')}`.trim();
  const remarks = new Map(
    of('REMARKS')
      .split(';')
      .map((part) => part.split(':'))
      .filter((pair) => pair.length === 2)
      .map(([key, value]) => [key.trim().toLowerCase(), value.trim()]),
  );
  const remarked: Line = Object.fromEntries(remarks);
  const code = of('STORAGE').split(';')[0];
  return checked(
    {
      code: of('ACCENUMB'),
      latin,
      common: of('ACCENAME'),
      collectedOn: dateOf(line, 'COLLDATE'),
      receivedOn: dateOf(line, 'ACQDATE') ?? dateOf(line, 'COLLDATE') ?? '',
      grams: numberOf(remarked, 'grams') ?? 0,
      seedsPerKg: numberOf(remarked, 'seedsperkg') ?? usual(latin) ?? 0,
      moisturePct: null,
      store: code === '13' ? 'freezer' : code === '11' ? 'room' : code === '99' ? 'outdoors' : 'fridge',
      price: null,
      provenance: {
        place: of('COLLSITE'),
        latitudeDeg: numberOf(line, 'DECLATITUDE'),
        longitudeDeg: numberOf(line, 'DECLONGITUDE'),
        altitudeM: numberOf(line, 'ELEVATION'),
        zone: remarks.get('zone') ?? '',
        collector: of('COLLNAME'),
        parents: numberOf(remarked, 'parents'),
      },
      note: of('REMARKS')
        .split(';')
        .filter((part) => part.split(':').length !== 2)
        .join('; '),
    },
    'ACCENUMB',
  );
}

function checked(lot: SeedLotRecord, codeName: string): SeedLotRecord {
  if (lot.code === '') throw new Unfit(say`${codeName} is missing.`);
  if (lot.latin === '') throw new Unfit(say`The species is missing.`);
  if (lot.receivedOn === '') throw new Unfit(say`The day it was received or collected is missing.`);
  if (!(lot.grams > 0)) throw new Unfit(say`The mass, in grams, is missing or not above 0.`);
  if (!(lot.seedsPerKg > 0))
    throw new Unfit(say`Seeds a kilogram are missing and not known for the species.`);
  const { latitudeDeg: lat, longitudeDeg: lon } = lot.provenance;
  if ((lat !== null && Math.abs(lat) > 90) || (lon !== null && Math.abs(lon) > 180))
    throw new Unfit(say`The coordinates lie off the globe.`);
  if (lot.collectedOn !== null && lot.receivedOn < lot.collectedOn)
    throw new Unfit(say`It was received before it was collected: check the two dates.`);
  return lot;
}
