/*
 * Everything the core offers, room by room in their order (core/rooms.js), each name from the file that is about it.
 */

// speech: every sentence in the language that is spoken
export {
  decimals,
  english,
  inSentence,
  inWords,
  nounFor,
  say,
  speakBy,
  speech,
  speechOf,
  word,
  type Catalogue,
  type Forms,
  type Speech,
} from './speech/say';

// units: metric and US, at the edge only
export {
  formatQuantity,
  fromShown,
  groupThousands,
  toShown,
  unitOf,
  type Quantity,
  type UnitSystem,
} from './units/units';

// working: how a figure came about, and what cannot be
export { Unfit } from './working/unfit';
export { put, recompute, sum, type Input, type Origin, type Step, type Worked } from './working/working';

// calendar: plain days, seasons by hemisphere, when a thing falls due
export {
  addYears,
  dayFrom,
  dayOf,
  dayOfYear,
  firstsOfMonths,
  isTimeZone,
  isoOf,
  mondayOf,
  partsOf,
  plainDateAt,
  type EpochDay,
} from './calendar/day';
export { autumnStart, growthStop, heatStart, nextWinter, seasonStrip, usualSowing } from './calendar/season';
export { whenFor, type When } from './calendar/when';

// chance: shares, quantiles, seeded draws
export { betaAfter, betaMean, betaProduct, wholeShare, type Beta } from './chance/beta';
export { betaCdf, betaQuantile, jeffreys } from './chance/betaCdf';
export { jeffreysInterval } from './chance/jeffreysInterval';
export { normalCdf, normalCdfFast, normalQuantile, studentQuantile } from './chance/normal';
export {
  betweenLots,
  ownShare,
  pooledShare,
  predictiveShare,
  shareStep,
  type Outcome,
  type PooledShare,
} from './chance/pooledShare';
export { bandOf, firstAtLeast, quantileSorted, shareAtOrBelow, type Band } from './chance/quantile';
export { gammaDraw, normalDraw, seedFrom, seededRandom, shuffledIndices, type Random } from './chance/random';
export type { Spread } from './chance/spread';

// money: what a thing costs a year
export { yearlyCost } from './money/yearlyCost';

// tabular: cells of a table as people write them
export { guessDateOrder, readDate, readNumber, type DateOrder } from './tabular/fields';
export { linesOf } from './tabular/lines';

// words: dates and numbers as a grower says them
export { dateWords, longDate, monthName, monthWords, shortDate, yearOf } from './words/dates';
export { dayInField, readDay } from './words/readDay';
export { closedSetWords, workingWords } from './words/closedSets';
export { byNature } from './words/nature';
export { count, odds, percent, several, surely } from './words/numbers';

// species: values of a kind of tree, its seed and its protocols
export {
  mustRun,
  phaseKinds,
  protocolsFrom,
  schools,
  wintersOf,
  type Phase,
  type PhaseKind,
  type Protocol,
  type School,
} from './species/protocol';
export type { SpeciesValues, StartingSpecies } from './species/species';
export { speciesLibrary } from './species/speciesLibrary';
export { startingSpecies } from './species/startingSpecies';
export { startOf } from './species/startOf';
export {
  cuttingKinds,
  moistureFactor,
  storageBehaviours,
  storeFactor,
  stores,
  type CuttingKind,
  type Rooting,
  type StartValues,
  type StorageBehaviour,
  type Store,
} from './species/startValues';

export { wakingGroups, wakingOf, type KnownWaking, type Waking, type WakingGroup } from './species/waking';

// home: what a plant’s roots stand in, and what that makes of it
export {
  USUAL_DEPTH_MM,
  densityFactor,
  depthFactor,
  diameterFactorIn,
  heightFactorIn,
  lightFactor,
  volumeFactor,
} from './home/factors';
export { cellMlAt, cellMlOf, depthMmOf, homeAt, type Cover, type Home, type HomeSpell } from './home/home';

// stock: timber and mesh cut from what is sold
export {
  cutStock,
  type CutBoard,
  type CutPlan,
  type CutProblem,
  type StockLength,
  type WantedPiece,
} from './stock/cutStock';
export { cutFromRolls, type RollCut } from './stock/rolls';
export { solverAt } from './stock/solver';

// medium: what beds and pots are filled with
export {
  DAYS_PER_MONTH,
  TO_80_PERCENT,
  controlledRelease,
  dayAt21,
  type Release,
} from './medium/controlledRelease';
export {
  USUAL_HELD_BY_MM,
  USUAL_HELD_SHARE,
  startingMedia,
  type MediumPart,
  type MediumValues,
} from './medium/medium';
export {
  MIXING_LOSS,
  batchFor,
  heldByOf,
  heldShareOf,
  materials,
  materialWords,
  mixOf,
  type Batch,
  type Material,
} from './medium/mix';

// container: trays, tubes and pots
export {
  cellsPerM2,
  cellsPerM2Spaced,
  containerAirShare,
  containerKinds,
  containerVolume,
  washedBetweenUses,
  type ContainerKind,
  type ContainerValues,
} from './container/container';
export { containersIn, startingContainers } from './container/startingContainers';
export { traysOnBench, type Rectangle } from './container/traysOnBench';

// bed: air-pruning beds: design, build, cost
export { buildSheet, type BuildItem, type BuildSheet, type BuildStep, type SheetCut } from './bed/buildSheet';
export { buyingList, stockOf, type BoardBuying } from './bed/buyingList';
export { bedAgainstContainer, type Asked } from './bed/compare';
export { bedCost, type BedCost } from './bed/cost';
export {
  buildOf,
  footKinds,
  timberClasses,
  type BedBuild,
  type BedDesign,
  type FootKind,
  type Ground,
  type OpenLayer,
  type TimberClass,
} from './bed/design';
export { boardNames, dressedSize, type DressedSize } from './bed/dressedSize';
export { DEFAULT_SETTLING, NEEDED_GAP_MM, SHALLOW_MM, bedGeometry, type BedGeometry } from './bed/geometry';
export { MESH_SEASONS, serviceLife, timberCautions, type Life } from './bed/life';
export { WIDEST_REACH_MM, proposeModules, type ModuleFit } from './bed/modules';
export { openAreaFraction } from './bed/openAreaFraction';
export { bedParts, isGrid, type BedParts, type Fixings, type SheetPart, type TimberPart } from './bed/parts';
export {
  boardPrice,
  startingPrices,
  startingTreePrices,
  usPrices,
  type PriceList,
  type TreePrices,
} from './bed/prices';
export { depthThrough, retaining, type Retaining } from './bed/retaining';
export { SAG_LIMIT, WET_STIFFNESS, beamSag, bedSupports, feetBear, type BedSupports } from './bed/supports';
export { treesHeld } from './bed/treesHeld';
export { CARRY_LIMIT_KG, TIMBER_DENSITY, bedWeight, type BedWeight } from './bed/weight';

// site: the plan of the yard
export {
  BARROW_PATH_M,
  MAIN_PATH_M,
  TOUCHING_M,
  checkPlan,
  narrowPaths,
  type PlaceGround,
  type PlanFault,
} from './site/checks';
export {
  elementKinds,
  emptySite,
  outlineOf,
  shapeOfKind,
  type ElementKind,
  type SiteElement,
  type SitePlan,
} from './site/elements';
export {
  placeColumns,
  placeKinds,
  placeTableLine,
  readPlaceLine,
  type PlaceKind,
  type PlaceLine,
} from './site/placeTable';
export {
  boxAbout,
  cornersOf,
  distanceBetween,
  footprintOf,
  freeSpot,
  middleOfPlace,
  nextSpot,
  sizeOf,
  spotAbout,
  type Footprint,
  type PlaceSize,
  type PlaceSpot,
} from './site/footprint';
export { fromWgs84, toWgs84, type GeoOrigin } from './site/geojson';
export {
  areaOf,
  clearance,
  crossesItself,
  distance,
  inRing,
  lengthOf,
  middleOf,
  pointToStretch,
  rectangle,
  ringsOverlap,
  sidesOf,
  stretchesCross,
  type Outline,
  type Point,
} from './site/shapes';
export {
  alignMoves,
  alignments,
  arrayMoves,
  boxAround,
  boxOf,
  snapMove,
  type Alignment,
  type Box,
} from './site/snap';
export { readAngle } from './site/readAngle';
export { walkingWay } from './site/walkingWay';

// weather: days measured, made and still to come
export { airAtMidday, dryingMinutes, vapourPressureDeficit } from './weather/vapour';
export { budburstThermalTime } from './weather/budburst';
export {
  FEWEST_PAIRS,
  coverKinds,
  fitCover,
  startingCovers,
  type CoverFit,
  type CoverKind,
  type CoverPair,
} from './weather/covers';
export { degreeDays, sineAbove, type DayTemps } from './weather/degreeDays';
export { weatherOutlook, type Outlook, type Site, type WeatherYear } from './weather/ensemble';
export {
  extraterrestrialRadiation,
  hargreaves,
  referenceEvapotranspiration,
  type EvaporationDay,
} from './weather/evapotranspiration';
export { generateWeather } from './weather/generator';
export { CHILL_HIGH_C, CHILL_LOW_C, hoursBetween } from './weather/hoursBetween';
export { HORIZON_DAYS, LastFew, knownWeather, type KnownWeather } from './weather/known';
export { fitNormals, roughNormals, waveAt, type Normals, type Wave } from './weather/normals';
export {
  FEWEST_HOURS,
  checkReadings,
  daysFromReadings,
  daysLeftOut,
  readingFlags,
  type HourReading,
  type ReadDays,
  type ReadingFlag,
  type StationDayRead,
} from './weather/readings';
export {
  guessStationColumns,
  readStationDay,
  type StationColumns,
  type StationDay,
} from './weather/readStation';
export {
  eventLimits,
  lotsAtRisk,
  seasonCourses,
  seasonSums,
  vapourDeficitKpa,
  weatherEventKinds,
  weatherEvents,
  type ExposedLot,
  type SeasonCourse,
  type SeasonSum,
  type WeatherEvent,
  type WeatherEventKind,
} from './weather/season';
export { lastDay, measuredDays, seriesFrom, type WeatherDay, type WeatherSeries } from './weather/series';
export {
  GROWTH_BASE_C,
  dailyOn,
  ribbonDays,
  tempsOn,
  warmthFor,
  warmthOf,
  type Daily,
  type RibbonDay,
  type Warmth,
} from './weather/sums';

export { freezeThroughHours } from './weather/freezing';
export {
  growingPeriods,
  growsOn,
  seasonsOf,
  type GrowingPeriod,
  type PlantSeason,
} from './weather/growingPeriods';

// light: sun and shadow on the plan
export {
  SUN_STEP_MIN,
  directSunHours,
  distanceToFace,
  openSky,
  sunAt,
  sunPath,
  sunReaching,
  type DirectSun,
  type Face,
  type SunStep,
} from './light/sunHours';
export {
  brightestSpots,
  coverPasses,
  facesOf,
  growingMonths,
  inLeaf,
  lightLosses,
  shadows,
  yardLight,
  type LightLoss,
  type LightSite,
  type LightSpot,
  type SpotLight,
} from './light/yardLight';

// ledger: where every tree is
export {
  accounts,
  balancesAt,
  causeTerms,
  causesByHand,
  growingLosses,
  countToMovements,
  inForce,
  outCauses,
  liftedOf,
  tallyAt,
  type Account,
  type CauseTerms,
  type Movement,
  type OutCause,
  type Tally,
} from './ledger/ledger';
export { goneInMoving, movingToMovements, type RootsMoving } from './ledger/moving';
export { isPast, PAST_AFTER_DAYS } from './ledger/past';

// growth: how large a plant gets: the model
export { doubtOf, shrunk, type Doubt } from './growth/doubtful';
export { learnFrom, learntFigures, type Learnt, type LearntFigure, type LotTaught } from './growth/learnt';
export {
  DIAMETER_LIMIT_MM,
  HEIGHT_LIMIT_CM,
  guessMeasurementColumns,
  readMeasuredPlant,
  type MeasuredPlant,
  type MeasurementColumns,
} from './growth/readMeasurements';
export { sampleSize, summarise, type SampleSummary } from './growth/sample';
export { bedSpots, cellSpots, trayGrid, type BedSpot, type CellSpot } from './growth/samplePlan';
export { LATER_SHAPE, seasonShare, seasonTime, sizeAfterSeasons, type SeasonGrown } from './growth/seasons';
export {
  MODEL_SD,
  SEASON_SD,
  drawSizes,
  factorLog,
  pooledCv,
  sizeBelief,
  type SizeBelief,
  type SizeSample,
} from './growth/sizeBelief';
export {
  grownOver,
  sizeOn,
  warmInSeason,
  warmthToSize,
  type Cut,
  type GrowthCurve,
  type Stretch,
  type WarmthCourse,
} from './growth/stretches';

// roots: how roots fill and look
export { chanceHigher, compareRoots, type GroupResult, type RootGroup } from './roots/compareRoots';
export {
  PULL_CAP,
  lotVerdict,
  usualRootRules,
  usualTerms,
  type LotVerdict,
  type PulledPlant,
} from './roots/lotVerdict';
export { UnfitPicture, measurePhoto, type PhotoOf, type PhotoReading } from './roots/photo/photoMeter';
export type { Picture } from './roots/photo/picture';
export { dicksonQualityIndex, type DryPlant } from './roots/qualityIndex';
export { radialBalance, type RadialBalance } from './roots/radialBalance';
export { pathShares, plugScoreOf, rootFigures, type RootFigure, type RootFigures } from './roots/rootFigures';
export {
  linearIn,
  BOUND_FILL,
  FULLEST_FILL,
  READY_FILL,
  rootClock,
  rootFill,
  rootsAfter,
  type RootClock,
  type RootFill,
  type RootParameters,
} from './roots/rootFill';
export {
  depthBands,
  rootPaths,
  tapForms,
  tipColours,
  turnedPaths,
  type DepthBand,
  type LateralRoot,
  type PlantSizes,
  type PlugSeen,
  type QuickLook,
  type RootPath,
  type RootPlant,
  type TapForm,
  type TipColour,
} from './roots/rootPlant';
export {
  canJudge,
  meets,
  rootSchools,
  scorePlant,
  startingScorecards,
  type Criterion,
  type PlantScore,
  type RootSchool,
  type Scorecard,
} from './roots/scorecard';
export {
  sequentialPlan,
  sequentialVerdict,
  type SequentialCall,
  type SequentialPlan,
  type SequentialTerms,
  type SequentialVerdict,
} from './roots/sequentialPlan';
export {
  SCORE_FILL,
  SCORE_SD,
  VIGOUR_SD_LOG,
  plugScores,
  vigourPosterior,
  type CellSpell,
  type PlugScore,
  type Pull,
  type VigourPosterior,
} from './roots/vigour';

// water: drip and the bucket balance
export {
  DEFAULT_DRY_DOWN,
  bucketHolds,
  cropCoefficient,
  runBalance,
  waterPlan,
  waterYears,
  type BalanceRun,
  type Bucket,
  type ProgrammeWeek,
  type WaterPlan,
  type WaterYear,
} from './water/balance';
export { evaporationAhead, type EvaporationAhead } from './water/evaporationAhead';
export { dripGrid, type DripChoice, type DripGrid } from './water/dripGrid';
export {
  LEAST_UNIFORMITY_PCT,
  lateralUniformity,
  longestLateral,
  type Lateral,
  type LateralFlow,
} from './water/lateralUniformity';
export { dripParts, zoneRun, type DripParts, type Thirst, type ZoneRun } from './water/programme';
export { waterFault, type WaterFault, type WaterReading } from './water/response';
export { USABLE_SUPPLY, bucketTest, zonesFor, type Drawing, type Zone } from './water/supply';

// seed: seed in store and under treatment, before it is sown
export { readGermination, type DailyCount, type GerminationReading } from './seed/germinationTest';
export {
  passportColumns,
  passportLine,
  readSeedLot,
  seedLotColumns,
  seedLotLine,
  type Provenance,
  type SeedLotRecord,
} from './seed/passport';
export { planTreatment, type TreatmentPlan } from './seed/planTreatment';
export {
  firstRadicles,
  lotFromLooks,
  radicleShare,
  wakeSeed,
  type Look,
  type Spell,
  type Woken,
} from './seed/waking';
export {
  mustAgree,
  mustHold,
  seedHeld,
  takenByCount,
  takenByMass,
  type SeedHeld,
  type SeedMove,
} from './seed/seedStore';
export {
  DEAD_SHARE,
  FRESH_WEIGHT,
  TEST_WEIGHT,
  mustBeTest,
  testKinds,
  viabilityAt,
  viabilityCurve,
  viabilityOutlook,
  viabilityPosterior,
  type SeedTest,
  type StoredLot,
  type TestKind,
  type Viability,
  type ViabilityOutlook,
  type ViabilityPosterior,
} from './seed/seedViability';
export { meanTempOn, type BatchStore } from './seed/storeTemperature';
export {
  coldWeight,
  dayCounts,
  runClock,
  treatmentClock,
  warmWeight,
  type ClockRun,
  type RadicleCheck,
  type TemperatureOf,
  type TreatmentClock,
  type TreatmentFacts,
} from './seed/treatmentClock';
export { viabilityAfter, type StoredSeed } from './seed/viability';

// sowing: how much to sow, and how it comes up
export {
  bedSowing,
  collarAtDensity,
  densityForCollar,
  sowingWays,
  type BedSowing,
  type BedSowingPlan,
  type SowingWay,
  rowSpacingFor,
} from './sowing/bedSowing';
export { chanceAtLeast, logBeta, massesOf } from './sowing/betaBinomial';
export {
  bestSeedsPerCell,
  cellOutcome,
  seedsPerCellTable,
  type CellCosts,
  type CellOutcome,
  type CellSowing,
  type SeedsPerCellRow,
} from './sowing/cellOutcome';
export {
  chanceMeanHigher,
  chancesBest,
  compareShares,
  type Arm,
  type MeanOf,
  type ShareComparison,
} from './sowing/compareTreatments';
export {
  emergedShare,
  fitEmergence,
  isLate,
  warmthToShare,
  type EmergenceCount,
  type EmergenceFit,
  type EmergencePrior,
  type WeibullCurve,
} from './sowing/emergenceCurve';
export { emergenceOutlook, meanWarmth, type EmergenceOutlook, type UpBy } from './sowing/emergenceOutlook';
export { lotShares, type LotShares } from './sowing/lotShares';
export {
  seedsToSow,
  sowingOutlook,
  type SowingOutlook,
  type SowingQuestion,
  treesFrom,
} from './sowing/seedsToSow';
export { sowingPlan, type SowingAsk, type SowingChain, type SowingPlan } from './sowing/sowingPlan';

// propagation: cuttings and layers
export {
  layerOutlook,
  mustFitBranch,
  ringDoubt,
  ringLength,
  type LayerOutlook,
  type LayerSeason,
} from './propagation/airLayer';
export {
  cuttingDoubts,
  type CuttingDoubt,
  cuttingLength,
  cuttingPlan,
  rootingForecast,
  stockYield,
  type CuttingAsk,
  type CuttingCut,
  type CuttingPlan,
  type StockPlants,
} from './propagation/cuttings';

// lifting: when bare-root trees may be lifted
export { cullReasons, type CullReason, type Culls } from './lifting/culls';
export { batchIn, exposureAt, type Exposure, type ExposureState } from './lifting/exposureClock';
export { gradesOverlap, readGrade } from './lifting/grades';
export {
  trenchClasses,
  trenchRoom,
  trenchWanted,
  treesThatFit,
  usualTrench,
  type Heeled,
  type TrenchRoom,
} from './lifting/trench';
export { HEIGHT_COLLAR, type GradeClass, type GradeOutlook, type ThinRule } from './lifting/gradeOutlook';
export { gradesAhead, type GradeAsk } from './forecast/gradesAhead';
export { keepsUntil, USUAL_STORE_C, type ColdStore, type Keeps } from './lifting/storeClock';
export { liftingSchedule, type LotToLift } from './lifting/liftingSchedule';
export { DOWNPOUR_MM, DRYING_MINUTES, type Hands, type UnfitFor } from './lifting/liftingDays';
export { liftingOdds, type LiftingOdds } from './lifting/liftingOdds';
export { heightOfGrade, ONE_LIFTS_KG, packingOf, type Crate, type Packed } from './lifting/packing';
export { BEFORE_BUDBURST_DAYS, liftingWindow, type LiftingWindow } from './lifting/liftingWindow';

// growing: growing on: work done to a standing lot, and what befalls it
export { CROWN_RATIO, canopyCover, meetingHeightCm, neighbourMm } from './growing/canopy';
export {
  INOCULATE_FROM_DAYS,
  INOCULATE_UNTIL_DAYS,
  careKinds,
  carriesNodules,
  inoculumSources,
  nodulesRecipe,
  stakeKinds,
  weedings,
  type CareDone,
  type CareKind,
} from './growing/care';
export { causeOfEvent, eventKinds, shareOverLots, type EventKind, type LotHit } from './growing/events';
export { releaseChoice, type RunOut } from './growing/feedChoice';
export {
  containerFigures,
  containerSuitability,
  holdingWarmth,
  plantingSites,
  type ContainerFigures,
  type HoldingWarmth,
  type PlantingSite,
  type Reason,
  type Suitability,
} from './growing/suitability';

// forecast: a lot’s future, every weather year times every draw
export { apartAt, feedRunOut, lastPruned } from './forecast/careSeen';
export {
  AHEAD_DAYS,
  coverageOf,
  disagreement,
  pastForecasts,
  type Coverage,
  widening,
  type Disagreement,
  type Held,
  type Widening,
} from './forecast/coverage';
export { foretold, type Foretold } from './forecast/foretold';
export { emergenceClock, emergenceOf, type Emergence } from './forecast/emergence';
export {
  MEASURE_MARGIN,
  plantsToMeasure,
  forecastLot,
  type ForecastOptions,
  type LotCourse,
  type SeasonEnd,
  type LotForecast,
} from './forecast/forecast';
export { plantCv, type LotState } from './forecast/lotAhead';
export type { LotFacts } from './forecast/lotFacts';
export { factsAt, homesOf } from './forecast/lotHomes';
export {
  holdOrMove,
  holdTogether,
  type BedHold,
  type BedLot,
  type BedWay,
  type Choice,
  type ChoiceValue,
  type HoldOrMove,
  type HoldTerms,
  type PriceStep,
  type SeasonHeights,
} from './forecast/holdOrMove';
export { plantYears, stretchesOf, type PlantYear } from './forecast/plantYears';
export { curveWith, middleCurve, scaleFor, type Sized } from './forecast/sizeRuns';
export {
  EMERGENCE_GRACE_DAYS,
  HOLDING_DAYS,
  standingOf,
  type Decision,
  type Standing,
  type Status,
} from './forecast/standing';
export { TEACHES_AFTER_DAYS, teachingOf, type Teaching } from './forecast/teaching';
export { FEWEST_LOTS, lessonsOf, type Lesson, type LotTeaching } from './forecast/lessons';
export { feltWeather, pastWeather, type FeltWeather } from './forecast/underCover';

// today: what is to be done
export { actWords, rootActWords, seedActWords, type ActWords } from './today/actWords';
export {
  agendaOf,
  restUntil,
  type ActMark,
  type Agenda,
  type AgendaItem,
  type AgendaLine,
  type RuleTuning,
  type Tuning,
} from './today/agenda';
export { MEASURE_EVERY_DAYS, actsFor, ruleNames, type Act, type RuleName } from './today/lotActs';
export { isRising, lotAsks } from './today/lotAsks';
export { leavesSoon, rootActs, type JudgedLot, type RootAct, type RootCall } from './today/rootActs';
export { ruleTerms, todayRules, type RuleTerms, type TodayRule } from './today/rules';
export { RADICLE_DAYS, batchActs, emergenceActs, layerActs, storeActs, type SeedAct } from './today/seedActs';
export {
  askedTogether,
  itemsOf,
  itemsOfLot,
  todayOf,
  type LotAsks,
  type SeedAsk,
  type TodayItem,
  type TodayKnown,
} from './today/todayOf';
export {
  minutesFor,
  startingRates,
  workKinds,
  workRates,
  type LearntRate,
  type WorkDone,
  type WorkKind,
  type WorkRate,
} from './today/work';

// capacity: what a yard holds
export { benchLayout, type BenchLayout, type BenchLoad, type LaidTray } from './capacity/benchLayout';
export { benchLoad, yardCapacity, type YardCapacity } from './capacity/yardCapacity';

// reading: rows of the wire read into facts of the core
export {
  boardRow,
  couldGive,
  fillTogether,
  overFull,
  planSowing,
  roomFor,
  staysOf,
  type BoardSpan,
  type SowingAim,
  type Stay,
} from './reading/board';
export { findPlaces } from './reading/findPlaces';
export { planChange } from './reading/planChange';
export { asideByLine, asideByParcel, lyingParcels, wantedLines } from './reading/lyingParcels';
export {
  paidForLiving,
  yearBySpecies,
  yearSums,
  yearWorth,
  type YearSums,
  type YearWorth,
} from './reading/yearReport';
export { coldStores, storeAsks } from './reading/storeAsks';
export { planAsks } from './reading/planAsks';
export { cashByMonth, needsOf, stepsOf, treatmentsOf, waterPeak, type PlanStep } from './reading/planLists';
export { occupantOf, standingStay, takesRoom, type StandingLot } from './reading/standingLots';
export {
  openLines,
  staysPut,
  type SeasonLine,
  type SeasonNursery,
  type SeasonTerms,
} from './reading/seasonNursery';
export { roomOfPlace } from './reading/placeKinds';
export {
  costParts,
  costPerTree,
  costTerms,
  sowingCost,
  waterInWeek,
  type CostPart,
  type SowingCost,
} from './reading/sowingCost';
export { stockPlants, takenThisSeason } from './reading/propagules';
export { runSeason, type SeasonProgress } from './reading/runSeason';
export { factsFrom, homeOf, type HomeStage, type Lookup } from './reading/factsFrom';
export { givenNames } from './reading/givenNames';
export { lookupFrom } from './reading/lookupFrom';
export { noEvidence } from './reading/noEvidence';
export {
  ownShareOf,
  routeLot,
  routesOf,
  seedSleeps,
  startingRoutes,
  USUAL_DENSITY,
} from './reading/routeLot';
export { markedUntil, todayKnown } from './reading/marks';
export { occupancyOf, shareLeft, type BedStretch, type Occupancy, type Occupant } from './reading/occupancy';
export { risingFacts, upBy, type RisingFacts } from './reading/risingFacts';
export {
  lastLook,
  roomAsks,
  roomOutlooks,
  roomToday,
  seedRecordsOf,
  storedLot,
  treatmentFacts,
  type KnownRoom,
  type RoomOutlooks,
  type SeedRecordOf,
} from './reading/roomFacts';
export { yardFromGeoJson, yardToGeoJson, type ReadYard, type YardCollection } from './reading/yardGeoJson';
export {
  freeToPromise,
  servePromises,
  type Promised,
  type Serving,
  type StandingStock,
} from './plan/freeToPromise';
export {
  sowingWindow,
  weeksOfSowing,
  type SowingPoint,
  type SowingRuns,
  type WeeksOfSowing,
} from './plan/sowingWindow';
export {
  formOfRoute,
  plantsByStage,
  routeStarts,
  stageEnds,
  type RouteStart,
  type StageEnd,
  type StagePlan,
} from './plan/route';
export { liesIn, parcelMeets, promisableParcel, type LyingParcel } from './plan/parcelStock';
export {
  learntShares,
  nothingLearnt,
  stageKindOf,
  stageWorks,
  workOfStage,
  type RaisedLot,
  type RaisingLearnt,
} from './plan/raisingLearnt';
export {
  pointOf,
  sowRoute,
  worthSowing,
  type RouteLot,
  type RoutePoint,
  type RouteSowing,
  type TreesWanted,
} from './plan/routeSowing';
export {
  answerAsk,
  mightServe,
  promisable,
  type PromisableLot,
  type PromiseAnswer,
  type PromiseAsk,
} from './plan/promisable';
export {
  claimOf,
  formOf,
  formOfCell,
  heldBy,
  mayServe,
  lineStates,
  POT_FROM_ML,
  rivalsOf,
  treeForms,
  type LineState,
  type SizeWanted,
  type TreeForm,
  type WantedLine,
} from './plan/orderLine';
export { orderColumns, orderTableLine, readOrderLine, type TableLine } from './plan/orderTable';
export {
  deathCauses,
  guardNames,
  guards,
  livingOf,
  noneFound,
  plantingGrounds,
  stakes,
  treeStateNames,
  treeStates,
  type DeathCause,
  type Found,
  type Guard,
  type PlantingGround,
  type Stake,
  type TreeState,
} from './survival/trees';
export { drawWalk, everyTree, placeInRows, walkSize, type WalkTrees } from './survival/drawWalk';
export {
  chanceBetter,
  SURVIVAL_LEVEL,
  survivalGroups,
  treesToTell,
  type SurvivalCase,
  type SurvivalGroup,
  type SurvivalGroups,
} from './survival/survivalGroups';
export {
  collarExcess,
  guardHeat,
  heatLimitsC,
  heatRisk,
  SCORCH_C,
  type GuardHeat,
  type HeatDay,
} from './survival/collarHeat';
export {
  cornersAt,
  mustBePlace,
  outlineM2,
  outlineMetres,
  outlineMiddle,
  readOutline,
  type Corner,
} from './survival/outline';
export { livingNow, nextPlanting, walkDue, type LivingNow } from './survival/livingNow';
export {
  goneOf,
  HEAT_DAYS,
  lastHeatDays,
  comparedBy,
  placesBefore,
  placesToReplace,
  plantedCases,
  plantingAsks,
  plantingSeen,
  sizeClassOf,
  type ComparedBy,
  type PlantedCase,
  type PlantingSeen,
} from './reading/plantingsSeen';
export type { PlantingAsk } from './today/plantingAsk';
export { storeSigns, type StoreAsk, type StoreSign } from './today/storeAsk';
export { perLiving } from './survival/perLiving';
export { SAMPLE_TELLS_DAYS, sizeAtPlanting } from './reading/sizeAtPlanting';
export {
  SIZED_TREES,
  survivalAt,
  survivalBySize,
  type SizeAtPlanting,
  type SizedCase,
  type SizeUntold,
  type SurvivalBySize,
} from './survival/survivalBySize';
export {
  arrivalFaults,
  arrivalKinds,
  mustAddUp,
  supplierRecords,
  type ArrivalFault,
  type ArrivalKind,
  type SupplierRecord,
} from './propagation/arrival';
export {
  holdCauses,
  holdCovers,
  holdNoteNames,
  holdState,
  LIGHT_STEPS,
  mustBeStep,
  OPENINGS,
  type HoldCause,
  type HoldCover,
  type HoldNote,
  type HoldState,
  type HoldStep,
} from './growing/humidityHold';
export { holdAsks, stateOfHold, throughHolds } from './reading/holdAsks';

// unsent: what a nursery is once the writes kept on a device are taken in
export { bookAhead } from './unsent/bookAhead';
export { entriesOf, lotsOf, lotsOfAny, type HeldRoute, type HeldWrite } from './unsent/heldWrite';
export { lotAhead, type LotKnown } from './unsent/lotAhead';
