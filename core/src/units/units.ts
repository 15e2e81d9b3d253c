import { decimals, word } from '../speech/say';

/*
 * The core counts in SI: mm, m, mL, L, g, kg, °C, days, plants per m². These are the bridges to the
 * units a grower reads and types. Factors are exact by definition (international yard and pound,
 * US liquid gallon).
 */

/** How a grower wants figures shown. */
export type UnitSystem = 'metric' | 'us';

/** What a number measures. Each has one SI unit in the core and one unit a system for show. */
export type Quantity =
  | 'timber' // mm: boards, beds, containers
  | 'site' // m
  | 'height' // cm
  | 'diameter' // mm
  | 'cell' // mL
  | 'volume' // L
  | 'mass' // kg
  | 'seedMass' // g
  | 'temperature' // °C
  | 'warmth' // °C·d
  | 'perWarmth' // per °C·d
  | 'rain' // mm
  | 'density' // plants per m²
  | 'perLength' // plants per m
  | 'area' // m²
  | 'dose' // g per L
  | 'flow' // L per h
  | 'rainRate' // mm per h
  | 'degrees' // °C between two temperatures
  | 'bulk' // kg per m³
  | 'perVolume' // of money, per m³
  | 'perArea' // of money, per m²
  | 'pressure'; // kPa

interface Show {
  unit: string;
  factor: number;
  offset?: number;
  digits: number;
}

const MM_PER_INCH = 25.4;
const L_PER_GALLON = 3.785411784;
const KG_PER_POUND = 0.45359237;
const M2_PER_FT2 = 0.3048 ** 2;
const M3_PER_YD3 = 0.9144 ** 3;

const shows: Record<Quantity, Record<UnitSystem, Show>> = {
  timber: {
    metric: { unit: 'mm', factor: 1, digits: 0 },
    us: { unit: 'in', factor: 1 / MM_PER_INCH, digits: 1 },
  },
  site: { metric: { unit: 'm', factor: 1, digits: 1 }, us: { unit: 'ft', factor: 1 / 0.3048, digits: 1 } },
  height: { metric: { unit: 'cm', factor: 1, digits: 0 }, us: { unit: 'in', factor: 1 / 2.54, digits: 1 } },
  diameter: {
    metric: { unit: 'mm', factor: 1, digits: 1 },
    us: { unit: 'in', factor: 1 / MM_PER_INCH, digits: 2 },
  },
  cell: {
    metric: { unit: 'mL', factor: 1, digits: 0 },
    us: { unit: 'in³', factor: 1000 / MM_PER_INCH ** 3, digits: 1 },
  },
  volume: {
    metric: { unit: 'L', factor: 1, digits: 0 },
    us: { unit: 'gal', factor: 1 / L_PER_GALLON, digits: 1 },
  },
  mass: {
    metric: { unit: 'kg', factor: 1, digits: 0 },
    us: { unit: 'lb', factor: 1 / KG_PER_POUND, digits: 0 },
  },
  seedMass: {
    metric: { unit: 'g', factor: 1, digits: 1 },
    us: { unit: 'oz', factor: 1 / 28.349523125, digits: 2 },
  },
  temperature: {
    metric: { unit: '°C', factor: 1, digits: 1 },
    us: { unit: '°F', factor: 1.8, offset: 32, digits: 1 },
  },
  warmth: {
    metric: { unit: '°C·d', factor: 1, digits: 0 },
    us: { unit: '°F·d', factor: 1.8, digits: 0 },
  },
  perWarmth: {
    metric: { unit: 'per °C·d', factor: 1, digits: 4 },
    us: { unit: 'per °F·d', factor: 1 / 1.8, digits: 4 },
  },
  rain: {
    metric: { unit: 'mm', factor: 1, digits: 1 },
    us: { unit: 'in', factor: 1 / MM_PER_INCH, digits: 2 },
  },
  density: {
    metric: { unit: '/m²', factor: 1, digits: 0 },
    us: { unit: '/ft²', factor: M2_PER_FT2, digits: 1 },
  },
  perLength: {
    metric: { unit: '/m', factor: 1, digits: 0 },
    us: { unit: '/ft', factor: 0.3048, digits: 1 },
  },
  area: {
    metric: { unit: 'm²', factor: 1, digits: 2 },
    us: { unit: 'ft²', factor: 1 / M2_PER_FT2, digits: 1 },
  },
  dose: {
    metric: { unit: 'g/L', factor: 1, digits: 1 },
    us: { unit: 'oz/gal', factor: L_PER_GALLON / 28.349523125, digits: 2 },
  },
  flow: {
    metric: { unit: 'L/h', factor: 1, digits: 0 },
    us: { unit: 'gal/h', factor: 1 / L_PER_GALLON, digits: 1 },
  },
  rainRate: {
    metric: { unit: 'mm/h', factor: 1, digits: 1 },
    us: { unit: 'in/h', factor: 1 / MM_PER_INCH, digits: 2 },
  },
  degrees: {
    metric: { unit: '°C', factor: 1, digits: 1 },
    us: { unit: '°F', factor: 1.8, digits: 1 },
  },
  bulk: {
    metric: { unit: 'kg/m³', factor: 1, digits: 0 },
    us: { unit: 'lb/yd³', factor: M3_PER_YD3 / KG_PER_POUND, digits: 0 },
  },
  perVolume: {
    metric: { unit: '/m³', factor: 1, digits: 2 },
    us: { unit: '/yd³', factor: M3_PER_YD3, digits: 2 },
  },
  perArea: {
    metric: { unit: '/m²', factor: 1, digits: 2 },
    us: { unit: '/ft²', factor: M2_PER_FT2, digits: 2 },
  },
  pressure: {
    metric: { unit: 'kPa', factor: 1, digits: 1 },
    us: { unit: 'psi', factor: 1 / 6.894757293168361, digits: 2 },
  },
};

/** The unit a system shows a quantity in. */
export function unitOf(quantity: Quantity, system: UnitSystem): string {
  return word(shows[quantity][system].unit);
}

/** SI → the number a grower reads. */
export function toShown(value: number, quantity: Quantity, system: UnitSystem): number {
  const { factor, offset = 0 } = shows[quantity][system];
  return value * factor + offset;
}

/** The number a grower typed → SI. Inverse of {@link toShown}. */
export function fromShown(shown: number, quantity: Quantity, system: UnitSystem): number {
  const { factor, offset = 0 } = shows[quantity][system];
  return (shown - offset) / factor;
}

/** Thin space between thousands, as figures are set in Kauri. */
export function groupThousands(text: string): string {
  const [whole, part] = text.split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f');
  return part === undefined ? grouped : `${grouped}.${part}`;
}

/** A figure with its unit, e.g. `31 cm`. `digits` overrides the usual number of decimals. */
export function formatQuantity(
  value: number,
  quantity: Quantity,
  system: UnitSystem,
  digits = shows[quantity][system].digits,
): string {
  const unit = unitOf(quantity, system);
  const text = groupThousands(toShown(value, quantity, system).toFixed(digits)).replace(
    /^-(0(\.0+)?)$/,
    '$1',
  );
  const figure = decimals(text);
  return unit.startsWith('/') ? `${figure}${unit}` : `${figure}\u00a0${unit}`;
}
