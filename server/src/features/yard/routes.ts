import { lastChange } from '../../db/journal';
import { workOf } from '../../nursery/work';
import { asc, eq } from 'drizzle-orm';
import { bedDesign, nursery } from '../../db/schema/index';
import type { KeptSite } from '@kauri/core/contract';
import type { yardRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { arrangeYard } from './arrange';
import { catalogueOf } from './catalogue';
import { checkPlace, checksOf } from './checks';
import { addDesign, designVersions, editDesign, toDesign } from './designs';
import { addContainer, addMedium, editContainer, editMedium, moveStock, stockOf } from './kinds';
import { addPlace, editPlace } from './places';
import { keepValue, readValue } from '../../nursery/values';

export const yardHandlers: HandlersOf<typeof yardRoutes> = {
  day: async (call) => ({
    today: (await workOf(call)).today,
    changed: await lastChange(call.tx, call.nurseryId),
  }),

  async catalogue({ tx, nurseryId, role, server }) {
    const [home] = await tx.select().from(nursery).where(eq(nursery.id, nurseryId));
    const catalogue = await catalogueOf(tx, nurseryId);
    const designs = await tx
      .select()
      .from(bedDesign)
      .where(eq(bedDesign.nurseryId, nurseryId))
      .orderBy(asc(bedDesign.name));
    const prices = await readValue({ tx, nurseryId }, 'prices');
    const { id, name, placeName, latitudeDeg, longitudeDeg, elevationM, timeZone, units } = home;
    return {
      nursery: {
        id,
        name,
        placeName,
        latitudeDeg,
        longitudeDeg,
        elevationM,
        timeZone,
        units,
        today: server.today(timeZone),
      },
      role,
      ...catalogue,
      designs: designs.map(toDesign),
      prices: { version: prices.version, list: prices.value },
    };
  },

  addPlace: async (call) => addPlace(await workOf(call), call.body.id, call.body.place),
  editPlace: async (call) =>
    editPlace(await workOf(call), call.params.place, call.body.version, call.body.place),

  site: async (call) => siteAnswer(await readValue(call, 'site')),
  arrangeYard: async (call) => arrangeYard(await workOf(call), call.body),
  setPrices: async (call) => {
    const kept = await keepValue(await workOf(call), 'prices', call.body.version, call.body.list);
    return { version: kept.version, list: kept.value };
  },
  addDesign: async (call) => addDesign(await workOf(call), call.body.id, call.body),
  editDesign: async (call) =>
    editDesign(await workOf(call), call.params.design, call.body.version, call.body),
  designVersions: async (call) => designVersions(await workOf(call), call.params.design),
  checks: async (call) => ({ checks: await checksOf(call) }),
  checkPlace: async (call) => checkPlace(await workOf(call), call.params.place, call.body),
  addContainer: async (call) => addContainer(await workOf(call), call.body),
  editContainer: async (call) => editContainer(await workOf(call), call.params.container, call.body),
  addMedium: async (call) => addMedium(await workOf(call), call.body),
  editMedium: async (call) => editMedium(await workOf(call), call.params.medium, call.body),
  stock: async (call) => ({ rows: await stockOf(call) }),
  moveStock: async (call) => moveStock(await workOf(call), call.params.medium, call.body),
};

function siteAnswer({ version, value }: Awaited<ReturnType<typeof readValue<'site'>>>): KeptSite {
  return { version, plan: value } as KeptSite;
}
