import fc, { type Arbitrary } from 'fast-check';

/** A JSON schema, as far as the contract's bodies use it. */
export interface Schema {
  type?: string;
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: Schema | boolean;
  propertyNames?: Schema;
  items?: Schema | boolean;
  prefixItems?: Schema[];
  minItems?: number;
  maxItems?: number;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  enum?: unknown[];
  const?: unknown;
  minimum?: number;
  maximum?: number;
  exclusiveMinimum?: number;
  exclusiveMaximum?: number;
  minLength?: number;
  maxLength?: number;
  pattern?: string;
  format?: string;
  $ref?: string;
  $defs?: Record<string, Schema>;
}

/** What a test knows of the nursery: ids that are there, so that bodies reach what is behind the first look. */
export interface Known {
  ids: readonly string[];
  /** The same, by what a place for an id is called. */
  idsOf: (name: string) => readonly string[];
  dates: readonly string[];
}

/** Anything JSON may hold, odd text and figures among them. */
const oddText = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 40 }),
  fc.constantFrom(
    '',
    ' ',
    '\0',
    '\ud800',
    '__proto__',
    '=1+1',
    '٣',
    '1e999',
    'x'.repeat(5000),
    '<b>',
    "'; --",
    '‮',
  ),
);
const oddNumber = fc.oneof(
  fc.constantFrom(0, -0, -1, 1e308, -1e308, 5e-324, 2 ** 53, 2 ** 31, 0.1 + 0.2, -2147483649),
  fc.double({ noNaN: true, noDefaultInfinity: true }),
);
const odd: Arbitrary<unknown> = fc.oneof(
  { depthSize: 'small' },
  fc.constantFrom(null, true, false, {}, [], [[]], { id: null }),
  oddText,
  oddNumber,
  fc.array(fc.oneof(oddText, oddNumber), { maxLength: 3 }),
  fc.dictionary(oddText, oddNumber, { maxKeys: 3 }),
);

/** Values of a schema: right ones, at their limits often. What only a sentence of the contract refuses may be among them. */
export function rightFor(
  schema: Schema,
  known: Known,
  name = '',
  defs: Record<string, Schema> = schema.$defs ?? {},
): Arbitrary<unknown> {
  const inner = (s: Schema, itsName = name) => rightFor(s, known, itsName, defs);
  if (schema.$ref) return inner(schema.$ref === '#' ? schema : defs[schema.$ref.replace('#/$defs/', '')]);
  if ('const' in schema) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...schema.enum);
  const several = schema.anyOf ?? schema.oneOf;
  if (several) return fc.oneof(...several.map((s) => inner(s)));
  if (schema.allOf)
    return fc
      .tuple(...schema.allOf.map((s) => inner(s)))
      .map((parts) => Object.assign({}, ...(parts as object[])) as unknown);
  switch (schema.type) {
    case 'object':
      return object(schema, inner);
    case 'array':
      return array(schema, inner);
    case 'string':
      return text(schema, known, name);
    case 'number':
    case 'integer':
      return number(schema);
    case 'boolean':
      return fc.boolean();
    case 'null':
      return fc.constant(null);
    default:
      // What a schema of JSON cannot tell, such as text that is made over before it is read.
      return fc.oneof(fc.stringMatching(/^[A-Z]{3,5}$/), odd);
  }
}

function object(schema: Schema, inner: (s: Schema, name?: string) => Arbitrary<unknown>): Arbitrary<unknown> {
  const { properties, additionalProperties, propertyNames } = schema;
  if (!properties && typeof additionalProperties === 'object') {
    const key = propertyNames ? inner(propertyNames).map(String) : fc.string({ maxLength: 12 });
    return fc.dictionary(key, inner(additionalProperties), { maxKeys: 3 });
  }
  const required = new Set(schema.required ?? []);
  const all = Object.fromEntries(Object.entries(properties ?? {}).map(([name, s]) => [name, inner(s, name)]));
  return fc.record(all, { requiredKeys: Object.keys(all).filter((name) => required.has(name)) });
}

function array(schema: Schema, inner: (s: Schema) => Arbitrary<unknown>): Arbitrary<unknown> {
  if (schema.prefixItems) return fc.tuple(...schema.prefixItems.map((s) => inner(s)));
  const items = typeof schema.items === 'object' ? inner(schema.items) : odd;
  const minLength = schema.minItems ?? 0;
  return fc.array(items, { minLength, maxLength: Math.max(minLength, Math.min(schema.maxItems ?? 4, 4)) });
}

function text(schema: Schema, known: Known, name: string): Arbitrary<string> {
  if (schema.format === 'uuid') {
    const fresh = fc.uuid({ version: 7 });
    // What is written bears an id of its own; now and then one that is taken.
    if (name === 'id')
      return fc.oneof(
        { weight: 9, arbitrary: fresh },
        { weight: 1, arbitrary: fc.constantFrom(...known.ids) },
      );
    const fitting = known.idsOf(name);
    return fc.oneof(
      { weight: 8, arbitrary: fc.constantFrom(...(fitting.length ? fitting : known.ids)) },
      { weight: 1, arbitrary: fc.constantFrom(...known.ids) },
      { weight: 1, arbitrary: fresh },
    );
  }
  if (schema.format === 'date')
    return fc.oneof(
      fc.constantFrom(...known.dates),
      fc.constantFrom('1950-01-01', '2150-12-31', '2024-02-29'),
    );
  if (schema.format === 'email') return fc.emailAddress();
  const [min, max] = [schema.minLength ?? 0, schema.maxLength ?? 60];
  // What a pattern asks for is too narrow to be met by chance; its words are made from it, where they can be.
  if (schema.pattern && !/\\p\{/.test(schema.pattern))
    return fc.stringMatching(new RegExp(schema.pattern)).map((word) => word.slice(0, max));
  return fc.oneof(
    fc.string({ unit: 'grapheme', minLength: min, maxLength: Math.min(max, min + 30) }),
    fc.constant('x'.repeat(max)),
  );
}

function number(schema: Schema): Arbitrary<number> {
  const least = schema.minimum ?? schema.exclusiveMinimum ?? -1e6;
  const most = schema.maximum ?? schema.exclusiveMaximum ?? 1e6;
  if (schema.type === 'integer') {
    const [low, high] = [Math.max(least, -Number.MAX_SAFE_INTEGER), Math.min(most, Number.MAX_SAFE_INTEGER)];
    return fc.oneof(fc.integer({ min: low, max: Math.min(high, low + 20) }), fc.constantFrom(low, high));
  }
  return fc.oneof(
    fc.double({ min: least, max: most, noNaN: true, noDefaultInfinity: true }),
    fc.constantFrom(least, most, (least + most) / 2),
  );
}

/** A value of a schema in which one place is not what it should be. */
export function wrongFor(schema: Schema, known: Known): Arbitrary<unknown> {
  return fc.tuple(rightFor(schema, known), fc.nat(), odd, fc.boolean()).map(([value, where, other, drop]) => {
    const places: { parent: Record<string, unknown>; key: string }[] = [];
    const walk = (node: unknown): void => {
      if (typeof node !== 'object' || node === null) return;
      for (const key of Object.keys(node)) {
        places.push({ parent: node as Record<string, unknown>, key });
        walk((node as Record<string, unknown>)[key]);
      }
    };
    const copy = structuredClone(value);
    walk(copy);
    if (places.length === 0) return other;
    const { parent, key } = places[where % places.length];
    if (drop && !Array.isArray(parent)) delete parent[key];
    else parent[key] = other;
    return copy;
  });
}
