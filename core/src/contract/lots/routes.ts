import { z } from 'zod';
import { Id } from '../basics';
import { atLot, inNursery, route } from '../route';
import { lotsPaths as paths } from './paths';
import * as lots from './schemas';

/** Lots and their records. */
export const lotsRoutes = {
  lots: route(paths.lots, 'visitor', 'Lots by code, a page at a time', {
    params: inNursery,
    query: lots.PageQuery,
    answer: lots.LotPage,
  }),
  lotStamps: route(paths.lotStamps, 'visitor', 'Every lot by name, with a word that changes when it does', {
    params: inNursery,
    query: lots.LotsQuery.partial(),
    answer: lots.LotStamps,
  }),
  lotRecords: route(paths.lotRecords, 'visitor', 'Some lots with their records', {
    params: inNursery,
    query: lots.LotsQuery,
    answer: lots.LotRecords,
  }),
  evidence: route(paths.evidence, 'visitor', 'Records of lots as forecasts read them, a page at a time', {
    params: inNursery,
    query: lots.PageQuery,
    answer: lots.EvidencePage,
  }),
  lot: route(paths.lot, 'visitor', 'One lot with its records and journal', {
    params: atLot,
    answer: lots.LotDetail,
  }),
  sowLot: route(paths.sowLot, 'grower', 'Sow a lot', {
    params: inNursery,
    body: lots.NewLot,
    answer: lots.LotDetail,
  }),
  correctSowing: route(
    paths.correctSowing,
    'grower',
    'Correct how a lot was sown: species, day, count, code, bag, place',
    { params: atLot, body: lots.CorrectedSowing, answer: lots.LotDetail },
  ),
  takeBackSowing: route(
    paths.takeBackSowing,
    'grower',
    'Take a sowing back that nothing was recorded of since',
    { params: atLot, body: lots.Undo, answer: lots.TakenBack },
  ),
  editLot: route(paths.editLot, 'grower', 'Change a lot’s target, leaf fall or note', {
    params: atLot,
    body: lots.EditedLot,
    answer: lots.LotDetail,
  }),
  shiftLot: route(paths.shiftLot, 'crew', 'Move a lot on: other cells, another place', {
    params: atLot,
    body: lots.ShiftLot,
    answer: lots.LotDetail,
  }),
  prickOut: route(paths.prickOut, 'crew', 'Prick a flat out by size into lots of their own', {
    params: atLot,
    body: lots.PrickOut,
    answer: z.object({ parent: lots.LotDetail, lots: z.array(lots.LotDetail) }),
  }),
  splitLot: route(paths.splitLot, 'crew', 'Set part of a lot apart as a lot of its own', {
    params: atLot,
    body: lots.SplitLot,
    answer: z.object({ parent: lots.LotDetail, lots: z.array(lots.LotDetail) }),
  }),
  countEmergence: route(paths.countEmergence, 'crew', 'Count what stands', {
    params: atLot,
    body: lots.EmergenceCount,
    answer: lots.LotDetail,
  }),
  measureLot: route(paths.measureLot, 'crew', 'Heights and collar diameters of a sample', {
    params: atLot,
    body: lots.SizeSample,
    answer: lots.LotDetail,
  }),
  pullRoots: route(paths.pullRoots, 'crew', 'Score pulled plugs', {
    params: atLot,
    body: lots.RootPull,
    answer: lots.LotDetail,
  }),
  liftLot: route(paths.liftLot, 'crew', 'Lift and cull', {
    params: atLot,
    body: lots.Lift,
    answer: lots.LotDetail,
  }),
  writeOff: route(paths.writeOff, 'crew', 'Write seeds or trees off by a named cause', {
    params: atLot,
    body: lots.Loss,
    answer: lots.LotDetail,
  }),
  undoTogether: route(paths.undoTogether, 'crew', 'Reverse what was recorded of several lots in one act', {
    params: inNursery,
    body: lots.UndoTogether,
    answer: z.object({ lots: z.array(lots.LotDetail) }),
  }),
  undoEntry: route(paths.undoEntry, 'crew', 'Reverse a record', {
    params: z.object({ nursery: Id, lot: Id, entry: Id }),
    body: lots.Undo,
    answer: lots.LotDetail,
  }),
} as const;
