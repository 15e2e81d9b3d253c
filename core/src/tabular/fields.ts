import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/*
 * Reading what people's tables really hold: decimal commas, day-first dates, Fahrenheit, blanks. A
 * field that cannot be read gives a sentence, never a guess.
 */

export type DateOrder = 'iso' | 'day-first' | 'month-first';

/**
 * A number with a decimal point or comma; null for an empty field.
 * @throws Unfit with a sentence for text that is no number
 */
export function readNumber(text: string, name: string): number | null {
  const trimmed = text.trim();
  if (trimmed === '' || /^(na|n\/a|nan|-|null)$/i.test(trimmed)) return null;
  if (!/^[-+−]?(\d+([.,]\d*)?|[.,]\d+)$/.test(trimmed))
    throw new Unfit(say`${name}: “${clip(trimmed)}” is not a number.`);
  return Number(trimmed.replace('−', '-').replace(',', '.'));
}

/**
 * A date as ISO text. A time after the date is passed over.
 * @throws Unfit with a sentence for text that is no date in that order
 */
export function readDate(text: string, order: DateOrder): string {
  const trimmed = text.trim();
  const match = /^(\d{1,4})[-/.](\d{1,2})[-/.](\d{1,4})(?:[T ,].*)?$/.exec(trimmed);
  if (!match) throw new Unfit(say`“${clip(trimmed)}” is not a date.`);
  const [a, b, c] = match.slice(1, 4).map(Number);
  const [year, month, day] = order === 'iso' ? [a, b, c] : order === 'day-first' ? [c, b, a] : [c, a, b];
  const full = year < 100 && match[order === 'iso' ? 1 : 3].length <= 2 ? 2000 + year : year;
  const date = new Date(Date.UTC(full, month - 1, day));
  if (date.getUTCMonth() !== month - 1 || date.getUTCDate() !== day || full < 1900 || full > 2200) {
    throw new Unfit(say`“${clip(trimmed)}” is not a date that exists.`);
  }
  return date.toISOString().slice(0, 10);
}

/** The order of dates in a column that fits every sample; null if none does. Day-first wins a tie over month-first. */
export function guessDateOrder(samples: readonly string[]): DateOrder | null {
  const filled = samples.filter((s) => s.trim() !== '');
  if (filled.length === 0) return null;
  const orders: DateOrder[] = ['iso', 'day-first', 'month-first'];
  return (
    orders.find((order) =>
      filled.every((sample) => {
        try {
          readDate(sample, order);
          return order !== 'iso' || /^\s*\d{4}/.test(sample);
        } catch {
          return false;
        }
      }),
    ) ?? null
  );
}

function clip(text: string): string {
  return text.length > 24 ? `${text.slice(0, 24)}…` : text;
}
