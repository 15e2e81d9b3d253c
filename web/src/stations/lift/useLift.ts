import { cullReasons, say, type Heeled } from '@kauri/core';
import { computed, ref, watch } from 'vue';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { useGrading } from '../../stores/grading';
import { usePreferences } from '../../stores/preferences';
import { collarWritten } from '../../words/grades';
import { count, several } from '../../words/numbers';
import { blankLift, culledIn, liftedIn, numberIn, rowsBy, sizeOf, type Shown } from './liftDraft';
import type { Bundle } from './parcelWords';

/** One lift of a lot while it is written; at the bed and at the desk it is the same draft. */
export function useLift(lot: () => ShownLot) {
  const grading = useGrading();
  const { shown, typed, unit } = usePreferences();
  const units: Shown = {
    height: (cm) => shown(cm, 'height'),
    heightCm: (height) => typed(height, 'height'),
    collar: (mm) => collarWritten(shown(mm, 'diameter'), unit('diameter')),
  };
  const isBed = computed(() => lot().facts.home.kind === 'bed');
  const bundle: Bundle = isBed.value ? '25' : '';
  /** The schemes are there; without them, and of plugs, a lift can be written all the same. */
  const ready = ref(!isBed.value || grading.kept !== null);
  grading
    .load()
    .catch(() => undefined)
    .finally(() => (ready.value = true));
  const recording = useRecording('liftLot', lot, blankLift(bundle));
  const { draft, record } = recording;

  const schemes = computed(() => grading.schemesFor(lot().row.speciesId));
  const scheme = computed(() => {
    const chosen = draft.value.scheme;
    // Plugs leave in their trays: by size only where somebody says so.
    if (chosen === null) return isBed.value ? grading.firstFor(lot().row.speciesId) : null;
    return schemes.value.find(({ id }) => id === chosen) ?? null;
  });
  /** The scheme chosen, or thought of first; empty for none. */
  const schemeId = computed({
    get: () => scheme.value?.id ?? '',
    set: (id: string) => (draft.value.scheme = id),
  });
  watch(scheme, (now) => (draft.value.rows = rowsBy(draft.value.rows, now, bundle, units)), {
    immediate: true,
  });

  const standing = computed(() => lot().row.held.standing);
  const lifted = computed(() => liftedIn(draft.value));
  const culled = computed(() => culledIn(draft.value));
  const left = computed(() => standing.value - lifted.value - culled.value);
  /** What is lifted, as it wants a place in a trench. */
  const heeled = computed((): Heeled[] =>
    draft.value.rows.map((row) => ({ count: Math.max(0, numberIn(row.count) || 0), ...sizeOf(row, units) })),
  );

  /** @returns whether it was taken */
  async function save(): Promise<boolean> {
    const said = say`${several(lifted.value, 'tree')} of ${lot().row.code} lifted${culled.value ? say`, ${count(culled.value)} culled` : ''}.`;
    const { rows, culls, place } = draft.value;
    const parcels = rows
      .filter((row) => numberIn(row.count) !== 0)
      .map((row) => ({
        id: row.id,
        grade: row.grade,
        ...sizeOf(row, units),
        count: numberIn(row.count),
        bundleOf: row.bundle === '' ? null : Number(row.bundle),
        place,
      }));
    const why = cullReasons
      .map((why) => ({ why, count: numberIn(culls[why]) }))
      .filter((one) => one.count !== 0);
    if (!(await record({ lifted: lifted.value, culled: culled.value, culls: why, parcels }, said)))
      return false;
    draft.value.rows = rowsBy([], scheme.value, bundle, units);
    return true;
  }
  return {
    ...recording,
    ready,
    isBed,
    bundle,
    schemes,
    scheme,
    schemeId,
    units,
    standing,
    lifted,
    culled,
    left,
    heeled,
    save,
  };
}
