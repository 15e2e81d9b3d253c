/** A day's reading of a watered place: what the programme asked, what the meter and the probe say. */
export interface WaterReading {
  day: number;
  askedLitres: number;
  litres: number | null;
  /** Moisture of the medium, share of container capacity before and after watering; null from a dead probe. */
  before: number | null;
  after: number | null;
}

export type WaterFault = 'no-supply' | 'stuck-closed' | 'stuck-open' | 'dead-probe' | 'no-response';

/**
 * What a place's last readings say is wrong, worst first; null when water asked for arrives and wets it.
 * @param readings by day, oldest first
 * @param othersFlow whether other zones had water in the same days: none anywhere means no supply
 */
export function waterFault(readings: readonly WaterReading[], othersFlow = true): WaterFault | null {
  const recent = readings.slice(-3);
  if (!recent.length) return null;
  const asked = recent.filter((r) => r.askedLitres > 0);
  const dry = asked.filter((r) => r.litres !== null && r.litres < 0.2 * r.askedLitres);
  if (asked.length && dry.length === asked.length) return othersFlow ? 'stuck-closed' : 'no-supply';
  if (recent.some((r) => (r.litres ?? 0) > 2 * r.askedLitres + 20)) return 'stuck-open';
  const last = recent[recent.length - 1];
  if (last.before === null || last.after === null) return 'dead-probe';
  const wetted = asked.filter((r) => r.before !== null && r.after !== null && r.before < 0.9);
  if (wetted.length >= 2 && wetted.every((r) => r.after! - r.before! < 0.02)) return 'no-response';
  return null;
}
