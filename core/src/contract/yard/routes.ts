import { z } from 'zod';
import { Id, PlainDate } from '../basics';
import { atDesign, atMedium, inNursery, route } from '../route';
import { yardPaths as paths } from './paths';
import * as site from './site';
import * as yard from './schemas';

/** Yard: places, containers, media, plan. */
export const yardRoutes = {
  day: route(paths.day, 'visitor', 'Today’s date where the nursery stands, and what changed last in it', {
    params: inNursery,
    answer: z.object({ today: PlainDate, changed: Id.nullable() }),
  }),
  catalogue: route(paths.catalogue, 'visitor', 'The nursery, its places, species, containers and media', {
    params: inNursery,
    answer: yard.Catalogue,
  }),
  addPlace: route(paths.addPlace, 'grower', 'Add a bed or a bench', {
    params: inNursery,
    body: yard.NewPlace,
    answer: yard.Place,
  }),
  editPlace: route(paths.editPlace, 'grower', 'Change a bed or a bench', {
    params: z.object({ nursery: Id, place: Id }),
    body: yard.EditedPlace,
    answer: yard.Place,
  }),
  site: route(paths.site, 'visitor', 'The site plan', { params: inNursery, answer: site.KeptSite }),
  arrangeYard: route(
    paths.arrangeYard,
    'grower',
    'Change the plan: site, places moved, added and taken away',
    {
      params: inNursery,
      body: site.Arrangement,
      answer: site.Arranged,
    },
  ),
  setPrices: route(paths.setPrices, 'grower', 'Change what things cost', {
    params: inNursery,
    body: yard.EditedPrices,
    answer: yard.KeptPrices,
  }),
  addDesign: route(paths.addDesign, 'grower', 'Keep a bed design', {
    params: inNursery,
    body: yard.NewDesign,
    answer: yard.KeptDesign,
  }),
  editDesign: route(paths.editDesign, 'grower', 'Save a bed design as its next version', {
    params: atDesign,
    body: yard.EditedDesign,
    answer: yard.KeptDesign,
  }),
  designVersions: route(paths.designVersions, 'visitor', 'Every version of a bed design', {
    params: atDesign,
    answer: yard.DesignVersions,
  }),
  checks: route(paths.checks, 'visitor', 'Condition checks of places, newest first', {
    params: inNursery,
    answer: yard.Checks,
  }),
  checkPlace: route(paths.checkPlace, 'crew', 'Record the condition of a place', {
    params: z.object({ nursery: Id, place: Id }),
    body: yard.NewCheck,
    answer: yard.PlaceCheck,
  }),
  addContainer: route(paths.addContainer, 'grower', 'Add a container type', {
    params: inNursery,
    body: yard.NewContainer,
    answer: yard.ContainerType,
  }),
  editContainer: route(paths.editContainer, 'grower', 'Change a container type', {
    params: z.object({ nursery: Id, container: Id }),
    body: yard.EditedContainer,
    answer: yard.ContainerType,
  }),
  addMedium: route(paths.addMedium, 'grower', 'Add a medium', {
    params: inNursery,
    body: yard.NewMedium,
    answer: yard.Medium,
  }),
  editMedium: route(paths.editMedium, 'grower', 'Change a medium', {
    params: atMedium,
    body: yard.EditedMedium,
    answer: yard.Medium,
  }),
  stock: route(paths.stock, 'visitor', 'Medium in and out of the heaps', {
    params: inNursery,
    answer: yard.Stock,
  }),
  moveStock: route(paths.moveStock, 'crew', 'Record medium bought, mixed, filled or brought back', {
    params: atMedium,
    body: yard.NewStock,
    answer: yard.StockRow,
  }),
} as const;
