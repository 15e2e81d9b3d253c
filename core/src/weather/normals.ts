import { dayOfYear } from '../calendar/day';
import type { WeatherSeries } from './series';

/** A yearly wave: mean + Σ aₙ cos(nω·doy) + bₙ sin(nω·doy), two harmonics. */
export type Wave = readonly [mean: number, a1: number, b1: number, a2: number, b2: number];

/** What a place's weather is like by day of the year; input to the generator and filler of gaps. */
export interface Normals {
  tMinC: Wave;
  tMaxC: Wave;
  /** Standard deviation of the day-to-day departure, °C. */
  tMinSd: number;
  tMaxSd: number;
  /** Lag-1 autocorrelation of the departures. */
  persistence: number;
  /** Chance of a wet day after a wet and after a dry one; gamma rain, mm. */
  wetAfterWet: number;
  wetAfterDry: number;
  rainShape: number;
  rainScaleMm: number;
  /** Whether it comes from the nursery's own days or from a rough rule by latitude and height. */
  origin: 'record' | 'starting';
}

const OMEGA = (2 * Math.PI) / 365.25;

export function waveAt(wave: Wave, doy: number): number {
  const x = OMEGA * doy;
  return (
    wave[0] +
    wave[1] * Math.cos(x) +
    wave[2] * Math.sin(x) +
    wave[3] * Math.cos(2 * x) +
    wave[4] * Math.sin(2 * x)
  );
}

/**
 * A rough climate where no weather has been recorded: yearly mean falls 0.5 °C per degree of latitude
 * beyond 20° and 6.5 °C per km (ICAO standard lapse), 4.8 on the mountains of the tropics; the swing widens with
 * latitude; coldest a month after midwinter. A starting value, good to a few degrees; own records replace it.
 */
export function roughNormals(latitudeDeg: number, elevationM: number): Normals {
  const lat = Math.abs(latitudeDeg);
  const lapse = 4.8 + (6.5 - 4.8) * Math.max(0, Math.min(1, (lat - 20) / 15));
  const mean = 27 - 0.5 * Math.max(0, lat - 20) - (lapse / 1000) * elevationM;
  const swing = 0.14 * lat;
  const coldest = latitudeDeg >= 0 ? 21 : 204;
  const a = -swing * Math.cos(OMEGA * coldest);
  const b = -swing * Math.sin(OMEGA * coldest);
  return {
    tMinC: [mean - 4, a * 0.9, b * 0.9, 0, 0],
    tMaxC: [mean + 4, a * 1.1, b * 1.1, 0, 0],
    tMinSd: 3,
    tMaxSd: 3.2,
    persistence: 0.65,
    wetAfterWet: 0.65,
    wetAfterDry: 0.35,
    rainShape: 0.8,
    rainScaleMm: 6.5,
    origin: 'starting',
  };
}

/** How far a place's yearly mean, and its swing from winter to summer, may lie from the rough rule's, sd in °C. */
const MEAN_SD = 2.5;
const SWING_SD = 4;
/** Days on end are alike: so many are worth one. */
const DAYS_ALIKE = 5;
const FEWEST_DAYS = 10;

/**
 * The rough climate of a place, drawn towards the few weeks measured there: how much warmer they were than the rule is
 * shared out between the yearly mean and the swing, as each may be wrong (two normals, one regression).
 * @returns the rough normals themselves where fewer than ten days are measured
 */
export function nudgedNormals(series: WeatherSeries, latitudeDeg: number, elevationM: number): Normals {
  const rough = roughNormals(latitudeDeg, elevationM);
  const warmest = latitudeDeg >= 0 ? 204 : 21;
  // Normal equations of departure = mean + swing × cos(season), with the two spreads as what is believed before.
  const noise = rough.tMinSd ** 2 * DAYS_ALIKE;
  let [a, b, c] = [noise / MEAN_SD ** 2, 0, noise / SWING_SD ** 2];
  let [p, q] = [0, 0];
  let days = 0;
  for (let i = 0; i < series.tMinC.length; i++) {
    if (!(series.tMinC[i] <= series.tMaxC[i])) continue;
    const doy = dayOfYear(series.start + i);
    const x = Math.cos(OMEGA * (doy - warmest));
    const usual = (waveAt(rough.tMinC, doy) + waveAt(rough.tMaxC, doy)) / 2;
    const off = (series.tMinC[i] + series.tMaxC[i]) / 2 - usual;
    days++;
    a += 1;
    b += x;
    c += x * x;
    p += off;
    q += off * x;
  }
  if (days < FEWEST_DAYS) return rough;
  const det = a * c - b * b;
  const [mean, swing] = [(p * c - q * b) / det, (q * a - p * b) / det];
  const turn = OMEGA * warmest;
  const nudge = ([m, a1, b1, a2, b2]: Wave): Wave => [
    m + mean,
    a1 + swing * Math.cos(turn),
    b1 + swing * Math.sin(turn),
    a2,
    b2,
  ];
  return { ...rough, tMinC: nudge(rough.tMinC), tMaxC: nudge(rough.tMaxC) };
}

/**
 * Fits the normals to measured days: two harmonics by least squares, spread and persistence of what is
 * left, a two-state wet/dry chain and gamma rain by moments (Richardson 1981, Water Resour. Res. 17:182).
 * @returns null when fewer than 330 days are measured: a year's wave cannot be told from less.
 */
export function fitNormals(series: WeatherSeries): Normals | null {
  const min = fitWave(series, series.tMinC);
  const max = fitWave(series, series.tMaxC);
  if (!min || !max) return null;
  const rain = fitRain(series.rainMm);
  return {
    tMinC: min.wave,
    tMaxC: max.wave,
    tMinSd: min.sd,
    tMaxSd: max.sd,
    persistence: (min.lag1 + max.lag1) / 2,
    ...rain,
    origin: 'record',
  };
}

function fitWave(
  series: WeatherSeries,
  values: Float64Array,
): { wave: Wave; sd: number; lag1: number } | null {
  const normal = Array.from({ length: 5 }, () => new Float64Array(6));
  let n = 0;
  for (let i = 0; i < values.length; i++) {
    const y = values[i];
    if (Number.isNaN(y)) continue;
    n++;
    const x = OMEGA * dayOfYear(series.start + i);
    const row = [1, Math.cos(x), Math.sin(x), Math.cos(2 * x), Math.sin(2 * x), y];
    for (let r = 0; r < 5; r++) for (let c = 0; c < 6; c++) normal[r][c] += row[r] * row[c];
  }
  if (n < 330) return null;
  const wave = solve(normal) as unknown as Wave;
  let squares = 0;
  let products = 0;
  let pairs = 0;
  let before = NaN;
  for (let i = 0; i < values.length; i++) {
    const rest = values[i] - waveAt(wave, dayOfYear(series.start + i));
    if (!Number.isNaN(rest)) squares += rest * rest;
    if (!Number.isNaN(rest * before)) {
      products += rest * before;
      pairs++;
    }
    before = rest;
  }
  const variance = squares / n;
  const lag1 = pairs && variance > 0 ? Math.max(0, Math.min(0.95, products / pairs / variance)) : 0;
  return { wave, sd: Math.sqrt(variance), lag1 };
}

/** Gauss elimination with partial pivoting on a 5 × 6 augmented matrix. */
function solve(m: Float64Array[]): number[] {
  const size = m.length;
  for (let col = 0; col < size; col++) {
    let pivot = col;
    for (let r = col + 1; r < size; r++) if (Math.abs(m[r][col]) > Math.abs(m[pivot][col])) pivot = r;
    [m[col], m[pivot]] = [m[pivot], m[col]];
    for (let r = 0; r < size; r++) {
      if (r === col) continue;
      const f = m[r][col] / m[col][col];
      for (let c = col; c <= size; c++) m[r][c] -= f * m[col][c];
    }
  }
  return m.map((row, i) => row[size] / row[i]);
}

function fitRain(
  rain: Float64Array,
): Pick<Normals, 'wetAfterWet' | 'wetAfterDry' | 'rainShape' | 'rainScaleMm'> {
  const counts = { ww: 0, w: 0, dw: 0, d: 0 };
  let total = 0;
  let squares = 0;
  let wet = 0;
  for (let i = 0; i < rain.length; i++) {
    if (rain[i] > 0) {
      wet++;
      total += rain[i];
      squares += rain[i] ** 2;
    }
    if (i === 0 || Number.isNaN(rain[i]) || Number.isNaN(rain[i - 1])) continue;
    if (rain[i - 1] > 0) {
      counts.w++;
      if (rain[i] > 0) counts.ww++;
    } else {
      counts.d++;
      if (rain[i] > 0) counts.dw++;
    }
  }
  const mean = wet ? total / wet : 5;
  const variance = wet > 1 ? Math.max(squares / wet - mean ** 2, 0.01) : 30;
  return {
    wetAfterWet: (counts.ww + 1) / (counts.w + 2),
    wetAfterDry: (counts.dw + 1) / (counts.d + 2),
    rainShape: mean ** 2 / variance,
    rainScaleMm: variance / mean,
  };
}
