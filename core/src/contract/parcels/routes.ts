import { JustId } from '../basics';
import { atLook, atParcel, atReturn, atSending, inNursery, route } from '../route';
import { parcelPaths as paths } from './paths';
import { EditedGrading, KeptGrading } from './grading';
import { EditedLiftingPlan, KeptLiftingPlan } from './liftingPlan';
import * as parcels from './schemas';

/** Lifted trees, where they lie, and whom they were sent to. */
export const parcelRoutes = {
  parcels: route(paths.parcels, 'visitor', 'Lifted trees, and what was sent', {
    params: inNursery,
    answer: parcels.Parcels,
  }),
  putParcel: route(paths.putParcel, 'crew', 'Put lifted trees in another place', {
    params: atParcel,
    body: parcels.PutParcel,
    answer: parcels.Parcels,
  }),
  setAside: route(paths.setAside, 'crew', 'Set lifted trees aside for a line of an order', {
    params: inNursery,
    body: parcels.SetAside,
    answer: parcels.Parcels,
  }),
  look: route(paths.look, 'crew', 'Write down what was seen where lifted trees lie', {
    params: inNursery,
    body: parcels.NewLook,
    answer: parcels.Parcels,
  }),
  takeBackLook: route(paths.takeBackLook, 'crew', 'Take back what was seen there', {
    params: atLook,
    body: JustId,
    answer: parcels.Parcels,
  }),
  papers: route(paths.papers, 'visitor', 'What papers that travel with trees say of the nursery', {
    params: inNursery,
    answer: parcels.KeptPapers,
  }),
  setPapers: route(paths.setPapers, 'grower', 'Write what those papers say', {
    params: inNursery,
    body: parcels.EditedPapers,
    answer: parcels.KeptPapers,
  }),
  grading: route(paths.grading, 'visitor', 'By what lifted trees are graded', {
    params: inNursery,
    answer: KeptGrading,
  }),
  setGrading: route(paths.setGrading, 'grower', 'Write by what they are graded', {
    params: inNursery,
    body: EditedGrading,
    answer: KeptGrading,
  }),
  liftingPlan: route(paths.liftingPlan, 'visitor', 'How the weeks of lifting are planned', {
    params: inNursery,
    answer: KeptLiftingPlan,
  }),
  setLiftingPlan: route(paths.setLiftingPlan, 'crew', 'Say who lifts, and which lots are moved to a day', {
    params: inNursery,
    body: EditedLiftingPlan,
    answer: KeptLiftingPlan,
  }),
  sendTrees: route(paths.sendTrees, 'crew', 'Send lifted trees, for a line of an order or without', {
    params: inNursery,
    body: parcels.SendTrees,
    answer: parcels.Parcels,
  }),
  takeBackSending: route(paths.takeBackSending, 'crew', 'Take a sending back that was written by mistake', {
    params: atSending,
    body: JustId,
    answer: parcels.Parcels,
  }),
  bringBack: route(paths.bringBack, 'crew', 'Write down trees of a sending that came back', {
    params: atSending,
    body: parcels.BringBack,
    answer: parcels.Parcels,
  }),
  takeBackReturn: route(paths.takeBackReturn, 'crew', 'Take back that trees came back, written by mistake', {
    params: atReturn,
    body: JustId,
    answer: parcels.Parcels,
  }),
} as const;
