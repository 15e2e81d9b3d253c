import { plantedCases, survivalGroups, type PlantedCase, type SurvivalGroup, say } from '@kauri/core';
import { computed, onMounted } from 'vue';
import { usePlantings } from '../stores/plantings';
import { useSeason } from '../stores/season';
import { percent, several } from '../words/numbers';

/** How planted trees of the nursery's own fare, for the choices that rest on it; nothing until it was walked. */
export function useLived() {
  const plantings = usePlantings();
  const season = useSeason();
  // What cannot be fetched is not shown: the page stands without it.
  onMounted(() => plantings.loaded || void plantings.load().catch(() => undefined));
  const cases = computed(() => plantedCases(plantings.kept, season.view));
  /** Survival by some word of each case, all groups read beside one another. */
  const by = (group: (one: PlantedCase) => string): Map<string, SurvivalGroup> =>
    new Map(
      survivalGroups(
        cases.value.map((one) => ({ group: group(one), alive: one.alive, dead: one.dead })),
      ).groups.map((one) => [one.group, one]),
    );
  return { cases, by };
}

/** A group's share with what it rests on: “79 % to 97 % live once planted, nine times in ten (2 parts of plantings)”. */
export const livedWords = ({ lower, upper, plantings }: SurvivalGroup): string =>
  say`${percent(lower)} to ${percent(upper)} live once planted, nine times in ten (${several(plantings, 'part of a planting', 'parts of plantings')} walked)`;
