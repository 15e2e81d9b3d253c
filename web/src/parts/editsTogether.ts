type Fields = Record<string, unknown>;

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
/** A list of things that each have an id. */
const isNamed = (value: unknown): value is (Fields & { id: string })[] =>
  Array.isArray(value) && value.every((one) => isFields(one) && typeof one.id === 'string');
const byId = (list: readonly (Fields & { id: string })[]): Fields =>
  Object.fromEntries(list.map((one) => [one.id, one]));

/**
 * What two people made of one record that both had opened: whatever either changed, field by field, and what both
 * changed to something else, which is left as mine. Parts within parts, and things listed by id, are looked at likewise.
 * @param opened as both had it before them
 * @returns with `both`, the paths of what both changed
 */
export function editsTogether<T>(opened: T, mine: T, theirs: T, path = ''): { record: T; both: string[] } {
  if (same(mine, theirs) || same(theirs, opened)) return { record: mine, both: [] };
  if (same(mine, opened)) return { record: theirs, both: [] };
  if (isNamed(opened) && isNamed(mine) && isNamed(theirs)) {
    const { record, both } = editsTogether(byId(opened), byId(mine), byId(theirs), path);
    // In the order of mine; what they added comes after.
    const order = [...new Set([...mine, ...theirs].map(({ id }) => id))];
    return { record: order.filter((id) => record[id] !== undefined).map((id) => record[id]) as T, both };
  }
  if (!isFields(opened) || !isFields(mine) || !isFields(theirs)) return { record: mine, both: [path] };
  const record: Fields = {};
  const both: string[] = [];
  for (const field of new Set([...Object.keys(opened), ...Object.keys(mine), ...Object.keys(theirs)])) {
    const part = editsTogether(
      opened[field],
      (mine as Fields)[field],
      (theirs as Fields)[field],
      path ? `${path}.${field}` : field,
    );
    if (part.record !== undefined) record[field] = part.record;
    both.push(...part.both);
  }
  return { record: record as T, both };
}
