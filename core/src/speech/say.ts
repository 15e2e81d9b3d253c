/*
 * Every word of Kauri is written in English where it is used, and looked up in the catalogue of the language that is
 * spoken. The sentence in the code is its own key, its values numbered: "{0} of {1} counted.". What a catalogue does not
 * hold is said in English. See docs/languages.md.
 */

/** A noun in each form a language's plural rules ask for (CLDR: one, few, many, other …). */
export type Forms = Readonly<Partial<Record<Intl.LDMLPluralRule, string>>>;
/** English as it stands in the code → a language. Nouns that are counted have forms. */
export type Catalogue = Readonly<Record<string, string | Forms>>;

/** A language as it is spoken: its words, its plural forms and the sign of its decimals. */
export interface Speech {
  /** BCP 47, e.g. `es`. */
  readonly tag: string;
  readonly catalogue: Catalogue;
  readonly plural: Intl.PluralRules;
  readonly decimal: string;
  /** Sentences already cut at their values. */
  readonly cut: Map<string, readonly (string | number)[]>;
}

/**
 * @param tag BCP 47
 * @throws RangeError where the tag is no language's
 */
export function speechOf(tag: string, catalogue: Catalogue = {}): Speech {
  const decimal = new Intl.NumberFormat(tag).formatToParts(1.5).find(({ type }) => type === 'decimal')!.value;
  return { tag, catalogue, plural: new Intl.PluralRules(tag), decimal, cut: new Map() };
}

export const english = speechOf('en-GB');
let spoken = (): Speech => english;

/** Sets where the language of the moment is asked for: one for a whole page or worker, the caller's on a server. */
export function speakBy(which: () => Speech): void {
  spoken = which;
}

/** The language of the moment. */
export const speech = (): Speech => spoken();

/** A figure with the decimal sign of the language; other text stays as it is. */
function figured(value: unknown, { decimal }: Speech): string {
  const text = String(value);
  return decimal !== '.' && FIGURE.test(text) ? text.replace('.', decimal) : text;
}
const FIGURE = /^[-−+]?[\d\u202f]+\.\d+$/;

/** A figure in decimals with the sign of the language, e.g. "3,5". */
export const decimals = (text: string): string => figured(text, spoken());

const keys = new WeakMap<TemplateStringsArray, string>();
function keyOf(strings: TemplateStringsArray): string {
  let key = keys.get(strings);
  if (key === undefined) {
    key = strings.reduce((all, part, at) => `${all}{${at - 1}}${part}`);
    keys.set(strings, key);
  }
  return key;
}

function cutOf(sentence: string, { cut }: Speech): readonly (string | number)[] {
  let parts = cut.get(sentence);
  if (!parts) {
    parts = sentence.split(/\{(\d+)\}/).map((part, at) => (at % 2 ? Number(part) : part));
    cut.set(sentence, parts);
  }
  return parts;
}

/**
 * A sentence in the language of the moment: say`${n} of ${all} counted.` is looked up as "{0} of {1} counted.". A
 * language may turn the order of the values.
 */
export function say(strings: TemplateStringsArray, ...values: unknown[]): string {
  const now = spoken();
  const said = now.catalogue[keyOf(strings)];
  const parts = cutOf(textOf(said) ?? keyOf(strings), now);
  let text = '';
  for (const part of parts)
    if (typeof part === 'number') text += figured(values[part], now);
    // A shortened month has its dot already: "bis 17. Aug." ends its sentence.
    else text += text.endsWith('.') && part.startsWith('.') && !part.startsWith('..') ? part.slice(1) : part;
  return text;
}

/** A name as it stands within a sentence: small, but for languages whose nouns keep their capital. */
export const inSentence = (name: string): string =>
  /^(de|lb)\b/.test(spoken().tag) ? name : name.toLocaleLowerCase(spoken().tag);

/** A word or sentence that was written elsewhere, by its English; English where there is none. */
export function word(text: string): string {
  return textOf(spoken().catalogue[text]) ?? text;
}

/** A noun without a number is said as of one. */
const textOf = (said: string | Forms | undefined) =>
  typeof said === 'object' ? (said.one ?? said.other) : said;

/** The form of a noun that goes with a number. */
export function nounFor(value: number, one: string, many: string): string {
  const { catalogue, plural } = spoken();
  const forms = catalogue[one];
  if (forms === undefined || typeof forms === 'string') return value === 1 ? one : many;
  return forms[plural.select(value)] ?? forms.other ?? many;
}

/**
 * A record, or a list, whose words are in the language of the moment whenever they are read; it may be made before a
 * language is known.
 * @param names the properties of each entry that are words; left out, the record's own values are
 */
export function inWords<T extends object>(record: T, ...names: string[]): T {
  if (names.length === 0) return spokenOf(record, Object.keys(record));
  const each = (entry: unknown) =>
    typeof entry === 'object' && entry !== null ? spokenOf(entry, names) : entry;
  return (
    Array.isArray(record)
      ? record.map(each)
      : Object.fromEntries(Object.entries(record).map(([key, entry]) => [key, each(entry)]))
  ) as T;
}

function spokenOf<T extends object>(record: T, names: readonly string[]): T {
  const all: PropertyDescriptorMap = Object.getOwnPropertyDescriptors(record);
  for (const name of names) {
    const text = all[name]?.value;
    if (typeof text === 'string') all[name] = { get: () => word(text), enumerable: true, configurable: true };
  }
  return Object.defineProperties(Array.isArray(record) ? [] : {}, all) as T;
}
