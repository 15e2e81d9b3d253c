/** Simulated nurseries against which the models are tried: by hand in full (`npm run calibrate`), in the tests in short. */
export { deskTally, type DeskTally } from './desk';
export { gradeTally, type GradeTally } from './grades';
export { growthTally, growthWorlds, type GrowthTally, type GrowthWorld } from './growthWorlds';
export { liftingTally } from './lifting';
export { startingSpecies } from '../species/startingSpecies';
