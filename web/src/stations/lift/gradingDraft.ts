import { readGrade, type ThinRule } from '@kauri/core';
import type { GradeScheme } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { typedNumber } from '../../parts/typed';
import { heightsWritten } from '../../words/grades';

type Written = GradeScheme['grades'][number];

/** A scheme as it is typed: heights and collars in the grower's units. */
export interface TypedScheme {
  id: string;
  name: string;
  speciesIds: string[];
  thinRule: ThinRule;
  grades: { heights: string; collar: string; name: string; was: Written | null }[];
}

/** Units as the grower sees and types them. */
export interface GradeUnits {
  heightShown: (cm: number) => number;
  heightTyped: (shown: number) => number;
  collarShown: (mm: number) => number;
  collarTyped: (shown: number) => number;
}

export const blankGrade = (): TypedScheme['grades'][number] => ({
  heights: '',
  collar: '',
  name: '',
  was: null,
});
export const blankScheme = (): TypedScheme => ({
  id: newId(),
  name: '',
  speciesIds: [],
  thinRule: 'out',
  grades: [blankGrade(), blankGrade(), blankGrade()],
});

export function toTyped(scheme: GradeScheme, { heightShown, collarShown }: GradeUnits): TypedScheme {
  return {
    id: scheme.id,
    name: scheme.name,
    speciesIds: [...scheme.speciesIds],
    thinRule: scheme.thinRule ?? 'out',
    grades: scheme.grades.map((grade) => ({
      heights: heightsWritten(grade, heightShown),
      collar: collarWritten(grade, collarShown),
      name: grade.name,
      was: grade,
    })),
  };
}

const collarWritten = ({ collarMm }: Written, shown: (mm: number) => number): string =>
  collarMm === null ? '' : String(Number(shown(collarMm).toFixed(2)));

/** What was typed, for the server to judge; lines of which nothing was typed are left out, and figures nobody touched are as they were. */
export function fromTyped(typed: TypedScheme, units: GradeUnits): GradeScheme {
  const { heightTyped, collarTyped } = units;
  const cm = (height: number | null) => (height === null ? null : heightTyped(height));
  return {
    id: typed.id,
    name: typed.name,
    speciesIds: typed.speciesIds,
    ...(typed.thinRule !== 'out' && { thinRule: typed.thinRule }),
    grades: typed.grades
      .filter(({ heights, collar, name }) => `${heights}${collar}${name}`.trim() !== '')
      .map(({ heights, collar, name, was }) => {
        const { from, to } = readGrade(heights);
        const isAsWas = was && heights === heightsWritten(was, units.heightShown);
        const isCollarAsWas = was && collar === collarWritten(was, units.collarShown);
        return {
          name,
          fromCm: isAsWas ? was.fromCm : cm(from),
          toCm: isAsWas ? was.toCm : cm(to),
          collarMm: isCollarAsWas
            ? was.collarMm
            : collar.trim() === ''
              ? null
              : collarTyped(typedNumber(collar)),
        };
      }),
  };
}
