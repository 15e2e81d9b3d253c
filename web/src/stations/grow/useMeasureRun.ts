import {
  DIAMETER_LIMIT_MM,
  doubtOf,
  HEIGHT_LIMIT_CM,
  shrunk,
  summarise,
  type Doubt,
  say,
  inWords,
} from '@kauri/core';
import { computed, ref, type Ref } from 'vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { dateWords } from '../../words/dates';

export type What = 'height' | 'diameter';
export interface RunDraft {
  mode: What | 'both';
  heightsCm: number[];
  diametersMm: number[];
}

export const whatWords: Record<What, string> = inWords({ height: 'Height', diameter: 'Collar' });

/** Values in one text: with blanks, tabs, lines or semicolons between them; a comma alone is a decimal one. */
const parted = (text: string) => text.split(/[\s;]+|,\s+/).filter(Boolean);

/** The values of a measure run as they are typed or streamed in: what is next, what is asked about, what is wrong. */
export function useMeasureRun(lot: () => ShownLot, draft: Ref<RunDraft>) {
  const nursery = useNursery();
  const preferences = usePreferences();
  const typed = ref('');
  const fault = ref<string | null>(null);
  /** A value that is asked about before it is taken. */
  const asking = ref<{ what: What; value: number; doubt: Doubt } | null>(null);

  /** Values given together that wait until the one before them is settled, as typed and in turn. */
  const waiting = ref<number[]>([]);

  const valuesOf = (what: What) => (what === 'height' ? draft.value.heightsCm : draft.value.diametersMm);
  const next = computed<What>(() =>
    draft.value.mode === 'both'
      ? draft.value.heightsCm.length > draft.value.diametersMm.length
        ? 'diameter'
        : 'height'
      : draft.value.mode,
  );
  const plant = computed(() => valuesOf(next.value).length + 1);
  const bandOf = (what: What) => {
    const { state } = lot().view.forecast;
    return what === 'height' ? state.heightCm : state.diameterMm;
  };

  /** Takes a value in SI, or asks about it. */
  function take(what: What, value: number, sure = false): void {
    const doubt = sure ? null : doubtOf(value, valuesOf(what), bandOf(what));
    if (doubt) {
      asking.value = { what, value, doubt };
      return;
    }
    asking.value = null;
    fault.value = null;
    valuesOf(what).push(value);
    typed.value = '';
    const [first, ...rest] = waiting.value;
    if (first === undefined) return;
    waiting.value = rest;
    take(next.value, first);
  }
  /** Reads a value of the kind that has its turn. @returns null, with why, where it is none */
  function read(text: string, what: What): number | null {
    const value = Math.round(preferences.typed(typedNumber(text), what) * 100) / 100;
    const limit = what === 'height' ? HEIGHT_LIMIT_CM : DIAMETER_LIMIT_MM;
    if (value > 0 && value <= limit) return value;
    fault.value = say`${whatWords[what]}: a number above 0, at most ${preferences.show(limit, what)}. “${text}” was not taken.`;
    return null;
  }
  function add(): void {
    if (asking.value) return keep();
    const texts = parted(typed.value);
    if (texts.length > 1) return addAll(texts);
    const value = read(typed.value, next.value);
    if (value !== null) take(next.value, value);
  }
  /** Takes several values in turn, as a column or rows of a spreadsheet give them: all of them can be read, or none is taken. */
  function addAll(texts: readonly string[]): void {
    const values: number[] = [];
    const other = next.value === 'height' ? 'diameter' : 'height';
    for (const [i, text] of texts.entries()) {
      const value = read(text, draft.value.mode === 'both' && i % 2 ? other : next.value);
      if (value === null) {
        fault.value += say` None of the ${texts.length} values was.`;
        return;
      }
      values.push(value);
    }
    const [first, ...rest] = values;
    waiting.value = [...rest, ...waiting.value];
    take(next.value, first);
  }
  /** Takes what was pasted, where it is more than one value: else it goes into the field as it is. */
  function paste(text: string): boolean {
    const texts = parted(text);
    if (texts.length < 2) return false;
    asking.value = null;
    addAll(texts);
    if (fault.value) typed.value = texts.join(' ');
    return true;
  }
  function keep(): void {
    if (asking.value) take(asking.value.what, asking.value.value, true);
  }
  function again(): void {
    asking.value = null;
    typed.value = '';
  }
  /** Puts the last value back to be typed anew. */
  function fixLast(): void {
    const last: What =
      draft.value.mode === 'both' ? (next.value === 'height' ? 'diameter' : 'height') : draft.value.mode;
    const value = valuesOf(last).pop();
    if (value !== undefined) typed.value = String(Number(preferences.shown(value, last).toFixed(2)));
  }
  const askWords = computed(() => {
    if (!asking.value) return '';
    const { what, value, doubt } = asking.value;
    const usual = preferences.show(doubt.usual, what, 1);
    const is = preferences.show(value, what, 1);
    return doubt.kind === 'far'
      ? say`${is} is far from the others, about ${usual}.`
      : say`${is} is far from what is forecast, about ${usual}.`;
  });

  /** A lot that measures smaller than it did is asked about too: plants do die back. */
  const shrank = computed(() => {
    const heights = draft.value.heightsCm;
    if (heights.length < 3) return null;
    const before = nursery.evidence
      .get(lot().row.id)
      ?.sizes.filter((s) => s.what === 'height')
      .at(-1);
    if (!before || before.n < 2) return null;
    const now = summarise(heights);
    return shrunk(now, { mean: before.mean, standardError: before.sd / Math.sqrt(before.n) })
      ? say`They stand lower than on ${dateWords(before.on)}, when the mean was ${preferences.show(before.mean, 'height', 1)}. Died back, browsed or pruned? Keep the sample as it is, and write down what happened.`
      : null;
  });
  const leaveOut = () => void (waiting.value = []);
  return {
    paste,
    waiting,
    leaveOut,
    typed,
    fault,
    asking,
    askWords,
    next,
    plant,
    valuesOf,
    take,
    add,
    keep,
    again,
    fixLast,
    shrank,
  };
}
