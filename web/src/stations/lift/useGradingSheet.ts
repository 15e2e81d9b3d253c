import type { Grading } from '@kauri/core/contract';
import { ref } from 'vue';
import { ProblemError } from '../../api/problem';
import { useSaving } from '../../parts/useSaving';
import { useGrading } from '../../stores/grading';

/** A sheet that changes part of what trees are graded and heeled in by. */
export function useGradingSheet(key: string) {
  const grading = useGrading();
  const { save, fault, ...saving } = useSaving(key);
  const version = ref(grading.kept?.version ?? 0);

  /**
   * Keeps what a sheet changed over the rest as it stands. Where somebody else wrote meanwhile, theirs is taken in and said;
   * kept again, the sheet's part takes its place and the rest stays theirs.
   * @returns whether it was kept
   */
  async function keep(part: Partial<Grading>): Promise<boolean> {
    const whole = { ...(grading.kept?.grading ?? { schemes: [] }), ...part, schema: 1 as const };
    const body = { version: version.value, grading: whole };
    if ((await save(body, () => grading.keep(body.version, whole))) !== null) return true;
    if (fault.value instanceof ProblemError && fault.value.kind === 'stale-edit') {
      await grading.load(true).catch(() => undefined);
      version.value = grading.kept?.version ?? version.value;
    }
    return false;
  }
  return { keep, ...saving };
}
