import { inSentence, say } from '../speech/say';
import { dayOf, type EpochDay } from '../calendar/day';
import type { Look, Parcel, Species } from '../contract';
import { FROZEN_AFTER_DAYS } from '../lifting/liftingDays';
import { USUAL_STORE_C, type ColdStore, type Keeps } from '../lifting/storeClock';
import type { SiteElement } from '../site/elements';
import type { HeatDay } from '../survival/collarHeat';
import type { StoreAsk } from '../today/storeAsk';

/** Lifted trees are looked at so often, days; oftener once something was seen, or their time is near. Rules of thumb. */
const LOOK_DAYS = 14;
const OFTEN_DAYS = 7;
/** They are asked to leave so long before their time, days. */
const LEAVE_DAYS = 28;
/** Past their time by so much, days, they are taken to be gone from there: nobody is sent to look at or cover them. */
const FORGOTTEN_DAYS = 42;
/** Trees whose time is so near to the first are asked for with them, days. */
const TOGETHER_DAYS = 14;

/** Cold stores of the site by name, each at what was measured in it last. */
export function coldStores(
  elements: readonly Pick<SiteElement, 'kind' | 'name'>[],
  looks: readonly Look[],
): ReadonlyMap<string, ColdStore> {
  const stores = new Map<string, ColdStore>();
  for (const { kind, name } of elements) {
    if (kind !== 'cold-store' || !name) continue;
    const measured = lastLook(looks, name, ({ tempC }) => tempC !== null);
    stores.set(name, { coldC: measured?.tempC ?? USUAL_STORE_C, isMeasured: measured !== null });
  }
  return stores;
}

/** The last look at a place, of those that count. */
function lastLook(
  looks: readonly Look[],
  place: string,
  counts: (look: Look) => boolean = () => true,
): Look | null {
  return looks.reduce<Look | null>(
    (last, look) =>
      look.place === place && counts(look) && (last === null || look.on >= last.on) ? look : last,
    null,
  );
}

/**
 * What lifted trees ask for on a day where they lie: to be looked at, to leave before their time, to be covered in frost.
 * @param keeps until when each parcel keeps
 * @param weather days measured up to that one
 */
export function storeAsks(
  {
    parcels,
    looks,
    stores,
    species,
    keeps,
    weather,
  }: {
    parcels: readonly Parcel[];
    looks: readonly Look[];
    stores: ReadonlyMap<string, ColdStore>;
    species: ReadonlyMap<string, Pick<Species, 'common'>>;
    keeps: ReadonlyMap<string, Keeps>;
    weather: readonly HeatDay[];
  },
  day: EpochDay,
): StoreAsk[] {
  const places = new Map<string, Parcel[]>();
  for (const parcel of parcels)
    if (parcel.held > 0 && dayOf(parcel.since) <= day)
      places.set(parcel.place, [...(places.get(parcel.place) ?? []), parcel]);
  const known = looks.filter(({ on }) => dayOf(on) <= day);
  return [...places].flatMap(([place, all]): StoreAsk[] => {
    const asks: StoreAsk[] = leaving(all, keeps, species, day);
    const lying = all.filter(({ id }) => day - (keeps.get(id)?.until ?? day) <= FORGOTTEN_DAYS);
    if (!lying.length) return asks;
    const at = { parcelId: lying[0].id, place, trees: treesOf(lying) };
    const since = Math.min(...lying.map((parcel) => dayOf(parcel.since)));
    const last = lastLook(known, place);
    const looked = last && dayOf(last.on) >= since ? dayOf(last.on) : null;
    const signs = looked === null ? [] : last!.seen;
    const often = signs.length > 0 || asks.length > 0;
    const due = (looked ?? since) + (often ? OFTEN_DAYS : LOOK_DAYS);
    if (due <= day) asks.push({ ...at, kind: 'look', due, last: looked, signs, since });
    const on = frozenOn(weather);
    if (on !== null && !stores.has(place)) asks.push({ ...at, kind: 'frost', on });
    return asks;
  });
}

const treesOf = (parcels: readonly Parcel[]) => parcels.reduce((sum, { held }) => sum + held, 0);

/** Trees of one place whose time is near, each species together. */
function leaving(
  lying: readonly Parcel[],
  keeps: ReadonlyMap<string, Keeps>,
  species: ReadonlyMap<string, Pick<Species, 'common'>>,
  day: EpochDay,
): StoreAsk[] {
  const bySpecies = new Map<string, { parcel: Parcel; keeps: Keeps }[]>();
  for (const parcel of lying) {
    const until = keeps.get(parcel.id);
    if (until)
      bySpecies.set(parcel.speciesId, [...(bySpecies.get(parcel.speciesId) ?? []), { parcel, keeps: until }]);
  }
  return [...bySpecies].flatMap(([speciesId, all]): StoreAsk[] => {
    const first = all.reduce((a, b) => (b.keeps.until < a.keeps.until ? b : a));
    if (first.keeps.until - day > LEAVE_DAYS) return [];
    const trees = treesOf(
      all.filter((one) => one.keeps.until <= first.keeps.until + TOGETHER_DAYS).map(({ parcel }) => parcel),
    );
    const name = inSentence(species.get(speciesId)?.common ?? say`trees`);
    return [
      {
        parcelId: first.parcel.id,
        place: first.parcel.place,
        trees,
        kind: 'leave',
        name,
        keeps: first.keeps,
      },
    ];
  });
}

/** The last of three days together whose mean lies below freezing; null where they do not, or are not all measured. */
function frozenOn(weather: readonly HeatDay[]): EpochDay | null {
  if (weather.length < FROZEN_AFTER_DAYS) return null;
  const last = [...weather].sort((a, b) => b.day - a.day).slice(0, FROZEN_AFTER_DAYS);
  const mean = last.reduce((sum, { tMinC, tMaxC }) => sum + (tMinC + tMaxC) / 2, 0) / last.length;
  return mean < 0 ? last[0].day : null;
}
