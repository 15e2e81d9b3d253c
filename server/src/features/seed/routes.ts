import type { BodyOf, RouteName, SeedRoom } from '@kauri/core/contract';
import type { NurseryCall, Work } from '../../http/context';
import type { seedRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { keepValue, readValue } from '../../nursery/values';
import { workOf } from '../../nursery/work';
import { addStockBed, checkLayer, cutStockBed, editStockBed, makeLayer, severLayer } from './propagation';
import { seedRoom } from './room';
import { addSpecies, editSpecies } from './species';
import { editSeedLot, importSeedLots, moveSeed, receiveSeed, testSeed } from './store';
import { checkTreatment, endTreatment, startTreatments, undoSeedRecord } from './treatments';

type Act =
  | 'receiveSeed'
  | 'importSeedLots'
  | 'editSeedLot'
  | 'moveSeed'
  | 'testSeed'
  | 'startTreatments'
  | 'checkTreatment'
  | 'endTreatment'
  | 'addStockBed'
  | 'editStockBed'
  | 'cutStockBed'
  | 'makeLayer'
  | 'checkLayer'
  | 'severLayer'
  | 'undoSeedRecord';

/** An act at the Seed station: does it, then answers with the station as it stands. */
function act<N extends Act>(write: (work: Work, call: NurseryCall<N>) => Promise<void>) {
  return async (call: NurseryCall<N>): Promise<SeedRoom> => {
    await write(await workOf(call as NurseryCall<RouteName>), call);
    return seedRoom(call);
  };
}

/** An act on the thing its path names. */
function on<N extends Act>(param: string, write: (work: Work, id: string, body: BodyOf<N>) => Promise<void>) {
  return act<N>((work, call) =>
    write(work, (call.params as unknown as Record<string, string>)[param], call.body),
  );
}

export const seedHandlers: HandlersOf<typeof seedRoutes> = {
  seedRoom: (call) => seedRoom(call),
  async labelWords(call) {
    const { version, value } = await readValue(call, 'labels');
    return { version, words: value };
  },
  async setLabelWords(call) {
    const { version, words } = call.body;
    const kept = await keepValue(await workOf(call), 'labels', version, words);
    return { version: kept.version, words: kept.value };
  },
  receiveSeed: act<'receiveSeed'>((work, { body }) => receiveSeed(work, body)),
  importSeedLots: act<'importSeedLots'>((work, { body }) => importSeedLots(work, body)),
  editSeedLot: on<'editSeedLot'>('seedLot', editSeedLot),
  moveSeed: on<'moveSeed'>('seedLot', moveSeed),
  testSeed: on<'testSeed'>('seedLot', testSeed),
  startTreatments: act<'startTreatments'>((work, { body }) => startTreatments(work, body)),
  checkTreatment: on<'checkTreatment'>('treatment', checkTreatment),
  endTreatment: on<'endTreatment'>('treatment', endTreatment),
  addStockBed: act<'addStockBed'>((work, { body }) => addStockBed(work, body)),
  editStockBed: on<'editStockBed'>('stockBed', editStockBed),
  cutStockBed: on<'cutStockBed'>('stockBed', cutStockBed),
  makeLayer: act<'makeLayer'>((work, { body }) => makeLayer(work, body)),
  checkLayer: on<'checkLayer'>('layer', checkLayer),
  severLayer: on<'severLayer'>('layer', severLayer),
  undoSeedRecord: on<'undoSeedRecord'>('record', undoSeedRecord),
  addSpecies: async (call) => ({ species: await addSpecies(await workOf(call), call.body) }),
  editSpecies: async (call) => editSpecies(await workOf(call), call.params.species, call.body),
};
