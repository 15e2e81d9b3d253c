import { z } from 'zod';
import { Id, PlainDate } from './basics';
import type { Role } from './roles';
import { paths } from './paths';
import * as growing from './growing';
import * as lots from './lots';
import * as people from './people';
import * as roots from './roots';
import * as learnt from './learnt';
import * as site from './site';
import * as today from './today';
import * as seed from './seed';
import * as water from './water';
import * as weather from './weather';
import * as yard from './yard';

/** Who may call a route: anyone, anyone signed in, or a member of the nursery with at least this role. */
export type Access = 'anyone' | 'signed-in' | Role;

export interface Route<
  Params extends z.ZodType = z.ZodType,
  Query extends z.ZodType = z.ZodType,
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
> {
  method: 'GET' | 'POST' | 'PUT';
  /** Below `/api`, parameters as `:name`. */
  path: string;
  access: Access;
  summary: string;
  params: Params;
  query: Query;
  body: Body;
  answer: Answer;
  /** Set where reading may also keep what it worked out. */
  keeps?: true;
  /** Set where the body or the answer is not JSON. */
  bodyType?: 'text/csv' | 'image/jpeg';
  answerType?: 'text/csv' | 'application/x-ndjson' | 'image/jpeg' | 'text/calendar';
}

const none = z.object({});
const done = z.object({ done: z.literal(true) });
const inNursery = z.object({ nursery: Id });
const atDesign = z.object({ nursery: Id, design: Id });
const atMedium = z.object({ nursery: Id, medium: Id });
const atSeedLot = z.object({ nursery: Id, seedLot: Id });
const atTreatment = z.object({ nursery: Id, treatment: Id });
const atStockBed = z.object({ nursery: Id, stockBed: Id });
const atLayer = z.object({ nursery: Id, layer: Id });
const atStation = z.object({ nursery: Id, station: Id });
const atPhoto = z.object({ nursery: Id, photo: Id });
const atLot = z.object({ nursery: Id, lot: Id });

function route<
  Params extends z.ZodType = typeof none,
  Query extends z.ZodType = typeof none,
  Body extends z.ZodType = typeof none,
  Answer extends z.ZodType = typeof done,
>(
  name: keyof typeof paths,
  access: Access,
  summary: string,
  parts: Partial<
    Pick<
      Route<Params, Query, Body, Answer>,
      'params' | 'query' | 'body' | 'answer' | 'bodyType' | 'answerType' | 'keeps'
    >
  > = {},
): Route<Params, Query, Body, Answer> {
  const [method, path] = paths[name];
  return {
    method,
    path,
    access,
    summary,
    params: none as unknown as Params,
    query: none as unknown as Query,
    body: none as unknown as Body,
    answer: done as unknown as Answer,
    ...parts,
  };
}

/** Every route of the server, in one table: validation, the typed client and OpenAPI come from it. */
export const routes = {
  health: route('health', 'anyone', 'Whether the server and its database answer', {
    answer: z.object({ server: z.literal('up'), database: z.enum(['up', 'down']) }),
  }),
  door: route('door', 'anyone', 'What the sign-in page needs', { answer: people.Door }),
  setup: route('setup', 'anyone', 'First start: the first nursery and its owner', {
    body: people.Setup,
    answer: people.Me,
  }),
  signIn: route('signIn', 'anyone', 'Sign in by e-mail and password', {
    body: people.SignIn,
    answer: people.Me,
  }),
  signOut: route('signOut', 'signed-in', 'Sign out of this browser'),
  signOutEverywhere: route('signOutEverywhere', 'signed-in', 'Sign out of every browser'),
  me: route('me', 'anyone', 'Who is signed in, and where they belong; null if nobody is', {
    answer: people.Me.nullable(),
  }),

  catalogue: route('catalogue', 'visitor', 'The nursery, its places, species, containers and media', {
    params: inNursery,
    answer: yard.Catalogue,
  }),
  addPlace: route('addPlace', 'grower', 'Add a bed or a bench', {
    params: inNursery,
    body: yard.NewPlace,
    answer: yard.Place,
  }),
  editPlace: route('editPlace', 'grower', 'Change a bed or a bench', {
    params: z.object({ nursery: Id, place: Id }),
    body: yard.EditedPlace,
    answer: yard.Place,
  }),

  site: route('site', 'visitor', 'The site plan', { params: inNursery, answer: site.KeptSite }),
  arrangeYard: route('arrangeYard', 'grower', 'Change the plan: site, places moved, added and taken away', {
    params: inNursery,
    body: site.Arrangement,
    answer: site.Arranged,
  }),
  setPrices: route('setPrices', 'grower', 'Change what things cost', {
    params: inNursery,
    body: yard.EditedPrices,
    answer: yard.KeptPrices,
  }),
  addDesign: route('addDesign', 'grower', 'Keep a bed design', {
    params: inNursery,
    body: yard.NewDesign,
    answer: yard.KeptDesign,
  }),
  editDesign: route('editDesign', 'grower', 'Save a bed design as its next version', {
    params: atDesign,
    body: yard.EditedDesign,
    answer: yard.KeptDesign,
  }),
  designVersions: route('designVersions', 'visitor', 'Every version of a bed design', {
    params: atDesign,
    answer: yard.DesignVersions,
  }),
  checks: route('checks', 'visitor', 'Condition checks of places, newest first', {
    params: inNursery,
    answer: yard.Checks,
  }),
  checkPlace: route('checkPlace', 'crew', 'Record the condition of a place', {
    params: z.object({ nursery: Id, place: Id }),
    body: yard.NewCheck,
    answer: yard.PlaceCheck,
  }),
  addContainer: route('addContainer', 'grower', 'Add a container type', {
    params: inNursery,
    body: yard.NewContainer,
    answer: yard.ContainerType,
  }),
  editContainer: route('editContainer', 'grower', 'Change a container type', {
    params: z.object({ nursery: Id, container: Id }),
    body: yard.EditedContainer,
    answer: yard.ContainerType,
  }),
  addMedium: route('addMedium', 'grower', 'Add a medium', {
    params: inNursery,
    body: yard.NewMedium,
    answer: yard.Medium,
  }),
  editMedium: route('editMedium', 'grower', 'Change a medium', {
    params: atMedium,
    body: yard.EditedMedium,
    answer: yard.Medium,
  }),
  stock: route('stock', 'visitor', 'Medium in and out of the heaps', {
    params: inNursery,
    answer: yard.Stock,
  }),
  moveStock: route('moveStock', 'crew', 'Record medium bought, mixed, filled or brought back', {
    params: atMedium,
    body: yard.NewStock,
    answer: yard.StockRow,
  }),
  water: route('water', 'visitor', 'Supply, drip and zones', { params: inNursery, answer: water.KeptWater }),
  setWater: route('setWater', 'grower', 'Change supply, drip or zones', {
    params: inNursery,
    body: water.EditedWater,
    answer: water.KeptWater,
  }),
  watering: route('watering', 'visitor', 'The programme sent and what the controller reported', {
    params: inNursery,
    answer: water.Watering,
  }),
  sendProgramme: route('sendProgramme', 'grower', 'Send the controller its programme', {
    params: inNursery,
    body: water.ProgrammeSchema,
    answer: water.Watering,
  }),
  readController: route('readController', 'crew', 'Read the controller and its probes up to today', {
    params: inNursery,
    answer: water.Watering,
  }),
  failStandIn: route('failStandIn', 'grower', 'Make the controller’s stand-in fail, or mend it', {
    params: inNursery,
    body: water.StandInFault,
  }),

  seedRoom: route(
    'seedRoom',
    'visitor',
    'Seed lots, treatments, stock beds and air layers with their records',
    {
      params: inNursery,
      answer: seed.SeedRoom,
    },
  ),
  receiveSeed: route('receiveSeed', 'grower', 'Receive a seed lot', {
    params: inNursery,
    body: seed.NewSeedLot,
    answer: seed.SeedRoom,
  }),
  importSeedLots: route('importSeedLots', 'grower', 'Receive many seed lots, all or none', {
    params: inNursery,
    body: seed.ImportSeedLots,
    answer: seed.SeedRoom,
  }),
  editSeedLot: route('editSeedLot', 'grower', 'Change what is written on a seed lot', {
    params: atSeedLot,
    body: seed.EditedSeedLot,
    answer: seed.SeedRoom,
  }),
  moveSeed: route('moveSeed', 'crew', 'Take seed out, or weigh it anew', {
    params: atSeedLot,
    body: seed.MoveSeed,
    answer: seed.SeedRoom,
  }),
  testSeed: route('testSeed', 'crew', 'Record a float, cut or germination test', {
    params: atSeedLot,
    body: seed.TestSeed,
    answer: seed.SeedRoom,
  }),
  startTreatments: route('startTreatments', 'grower', 'Split a seed lot into treatment arms', {
    params: inNursery,
    body: seed.StartTreatments,
    answer: seed.SeedRoom,
  }),
  checkTreatment: route('checkTreatment', 'crew', 'Look for radicles in a batch', {
    params: atTreatment,
    body: seed.CheckTreatment,
    answer: seed.SeedRoom,
  }),
  endTreatment: route('endTreatment', 'grower', 'End a batch without sowing it', {
    params: atTreatment,
    body: seed.EndTreatment,
    answer: seed.SeedRoom,
  }),
  addStockBed: route('addStockBed', 'grower', 'Add a stock bed', {
    params: inNursery,
    body: seed.NewStockBed,
    answer: seed.SeedRoom,
  }),
  editStockBed: route('editStockBed', 'grower', 'Change a stock bed', {
    params: atStockBed,
    body: seed.EditedStockBed,
    answer: seed.SeedRoom,
  }),
  cutStockBed: route('cutStockBed', 'crew', 'Take cuttings from a stock bed', {
    params: atStockBed,
    body: seed.CutStockBed,
    answer: seed.SeedRoom,
  }),
  makeLayer: route('makeLayer', 'crew', 'Make an air layer', {
    params: inNursery,
    body: seed.NewLayer,
    answer: seed.SeedRoom,
  }),
  checkLayer: route('checkLayer', 'crew', 'Look for roots through the film', {
    params: atLayer,
    body: seed.CheckLayer,
    answer: seed.SeedRoom,
  }),
  severLayer: route('severLayer', 'crew', 'Sever an air layer, or give it up', {
    params: atLayer,
    body: seed.SeverLayer,
    answer: seed.SeedRoom,
  }),
  undoSeedRecord: route('undoSeedRecord', 'crew', 'Take back a test, check, cut or look', {
    params: z.object({ nursery: Id, record: Id }),
    body: seed.UndoSeedRecord,
    answer: seed.SeedRoom,
  }),
  addSpecies: route('addSpecies', 'grower', 'Take species into the nursery’s list, all or none', {
    params: inNursery,
    body: yard.NewSpecies,
    answer: z.object({ species: z.array(yard.Species) }),
  }),
  editSpecies: route('editSpecies', 'grower', 'Change a species’ values', {
    params: z.object({ nursery: Id, species: Id }),
    body: yard.EditedSpecies,
    answer: yard.Species,
  }),

  lots: route('lots', 'visitor', 'Lots by code, a page at a time', {
    params: inNursery,
    query: lots.PageQuery,
    answer: lots.LotPage,
  }),
  evidence: route('evidence', 'visitor', 'Records of lots as forecasts read them, a page at a time', {
    params: inNursery,
    query: lots.PageQuery,
    answer: lots.EvidencePage,
  }),
  lot: route('lot', 'visitor', 'One lot with its records and journal', {
    params: atLot,
    answer: lots.LotDetail,
  }),
  sowLot: route('sowLot', 'grower', 'Sow a lot', {
    params: inNursery,
    body: lots.NewLot,
    answer: lots.LotDetail,
  }),
  editLot: route('editLot', 'grower', 'Change a lot’s target, leaf fall or note', {
    params: atLot,
    body: lots.EditedLot,
    answer: lots.LotDetail,
  }),
  shiftLot: route('shiftLot', 'crew', 'Move a lot on: other cells, another place', {
    params: atLot,
    body: lots.ShiftLot,
    answer: lots.LotDetail,
  }),
  prickOut: route('prickOut', 'crew', 'Prick a flat out by size into lots of their own', {
    params: atLot,
    body: lots.PrickOut,
    answer: z.object({ parent: lots.LotDetail, lots: z.array(lots.LotDetail) }),
  }),
  countEmergence: route('countEmergence', 'crew', 'Count what stands', {
    params: atLot,
    body: lots.EmergenceCount,
    answer: lots.LotDetail,
  }),
  measureLot: route('measureLot', 'crew', 'Heights and collar diameters of a sample', {
    params: atLot,
    body: lots.SizeSample,
    answer: lots.LotDetail,
  }),
  pullRoots: route('pullRoots', 'crew', 'Score pulled plugs', {
    params: atLot,
    body: lots.RootPull,
    answer: lots.LotDetail,
  }),
  inspectRoots: route('inspectRoots', 'crew', 'Record the roots of one pulled plant', {
    params: atLot,
    body: roots.InspectRoots,
    answer: lots.LotDetail,
  }),
  recordEvent: route('recordEvent', 'crew', 'Record what befell lots: how many were hit, how many died', {
    params: inNursery,
    body: growing.RecordEvent,
    answer: z.object({ lots: z.array(lots.LotDetail) }),
  }),
  recordCare: route('recordCare', 'crew', 'Record work done to lots without moving them', {
    params: inNursery,
    body: growing.RecordCare,
    answer: z.object({ lots: z.array(lots.LotDetail) }),
  }),
  keepPhoto: route('keepPhoto', 'crew', 'Keep a photo; sending it again changes nothing', {
    params: atPhoto,
    bodyType: 'image/jpeg',
    answer: growing.KeptPhoto,
  }),
  photo: route('photo', 'visitor', 'A kept photo', {
    params: atPhoto,
    answerType: 'image/jpeg',
    answer: z.unknown(),
  }),
  rootRules: route('rootRules', 'visitor', 'Scorecards and the terms of pulling', {
    params: inNursery,
    answer: roots.KeptRootRules,
  }),
  setRootRules: route('setRootRules', 'grower', 'Change the scorecards or the terms of pulling', {
    params: inNursery,
    body: roots.EditedRootRules,
    answer: roots.KeptRootRules,
  }),
  liftLot: route('liftLot', 'crew', 'Lift and cull', {
    params: atLot,
    body: lots.Lift,
    answer: lots.LotDetail,
  }),
  writeOff: route('writeOff', 'crew', 'Write seeds or trees off by a named cause', {
    params: atLot,
    body: lots.Loss,
    answer: lots.LotDetail,
  }),
  undoEntry: route('undoEntry', 'crew', 'Reverse a record', {
    params: z.object({ nursery: Id, lot: Id, entry: Id }),
    body: lots.Undo,
    answer: lots.LotDetail,
  }),

  weather: route('weather', 'visitor', 'Daily weather, column by column', {
    params: inNursery,
    answer: weather.WeatherColumns,
  }),
  importWeather: route('importWeather', 'grower', 'Check or take a station’s table', {
    params: inNursery,
    query: weather.WeatherImportQuery,
    bodyType: 'text/csv',
    answerType: 'application/x-ndjson',
    answer: weather.ImportProgress,
  }),
  exportWeather: route('exportWeather', 'visitor', 'Daily weather as a table', {
    params: inNursery,
    answerType: 'text/csv',
    answer: z.string(),
  }),
  importMeasurements: route('importMeasurements', 'crew', 'Check or take a table of measured plants', {
    params: inNursery,
    query: weather.MeasurementImportQuery,
    bodyType: 'text/csv',
    answerType: 'application/x-ndjson',
    answer: weather.ImportProgress,
  }),
  climate: route('climate', 'visitor', 'Covers, and which places stand under them', {
    params: inNursery,
    answer: weather.KeptClimate,
  }),
  setClimate: route('setClimate', 'grower', 'Change covers, or what stands under them', {
    params: inNursery,
    body: weather.EditedClimate,
    answer: weather.KeptClimate,
  }),
  stations: route('stations', 'visitor', 'Weather stations and how they are doing', {
    params: inNursery,
    answer: weather.Stations,
  }),
  addStation: route('addStation', 'grower', 'Add a weather station, or a logger under a cover', {
    params: inNursery,
    body: weather.NewStation,
    answer: weather.Stations,
  }),
  readStations: route('readStations', 'crew', 'Read every station up to now', {
    params: inNursery,
    answer: weather.StationRead,
  }),
  rawReadings: route('rawReadings', 'visitor', 'Hourly readings as they came, doubted ones among them', {
    params: atStation,
    query: z.object({ from: PlainDate, to: PlainDate }),
    answer: weather.RawReadings,
  }),
  failStation: route('failStation', 'grower', 'Make a station’s stand-in fail, or mend it', {
    params: atStation,
    body: weather.FailStation,
  }),
  coverFit: route('coverFit', 'visitor', 'What a logger says its cover adds to a day', {
    params: atStation,
    answer: weather.CoverFitted,
  }),
  todayBook: route(
    'todayBook',
    'visitor',
    'What was done about acts, rules muted and tuned, who may be asked',
    {
      params: inNursery,
      answer: today.TodayBook,
    },
  ),
  markAct: route('markAct', 'crew', 'Mark an act done or skipped, or give it to someone', {
    params: inNursery,
    body: today.MarkAct,
    answer: today.TodayBook,
  }),
  undoMark: route('undoMark', 'crew', 'Take a mark back', {
    params: z.object({ nursery: Id, mark: Id }),
    body: z.object({ id: Id }),
    answer: today.TodayBook,
  }),
  setTodayRules: route('setTodayRules', 'grower', 'Mute rules of Today, or have them earlier', {
    params: inNursery,
    body: today.EditedTodayRules,
    answer: today.TodayBook,
  }),
  makeCalendar: route(
    'makeCalendar',
    'visitor',
    'A private calendar address of one’s own; an older one ends',
    {
      params: inNursery,
      answer: today.CalendarAddress,
    },
  ),
  dropCalendar: route('dropCalendar', 'visitor', 'End one’s calendar address', {
    params: inNursery,
    answer: today.TodayBook,
  }),
  today: route('today', 'visitor', 'What lots ask for today, worked out on the server', {
    params: inNursery,
    answer: today.ServerToday,
    keeps: true,
  }),
  calendar: route('calendar', 'anyone', 'Acts as an iCalendar feed (RFC 5545); the address is the secret', {
    params: z.object({ token: z.string().regex(/^[A-Za-z0-9_-]{43}\.ics$/, 'There is no such calendar.') }),
    answerType: 'text/calendar',
    answer: z.string(),
  }),
  instrument: route('instrument', 'signed-in', 'Readings of a caliper or height stick, as they are taken', {
    params: z.object({ tool: z.enum(['caliper', 'stick']) }),
    query: growing.InstrumentQuery,
    answerType: 'application/x-ndjson',
    answer: growing.InstrumentReading,
  }),
  learnt: route('learnt', 'visitor', 'Values the nursery’s own lots taught, taken or turned down', {
    params: inNursery,
    answer: learnt.KeptLearnt,
  }),
  setLearnt: route('setLearnt', 'grower', 'Take a learnt value, turn it down, or take either back', {
    params: inNursery,
    body: learnt.EditedLearnt,
    answer: learnt.KeptLearnt,
  }),
  exportMeasurements: route('exportMeasurements', 'visitor', 'Every measured plant as a table', {
    params: inNursery,
    answerType: 'text/csv',
    answer: z.string(),
  }),
} as const;

export type Routes = typeof routes;
export type RouteName = keyof Routes;
export type ParamsOf<N extends RouteName> = z.infer<Routes[N]['params']>;
export type QueryOf<N extends RouteName> = z.infer<Routes[N]['query']>;
export type QueryInputOf<N extends RouteName> = z.input<Routes[N]['query']>;
export type BodyOf<N extends RouteName> = z.infer<Routes[N]['body']>;
export type BodyInputOf<N extends RouteName> = z.input<Routes[N]['body']>;
export type AnswerOf<N extends RouteName> = z.infer<Routes[N]['answer']>;
