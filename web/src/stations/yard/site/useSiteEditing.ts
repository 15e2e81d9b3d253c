import {
  alignMoves,
  arrayMoves,
  boxAround,
  boxOf,
  cornersOf,
  middleOfPlace,
  spotAbout,
  type Alignment,
  type Box,
  type ElementKind,
  type Point,
  type SiteElement,
  say,
} from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, ref } from 'vue';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { useYard, type Spot, type YardEdit } from '../../../stores/yard';
import { freeName, newElement } from './newThing';

const tidy = (m: number) => Math.round(m * 1000) / 1000;
const shift = (points: readonly Point[], [de, dn]: Point): Point[] =>
  points.map(([e, n]) => [tidy(e + de), tidy(n + dn)]);
const spotOf = ({ eastM, northM, angleDeg }: PlaceBody): Spot => ({ eastM, northM, angleDeg });

/** What the plan's tools work with. */
export type SiteEditing = ReturnType<typeof useSiteEditing>;

/** Choosing and changing things on the site plan. Every change is one edit that can be undone. */
export function useSiteEditing() {
  const nursery = useNursery();
  const yard = useYard();
  const messages = useMessages();
  const chosen = ref<string[]>([]);

  const placeOf = (id: string) => nursery.lookup.places.get(id)?.place as PlaceBody | undefined;
  const elementOf = (id: string) => yard.elements.find((e) => e.id === id);
  const chosenPlaces = computed(() => chosen.value.filter((id) => placeOf(id)));
  const chosenElements = computed(() => chosen.value.filter((id) => elementOf(id)));
  const boxOfThing = (id: string): Box | null => {
    const place = placeOf(id);
    if (place) return boxOf(cornersOf(place));
    const element = elementOf(id);
    return element ? boxOf(element.points) : null;
  };
  const boxes = (ids: readonly string[]) => ids.map(boxOfThing).filter((b): b is Box => b !== null);

  function choose(id: string, more: boolean) {
    if (!more) chosen.value = [id];
    else
      chosen.value = chosen.value.includes(id)
        ? chosen.value.filter((other) => other !== id)
        : [...chosen.value, id];
  }

  async function make(edit: YardEdit) {
    const kept = await yard.make(edit);
    if (!kept && yard.fault) messages.say(yard.fault);
    return kept;
  }

  /** Changes the site's elements by a function; nothing is saved where nothing changes. */
  function editElements(change: (e: SiteElement) => SiteElement): YardEdit['elements'] & object {
    const before = yard.elements;
    return { before, after: before.map(change) };
  }

  /** Moves chosen things, each by its own way. */
  function moveBy(ids: readonly string[], ways: readonly Point[], words = say`Moved`) {
    const way = new Map(ids.map((id, i) => [id, ways[i] ?? ways[0]]));
    const moved = ids.flatMap((id) => {
      const place = placeOf(id);
      if (!place) return [];
      const [de, dn] = way.get(id)!;
      const before = spotOf(place);
      return [
        {
          id,
          before,
          after: { ...before, eastM: tidy(before.eastM + de), northM: tidy(before.northM + dn) },
        },
      ];
    });
    const elements = ids.some((id) => elementOf(id))
      ? editElements((e) => (way.has(e.id) ? { ...e, points: shift(e.points, way.get(e.id)!) } : e))
      : undefined;
    return make({ words, moved, elements });
  }

  function rotate(byDeg: number) {
    const moved = chosenPlaces.value.map((id) => {
      const place = placeOf(id)!;
      const angle = (((place.angleDeg + byDeg) % 360) + 360) % 360;
      return { id, before: spotOf(place), after: spotAbout(place, middleOfPlace(place), angle) };
    });
    const turn = (byDeg * Math.PI) / 180;
    const ids = new Set(chosenElements.value);
    const elements = ids.size
      ? editElements((e) => {
          if (!ids.has(e.id)) return e;
          const b = boxOf(e.points);
          const [me, mn] = [(b.west + b.east) / 2, (b.south + b.north) / 2];
          return {
            ...e,
            points: e.points.map(([x, y]) => {
              const [dx, dy] = [x - me, y - mn];
              return [
                tidy(me + dx * Math.cos(turn) - dy * Math.sin(turn)),
                tidy(mn + dx * Math.sin(turn) + dy * Math.cos(turn)),
              ] as Point;
            }),
          };
        })
      : undefined;
    if (moved.length || elements) return make({ words: say`Turned`, moved, elements });
  }

  /** Copies of the chosen things, each moved by one of the ways. */
  async function copies(ways: readonly Point[], words: string) {
    const names = [...nursery.catalogue!.places.map((p) => p.place.name)];
    const added = ways.flatMap(([de, dn]) =>
      chosenPlaces.value.map((id) => {
        const place = placeOf(id)!;
        const name = freeName(place.name, names);
        names.push(name);
        return {
          id: newId(),
          place: { ...place, name, eastM: tidy(place.eastM + de), northM: tidy(place.northM + dn) },
        };
      }),
    );
    const before = yard.elements;
    const labels = before.map((e) => e.name);
    const newElements = ways.flatMap((way) =>
      chosenElements.value.map((id) => {
        const e = elementOf(id)!;
        const name = freeName(e.name, labels);
        labels.push(name);
        return { ...e, id: newId(), name, points: shift(e.points, way) };
      }),
    );
    const elements = newElements.length ? { before, after: [...before, ...newElements] } : undefined;
    if (await make({ words, added, elements }))
      chosen.value = [...added.map((a) => a.id), ...newElements.map((e) => e.id)];
  }
  function duplicate() {
    const all = boxes(chosen.value);
    if (!all.length) return;
    const box = boxAround(all);
    return copies([[0, tidy(-(box.north - box.south) - 0.6)]], say`Duplicated`);
  }
  /** @throws Unfit with a sentence */
  function array(columns: number, rows: number, pathEastM: number, pathNorthM: number) {
    const box = boxAround(boxes(chosen.value));
    const ways = arrayMoves(box, columns, rows, pathEastM, pathNorthM).slice(1);
    return ways.length ? copies(ways, say`Set out`) : undefined;
  }
  function align(to: Alignment) {
    const ids = chosen.value.filter((id) => boxOfThing(id));
    if (ids.length > 1) return moveBy(ids, alignMoves(boxes(ids), to), say`Aligned`);
  }

  async function remove() {
    const removed = chosenPlaces.value.map((id) => ({ id, place: placeOf(id)! }));
    const ids = new Set(chosenElements.value);
    const before = yard.elements;
    const elements = ids.size ? { before, after: before.filter((e) => !ids.has(e.id)) } : undefined;
    if (!removed.length && !elements) return;
    const was = chosen.value;
    chosen.value = [];
    if (!(await make({ words: say`Taken away`, removed, elements }))) chosen.value = was;
  }

  async function addElement(kind: ElementKind, about: Point) {
    const before = yard.elements;
    const element = newElement(kind, about, before);
    if (await make({ words: say`Added`, elements: { before, after: [...before, element] } }))
      chosen.value = [element.id];
  }
  async function addPlace(place: PlaceBody) {
    const names = nursery.catalogue!.places.map((p) => p.place.name);
    const id = newId();
    if (
      await make({
        words: say`Added`,
        added: [{ id, place: { ...place, name: freeName(place.name, names) } }],
      })
    )
      chosen.value = [id];
  }
  function changeElement(id: string, change: Partial<SiteElement>) {
    return make({
      words: say`Changed`,
      elements: editElements((e) => (e.id === id ? { ...e, ...change } : e)),
    });
  }
  function placeAt(id: string, after: Spot) {
    const place = placeOf(id);
    if (place) return make({ words: say`Moved`, moved: [{ id, before: spotOf(place), after }] });
  }

  return {
    chosen,
    chosenPlaces,
    chosenElements,
    choose,
    moveBy,
    rotate,
    duplicate,
    array,
    align,
    remove,
    addElement,
    addPlace,
    changeElement,
    placeAt,
    boxOfThing,
    placeOf,
    elementOf,
  };
}
