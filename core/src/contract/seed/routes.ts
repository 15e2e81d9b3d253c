import { z } from 'zod';
import { Id } from '../basics';
import { atLayer, atSeedLot, atStockBed, atTreatment, inNursery, route } from '../route';
import { seedPaths as paths } from './paths';
import * as seed from './schemas';
import * as yard from '../yard/schemas';

/** Seed room. */
export const seedRoutes = {
  seedRoom: route(
    paths.seedRoom,
    'visitor',
    'Seed lots, treatments, stock beds and air layers with their records',
    {
      params: inNursery,
      answer: seed.SeedRoom,
    },
  ),
  labelWords: route(paths.labelWords, 'visitor', 'Where the codes on labels lead', {
    params: inNursery,
    answer: seed.KeptLabelWords,
  }),
  setLabelWords: route(paths.setLabelWords, 'grower', 'Say where the codes on labels lead', {
    params: inNursery,
    body: seed.EditedLabelWords,
    answer: seed.KeptLabelWords,
  }),
  receiveSeed: route(paths.receiveSeed, 'grower', 'Receive a seed lot', {
    params: inNursery,
    body: seed.NewSeedLot,
    answer: seed.SeedRoom,
  }),
  importSeedLots: route(paths.importSeedLots, 'grower', 'Receive many seed lots, all or none', {
    params: inNursery,
    body: seed.ImportSeedLots,
    answer: seed.SeedRoom,
  }),
  editSeedLot: route(paths.editSeedLot, 'grower', 'Change what is written on a seed lot', {
    params: atSeedLot,
    body: seed.EditedSeedLot,
    answer: seed.SeedRoom,
  }),
  moveSeed: route(paths.moveSeed, 'crew', 'Take seed out, or weigh it anew', {
    params: atSeedLot,
    body: seed.MoveSeed,
    answer: seed.SeedRoom,
  }),
  testSeed: route(paths.testSeed, 'crew', 'Record a float, cut or germination test', {
    params: atSeedLot,
    body: seed.TestSeed,
    answer: seed.SeedRoom,
  }),
  startTreatments: route(paths.startTreatments, 'grower', 'Split a seed lot into treatment arms', {
    params: inNursery,
    body: seed.StartTreatments,
    answer: seed.SeedRoom,
  }),
  checkTreatment: route(paths.checkTreatment, 'crew', 'Look for radicles in a batch', {
    params: atTreatment,
    body: seed.CheckTreatment,
    answer: seed.SeedRoom,
  }),
  endTreatment: route(paths.endTreatment, 'grower', 'End a batch without sowing it', {
    params: atTreatment,
    body: seed.EndTreatment,
    answer: seed.SeedRoom,
  }),
  addStockBed: route(paths.addStockBed, 'grower', 'Add a stock bed', {
    params: inNursery,
    body: seed.NewStockBed,
    answer: seed.SeedRoom,
  }),
  editStockBed: route(paths.editStockBed, 'grower', 'Change a stock bed', {
    params: atStockBed,
    body: seed.EditedStockBed,
    answer: seed.SeedRoom,
  }),
  cutStockBed: route(paths.cutStockBed, 'crew', 'Take cuttings from a stock bed', {
    params: atStockBed,
    body: seed.CutStockBed,
    answer: seed.SeedRoom,
  }),
  makeLayer: route(paths.makeLayer, 'crew', 'Make an air layer', {
    params: inNursery,
    body: seed.NewLayer,
    answer: seed.SeedRoom,
  }),
  checkLayer: route(paths.checkLayer, 'crew', 'Look for roots through the film', {
    params: atLayer,
    body: seed.CheckLayer,
    answer: seed.SeedRoom,
  }),
  severLayer: route(paths.severLayer, 'crew', 'Sever an air layer, or give it up', {
    params: atLayer,
    body: seed.SeverLayer,
    answer: seed.SeedRoom,
  }),
  undoSeedRecord: route(paths.undoSeedRecord, 'crew', 'Take back a test, check, cut or look', {
    params: z.object({ nursery: Id, record: Id }),
    body: seed.UndoSeedRecord,
    answer: seed.SeedRoom,
  }),
  addSpecies: route(paths.addSpecies, 'grower', 'Take species into the nursery’s list, all or none', {
    params: inNursery,
    body: yard.NewSpecies,
    answer: z.object({ species: z.array(yard.Species) }),
  }),
  editSpecies: route(paths.editSpecies, 'grower', 'Change a species’ values', {
    params: z.object({ nursery: Id, species: Id }),
    body: yard.EditedSpecies,
    answer: yard.Species,
  }),
} as const;
