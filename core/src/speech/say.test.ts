import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { formatQuantity } from '../units/units';
import { dateWords, longDate, monthName, shortDate } from '../words/dates';
import { percent, several } from '../words/numbers';
import { decimals, english, inSentence, inWords, nounFor, say, speakBy, speechOf, word } from './say';

afterEach(() => speakBy(() => english));
const speakIn = (...of: Parameters<typeof speechOf>) => {
  const spoken = speechOf(...of);
  speakBy(() => spoken);
};

describe('what is said', () => {
  it('is the English of the code, whatever is put into it, where nothing else is spoken', () => {
    fc.assert(
      fc.property(fc.string(), fc.double(), (a, b) => {
        expect(say`${a} of ${b} counted.`).toBe(`${a} of ${b} counted.`);
        expect(say`${a}`).toBe(a);
      }),
    );
  });

  it('is the catalogue’s, its values in the order of the language; English where it has none', () => {
    speakIn('es', { '{0} of {1} counted.': 'De {1}, contadas {0}.', Save: 'Guardar' });
    expect(say`${3} of ${'las doce'} counted.`).toBe('De las doce, contadas 3.');
    expect(say`Save`).toBe('Guardar');
    expect(word('Save')).toBe('Guardar');
    expect(say`${3} of a kind nobody wrote down`).toBe('3 of a kind nobody wrote down');
  });

  it('follows the language of the moment, one sentence after the other', () => {
    const speeches = [english, speechOf('de', { Save: 'Sichern' }), speechOf('es', { Save: 'Guardar' })];
    let now = 0;
    speakBy(() => speeches[now]);
    expect([0, 1, 2, 0].map((at) => ((now = at), say`Save`))).toEqual(['Save', 'Sichern', 'Guardar', 'Save']);
  });

  it('sets figures with the sign of the language, and nothing else', () => {
    speakIn('de', {});
    expect(say`${'2.5'} h in ${'Bed 2.5'}, ${'1\u202f234.5'}, ${-0.5}, 2.5`).toBe(
      '2,5 h in Bed 2.5, 1\u202f234,5, -0,5, 2.5',
    );
    expect(decimals('12.30')).toBe('12,30');
    expect(decimals('v1.2.3')).toBe('v1.2.3');
    expect(percent(0.125, 1)).toBe('12,5\u00a0%');
    expect(formatQuantity(2.54, 'diameter', 'metric')).toBe('2,5\u00a0mm');
  });
});

describe('what is put into a sentence', () => {
  it('ends it with one full stop, also where its own short form has one', () => {
    const may = 'May.';
    expect(say`Sown ${may}.`).toBe('Sown May.');
    expect(say`Reading ${'x.'}..`).toBe('Reading x...');
    expect(say`${'17. Aug.'} it is`).toBe('17. Aug. it is');
  });

  it('is small where the language writes its nouns so', () => {
    expect(inSentence('Rowan')).toBe('rowan');
    speakIn('de');
    expect(inSentence('Eberesche')).toBe('Eberesche');
  });
});

describe('a noun that is counted', () => {
  it('takes its form by the plural rules of the language', () => {
    expect(several(1, 'batch', 'batches')).toBe('1 batch');
    expect(several(2, 'batch', 'batches')).toBe('2 batches');
    // Polish has three: 1, 2 to 4, and the rest.
    speakIn('pl', { tree: { one: 'drzewo', few: 'drzewa', many: 'drzew', other: 'drzewa' } });
    expect([1, 3, 5, 22, 112].map((n) => several(n, 'tree'))).toEqual([
      '1 drzewo',
      '3 drzewa',
      '5 drzew',
      '22 drzewa',
      '112 drzew',
    ]);
    expect(nounFor(2, 'lot', 'lots')).toBe('lots');
    // Without a number it is said as of one.
    expect(say`tree`).toBe('drzewo');
  });
});

describe('words kept in records', () => {
  const labels = inWords({ heat: 'Heat', frost: 'Frost' } as const);
  const terms = inWords([{ id: 'a', words: 'Heat', days: 3 }], 'words');
  const list = inWords(['Heat', 'Frost']);

  it('may be made before the language is known', () => {
    expect([labels.heat, terms[0], list[1]]).toEqual(['Heat', { id: 'a', words: 'Heat', days: 3 }, 'Frost']);
    speakIn('es', { Heat: 'Calor', Frost: 'Helada', a: 'never' });
    expect([labels.heat, terms[0], list[1]]).toEqual([
      'Calor',
      { id: 'a', words: 'Calor', days: 3 },
      'Helada',
    ]);
    expect(Object.values({ ...labels })).toEqual(['Calor', 'Helada']);
    expect(JSON.stringify(list)).toBe('["Calor","Helada"]');
  });
});

describe('dates', () => {
  const day = Date.UTC(2026, 10, 24) / 86_400_000;

  it('are written as each language writes them', () => {
    expect([longDate(day), shortDate(day, 2025), dateWords('2026-11-24'), monthName(10)]).toEqual([
      'Tue 24 Nov',
      '24 Nov 2026',
      '24 Nov 2026',
      'Nov',
    ]);
    speakIn('en-US');
    expect([longDate(day), dateWords('2026-11-24')]).toEqual(['Tue, Nov 24', 'Nov 24, 2026']);
    speakIn('de');
    expect([longDate(day), shortDate(day, 2026), dateWords('2026-11-24')]).toEqual([
      'Di., 24. Nov.',
      '24. Nov.',
      '24. Nov. 2026',
    ]);
    speakIn('es');
    expect([shortDate(day), dateWords('not a date')]).toEqual(['24 nov', 'not a date']);
  });

  it('name twelve different months in every language', () => {
    for (const tag of ['en-GB', 'en-US', 'de', 'es', 'pl']) {
      speakIn(tag);
      expect(new Set(Array.from({ length: 12 }, (_, month) => monthName(month))).size).toBe(12);
    }
  });
});
