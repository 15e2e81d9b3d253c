import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { editsTogether } from './editsTogether';

const opened = {
  name: 'Bed 1',
  at: { eastM: 1, northM: 2 },
  lines: [
    { id: 'a', n: 1 },
    { id: 'b', n: 2 },
  ],
};

describe('two edits of one record', () => {
  it('go together where each changed something else, in parts and in lists too', () => {
    const mine = {
      ...opened,
      name: 'Bed one',
      lines: [
        { id: 'a', n: 5 },
        { id: 'b', n: 2 },
      ],
    };
    const theirs = {
      ...opened,
      at: { eastM: 1, northM: 9 },
      lines: [
        { id: 'a', n: 1 },
        { id: 'b', n: 3 },
        { id: 'c', n: 7 },
      ],
    };
    expect(editsTogether(opened, mine, theirs)).toEqual({
      record: {
        name: 'Bed one',
        at: { eastM: 1, northM: 9 },
        lines: [
          { id: 'a', n: 5 },
          { id: 'b', n: 3 },
          { id: 'c', n: 7 },
        ],
      },
      both: [],
    });
  });

  it('name what both changed to something else, and leave it as mine', () => {
    const mine = { ...opened, name: 'Mine', at: { eastM: 4, northM: 2 } };
    const theirs = { ...opened, name: 'Theirs', at: { eastM: 1, northM: 8 } };
    expect(editsTogether(opened, mine, theirs)).toMatchObject({
      record: { name: 'Mine', at: { eastM: 4, northM: 8 } },
      both: ['name'],
    });
    // One took a line away that the other changed.
    const without = { ...opened, lines: [{ id: 'b', n: 2 }] };
    const changed = {
      ...opened,
      lines: [
        { id: 'a', n: 9 },
        { id: 'b', n: 2 },
      ],
    };
    expect(editsTogether(opened, without, changed).both).toEqual(['lines.a']);
    expect(editsTogether(opened, changed, without).both).toEqual(['lines.a']);
  });

  it('of one alone are that one’s, and the same made twice is made once', () => {
    const record = fc.dictionary(
      fc.constantFrom('a', 'b', 'c'),
      fc.oneof(fc.integer(), fc.string(), fc.constant(null)),
    );
    fc.assert(
      fc.property(record, record, (before, after) => {
        expect(editsTogether(before, after, before).record).toEqual(after);
        expect(editsTogether(before, before, after).record).toEqual(after);
        expect(editsTogether(before, after, after)).toEqual({ record: after, both: [] });
      }),
    );
  });

  it('loses nothing that either wrote where no field is both’s', () => {
    const field = fc.oneof(fc.integer(), fc.string());
    const all = fc.record({ a: field, b: field, c: field, d: field });
    fc.assert(
      fc.property(all, field, field, (before, mine, theirs) => {
        const { record, both } = editsTogether(before, { ...before, a: mine }, { ...before, c: theirs });
        expect(record).toEqual({ ...before, a: mine, c: theirs });
        expect(both).toEqual([]);
      }),
    );
  });
});
