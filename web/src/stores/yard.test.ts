import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { useYard } from './yard';

/* eslint-disable @typescript-eslint/no-explicit-any */
const world = vi.hoisted(() => ({ call: vi.fn() }) as Record<string, any>);
vi.mock('../api/client', () => ({ call: world.call }));
vi.mock('./nursery', () => ({ useNursery: () => world.nursery }));

/** A server that gives every place a version, and refuses what is not of the version it has. */
function aServer() {
  const versions = new Map<string, number>();
  return async (name: string, { body }: { body: any }) => {
    if (name !== 'arrangeYard') return {};
    for (const { id, version } of [...body.moved, ...body.removed])
      if (versions.get(id) !== version) throw new Error(`${id} was changed meanwhile`);
    for (const { id } of body.removed) versions.delete(id);
    const touched = [...body.added, ...body.moved].map((part: any) => {
      versions.set(part.id, (versions.get(part.id) ?? 0) + 1);
      return { id: part.id, version: versions.get(part.id), place: part.place ?? spot(part.eastM) };
    });
    return { site: { version: 1 }, places: touched, removed: body.removed.map(({ id }: any) => id) };
  };
}
const spot = (eastM: number) => ({ name: 'Bed', eastM, northM: 0, angleDeg: 0 });
const here = () => [...world.nursery.lookup.places.keys()];

beforeEach(() => {
  setActivePinia(createPinia());
  const places = new Map<string, any>();
  world.nursery = {
    params: { nursery: 'n' },
    lookup: { places },
    takePlace: (place: any) => places.set(place.id, place),
    dropPlace: (id: string) => places.delete(id),
    reloadCatalogue: vi.fn(async () => undefined),
  };
  world.call.mockReset();
  world.call.mockImplementation(aServer());
});

describe('edits of the yard', () => {
  it('are undone and made again, also before the first of them was answered', async () => {
    const yard = useYard();
    const added = ['a', 'b'].map((id) => ({ id, place: spot(1) as any }));
    // Undone at once: the places have no version of the server’s yet when it is asked for.
    const [made, undone] = [yard.make({ words: 'add', added }), yard.undo()];
    expect(await made).toBe(true);
    await undone;
    expect(yard.fault).toBeNull();
    expect(here()).toEqual([]);
    await yard.redo();
    expect(here()).toEqual(['a', 'b']);
    const moved = [{ id: 'a', before: spot(1), after: spot(5) }] as any;
    await Promise.all([yard.make({ words: 'move', moved }), yard.undo()]);
    expect(yard.fault).toBeNull();
    expect(world.nursery.lookup.places.get('a').place.eastM).toBe(1);
  });
  it('that are refused are shown as the server has them, and cannot be undone', async () => {
    const yard = useYard();
    world.call.mockRejectedValueOnce(new Error('There is already a place of that name.'));
    expect(await yard.make({ words: 'add', added: [{ id: 'a', place: spot(1) as any }] })).toBe(false);
    expect(yard.fault).toBe('There is already a place of that name.');
    expect(world.nursery.reloadCatalogue).toHaveBeenCalled();
    expect(yard.done).toEqual([]);
  });
});
