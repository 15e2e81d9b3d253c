import { told } from '../told';
import { z } from 'zod';
import { lineStates, treeForms } from '../../plan/orderLine';
import { stageKinds, stageWorks } from '../../plan/raisingLearnt';
import { routeStarts, stageEnds } from '../../plan/route';
import { cuttingKinds } from '../../species/startValues';
import { Id, Note, numberBetween, PlainDate, wholeNumber, wordsOf } from '../basics';

const Words = wordsOf(200);

/** What is wanted of one species: how many, of what size and form, when. */
export const OrderLine = z
  .object({
    id: Id,
    speciesId: Id,
    /** Where the seed should come from, in the buyer's words; empty where it does not matter. */
    provenance: Words,
    form: z.enum(treeForms),
    fromCm: numberBetween('Size from', 1, 2000, 'cm').nullable(),
    toCm: numberBetween('Size to', 1, 2000, 'cm').nullable(),
    count: wholeNumber('Trees', 1, 10_000_000),
    sent: wholeNumber('Sent', 0, 10_000_000),
    /** The day they are wanted, and the last day that will do; the same day where there is no window. */
    on: PlainDate,
    until: PlainDate,
    /** Where they go to be planted: dry, rock, wet, browsed. */
    goesTo: Words,
    /** For one tree, in the nursery's money; null where none is agreed. */
    price: numberBetween('Price', 0, 1_000_000).nullable(),
    state: z.enum(lineStates),
    /** Lots set against it: they alone serve it. None: any lot may. */
    lots: z
      .array(Id)
      .max(50, told`At most 50 lots.`)
      .default([]),
  })
  .refine((line) => line.until >= line.on, {
    ...told`The last day that will do lies before the day they are wanted.`,
    path: ['until'],
  })
  .refine((line) => line.fromCm === null || line.toCm === null || line.fromCm < line.toCm, {
    ...told`The size wanted ends before it begins.`,
    path: ['toCm'],
  })
  .refine((line) => line.sent <= line.count, {
    ...told`More were sent than are wanted.`,
    path: ['sent'],
  });
export type OrderLine = z.infer<typeof OrderLine>;

const order = {
  /** Who wants them; empty for a hope: stock for sale, or planting of one's own. */
  buyer: Words,
  reach: Words,
  note: Note,
  lines: z
    .array(OrderLine)
    .min(1, told`An order has a line at least.`)
    .max(200, told`At most 200 lines.`),
};
export const NewOrder = z.object({ id: Id, ...order });
export const NewOrders = z.object({
  /** Of the write: sent again, it is taken once. */
  id: Id,
  orders: z
    .array(NewOrder)
    .min(1, told`Nothing to keep.`)
    .max(500, told`At most 500 orders at once.`),
});
export const EditedOrder = z.object({ version: wholeNumber('Version', 0, 1e9), ...order });
export const RemovedOrder = z.object({ version: wholeNumber('Version', 0, 1e9) });
export const KeptOrder = z.object({ id: Id, version: z.number(), ...order });
export type KeptOrder = z.infer<typeof KeptOrder>;
export const Orders = z.object({ orders: z.array(KeptOrder) });

const routeStage = {
  /** A place of the yard that stages of its kind are like: its cover and light, a bed's depth. */
  placeId: Id,
  containerTypeId: Id.nullable(),
  densityPerM2: numberBetween('Plants a square metre', 1, 20_000).nullable(),
  ends: z.enum(stageEnds).nullable(),
  goesOn: z
    .number()
    .min(0.01, told`At least 1 % go on.`)
    .max(1, told`At most all go on.`),
  hoursPer100: numberBetween('Hours for a hundred', 0, 1000),
};

/** One home of a route: what it is in, where it is like, and what ends it. */
export const RouteStage = z
  .object(routeStage)
  .refine((stage) => (stage.containerTypeId === null) !== (stage.densityPerM2 === null), {
    ...told`A stage is in a container, or in a bed with so many plants a square metre.`,
    path: ['containerTypeId'],
  });
export type RouteStage = z.infer<typeof RouteStage>;

/** How a species may be raised here, stage by stage. */
export const RaisingRoute = z
  .object({
    id: Id,
    speciesId: Id,
    name: Words.min(1, told`A route has a name.`),
    start: z.enum(routeStarts),
    /** The kind of cutting, where it begins with cuttings. */
    cutting: z.enum(cuttingKinds).nullable(),
    stages: z
      .array(RouteStage)
      .min(1, told`A route has a stage at least.`)
      .max(6, told`At most six stages.`),
  })
  .refine((route) => route.stages.slice(0, -1).every((stage) => stage.ends !== null), {
    ...told`This route never ends: say what ends each stage but the last.`,
    path: ['stages'],
  })
  .refine((route) => route.stages.at(-1)!.ends === null, {
    ...told`Trees leave from the last stage: nothing else ends it.`,
    path: ['stages'],
  })
  .refine((route) => (route.start === 'cuttings') === (route.cutting !== null), {
    ...told`Say which cuttings it begins with, or that it begins with seed.`,
    path: ['cutting'],
  });
export type RaisingRoute = z.infer<typeof RaisingRoute>;

export const RoutesSchema = z.object({
  schema: z.literal(1),
  /** The nursery's own, each species' best first. A species with none has those that its habit suggests. */
  routes: z.array(RaisingRoute).max(1000, told`At most 1000 routes.`),
});
export type RaisingRoutes = z.infer<typeof RoutesSchema>;
const Pace = z.object({ factor: z.number(), times: z.number() });
/** What own lots and recorded hours say of stages of routes. */
export const Learnt = z.object({
  shares: z.array(
    z.object({
      speciesId: Id,
      kind: z.enum(stageKinds),
      kept: z.number(),
      gone: z.number(),
      between: z.number(),
      lots: z.number(),
    }),
  ),
  paces: z.record(z.enum(stageWorks), Pace),
});
export const KeptRoutes = z.object({ version: z.number(), routes: RoutesSchema, learnt: Learnt });
export type KeptRoutes = z.infer<typeof KeptRoutes>;
export const EditedRoutes = z.object({ version: wholeNumber('Version', 0, 1e9), routes: RoutesSchema });

/** A sowing that is planned: by which route, from which week, where it stands and how much room it takes. */
export const PlannedSowing = z
  .object({
    id: Id,
    speciesId: Id,
    /** The line of an order it is for; null for trees of one's own asking. */
    lineId: Id.nullable(),
    /** Name of the route it follows, as it was then. */
    route: Words,
    start: z.enum(routeStarts),
    cutting: z.enum(cuttingKinds).nullable(),
    wanted: z.object({
      on: PlainDate,
      until: PlainDate,
      fromCm: numberBetween('Size from', 1, 2000, 'cm').nullable(),
      toCm: numberBetween('Size to', 1, 2000, 'cm').nullable(),
      trees: wholeNumber('Trees', 1, 10_000_000),
      chance: z.number().min(0.01).max(0.999),
    }),
    stages: z
      .array(
        z.object({
          ...routeStage,
          from: PlainDate,
          plants: wholeNumber('Plants', 1, 100_000_000),
          /** Whole trays, or ground of a bed. */
          trays: wholeNumber('Trays', 1, 10_000_000).nullable(),
          areaM2: numberBetween('Area', 0.001, 1_000_000, 'm²').nullable(),
        }),
      )
      .min(1)
      .max(6),
    /** Day they are thought to leave. */
    until: PlainDate,
    /** Share of forecasts in which they are in time, and the day that was worked out. */
    chance: z.number().min(0).max(1),
    workedOn: PlainDate,
    /** Put there by hand: it is not moved by anything else. */
    pinned: z.boolean(),
  })
  .refine((sowing) => sowing.stages.every(({ from }, i) => i === 0 || from > sowing.stages[i - 1].from), {
    ...told`Its stages follow one another.`,
    path: ['stages'],
  })
  .refine((sowing) => sowing.until > sowing.stages.at(-1)!.from, {
    ...told`They leave after they came.`,
    path: ['until'],
  });
export type PlannedSowing = z.infer<typeof PlannedSowing>;
export const PlanSchema = z.object({
  schema: z.literal(1),
  sowings: z.array(PlannedSowing).max(2000, told`At most 2000 sowings.`),
});
export type SeasonPlan = z.infer<typeof PlanSchema>;
export const KeptPlan = z.object({ version: z.number(), plan: PlanSchema });
export type KeptPlan = z.infer<typeof KeptPlan>;
export const EditedPlan = z.object({ version: wholeNumber('Version', 0, 1e9), plan: PlanSchema });

/** What a season is planned with: how sure, with how many hours, at what cost. */
export const SeasonAsked = z.object({
  chance: z
    .number()
    .min(0.5, told`At least one chance in two.`)
    .max(0.99, told`At most 99 chances in 100.`),
  /** Hours that people have in a week for sowing and moving; null where that sets no bound. */
  hoursAWeek: numberBetween('Hours a week', 0.5, 10_000).nullable(),
  hourCost: numberBetween('Cost of an hour', 0, 100_000),
  /** What a tree fetches where its line names no price. */
  treeWorth: numberBetween('Worth of a tree', 0.01, 100_000),
  /** Trees may be bought in, ready to send, at so many times what they fetch; null where none are. */
  buyTimes: numberBetween('Price of a bought tree', 0.01, 20).nullable().default(null),
  /** The most to pay for seed, filling and trees bought in; null where that sets no bound. */
  spend: numberBetween('Money to spend', 0, 100_000_000).nullable().default(null),
  /** Whether only seed that is in store is sown. */
  seedInStore: z.boolean().default(false),
});
export type SeasonAsked = z.infer<typeof SeasonAsked>;

/** How one line is served by a proposal, and what would free it where it is not. */
export const ProposedLine = z.object({
  lineId: Id,
  trees: z.number(),
  /** Trees that come of what is pinned or begun, of standing lots, and of new sowings. */
  kept: z.number(),
  standing: z.array(z.object({ lotId: Id, trees: z.number() })),
  sown: z.number(),
  /** Trees that are bought in. */
  bought: z.number(),
  short: z.number(),
  /** Share of simulated seasons in which all its trees are there. */
  met: z.number(),
  /** Best chance that a new lot of it is in time and to size, in any week by any route; 0 where none is. */
  best: z.number(),
  why: z.enum(['no route', 'no week', 'no room', 'not worth it']).nullable(),
  /** The least more that would let a new lot serve it, beside all that is proposed. */
  frees: z
    .object({
      route: z.string(),
      on: PlainDate,
      trees: z.number(),
      rooms: z.array(z.object({ placeId: Id, from: PlainDate, until: PlainDate, m2: z.number() })),
      hours: z.array(z.object({ week: PlainDate, hours: z.number() })),
      /** Of money, plants that the seed in store or under treatment gives, or cuttings. */
      things: z.array(z.object({ of: z.enum(['money', 'seed', 'treated', 'cuttings']), more: z.number() })),
    })
    .nullable(),
});
export type ProposedLine = z.infer<typeof ProposedLine>;

/** A season proposed. */
export const SeasonResult = z.object({
  lines: z.array(ProposedLine),
  sowings: z.array(
    z.object({
      sowing: PlannedSowing,
      /** The next best way of serving the same, and how much more it costs, money. */
      next: z.object({ route: z.string(), on: PlainDate, more: z.number() }).nullable(),
    }),
  ),
  /** All that it costs and loses, and the least that any plan could, money; null while that is not known. */
  cost: z.number(),
  bound: z.number().nullable(),
  /** Kinds of places that are short, by one of their places: what one more square metre would save. */
  dear: z.array(z.object({ placeId: Id, perM2: z.number(), from: PlainDate, until: PlainDate })),
  /** What trees fetch less what they cost, over simulated seasons, money. */
  returns: z.object({ p10: z.number(), p50: z.number(), p90: z.number() }),
  /** What raising and buying cost together, and what of it is paid out: seed, filling, trees bought in; money. Null in plans of older Kauris. */
  spent: z.number().nullable(),
  paid: z.number().nullable(),
  /** Lots whose forecast failed: they are thought to stay where they are, and to serve nothing. */
  failed: z.array(Id),
  seasons: z.number(),
  /** What was planned already and stays, pinned or begun: the proposal stands beside it. */
  kept: z.array(Id),
});
export type SeasonResult = z.infer<typeof SeasonResult>;

export const seasonSteps = ['waiting', 'weeks', 'choosing', 'placing', 'replaying', 'done'] as const;
export type SeasonStep = (typeof seasonSteps)[number];

/** A season being planned, or proposed. */
export const Proposal = z.object({
  id: Id,
  name: Words,
  state: z.enum(['working', 'done', 'stopped', 'failed']),
  asked: SeasonAsked,
  step: z.enum(seasonSteps),
  /** How far the step is, 0–1. */
  share: z.number(),
  /** The day it was worked out on. */
  madeOn: PlainDate,
  /** Why it failed. */
  fault: z.string().nullable(),
  /** The best so far. */
  result: SeasonResult.nullable(),
  chosen: z.boolean(),
});
export type Proposal = z.infer<typeof Proposal>;
export const Proposals = z.object({ proposals: z.array(Proposal) });
export const NewProposal = z.object({ id: Id, name: Words, asked: SeasonAsked });
export const NamedProposal = z.object({ name: Words.min(1, told`A plan has a name.`) });
/** Choosing says which plan stands now, so that two people are both told. */
export const ChosenProposal = z.object({ version: wholeNumber('Version', 0, 1e9) });
export const NoWords = z.object({ id: Id });
