import {
  bedGeometry,
  bedWeight,
  openAreaFraction,
  treesHeld,
  type BedDesign,
  type BedGeometry,
  type BedWeight,
  type Step,
} from '@kauri/core';
import type { Medium } from '@kauri/core/contract';

/** All that Kauri can say of a bed from its design. */
export interface BedAnswers {
  geometry: BedGeometry;
  airShare: number;
  weight: BedWeight;
  /** At the density asked about. */
  trees: number;
  working: Step[];
}

/** @throws Unfit with a sentence for a bed that cannot be built, or a density that makes no sense */
export function bedAnswers(design: BedDesign, medium: Medium['values'], densityPerM2: number): BedAnswers {
  const geometry = bedGeometry(design, medium.settling);
  const air = openAreaFraction(design.layers);
  const weight = bedWeight(design, medium);
  const trees = treesHeld(geometry.value.insideAreaM2, densityPerM2);
  return {
    geometry: geometry.value,
    airShare: air.value,
    weight: weight.value,
    trees: trees.value,
    working: [...geometry.working, ...air.working, ...weight.working, ...trees.working],
  };
}
