import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { english, say, speakBy, speech } from '@kauri/core';
import { beginSpeaking, languages, nearest } from './language';

describe('the nearest language there is a file of', () => {
  it('is the very one, or one of the same tongue, or the next that was wanted, or English', () => {
    expect(nearest(['de'])).toBe('de');
    expect(nearest(['de-AT'])).toBe('de');
    expect(nearest(['en-US', 'es'])).toBe('en-US');
    expect(nearest(['en-NZ'])).toBe('en-GB');
    expect(nearest([null, 'fi-FI', 'es-CL'])).toBe('es');
    expect(nearest(['fi'])).toBe('en-GB');
    expect(nearest([])).toBe('en-GB');
  });

  it('is offered by its own name', () => {
    expect(languages.map(({ words }) => words)).toEqual([
      'British English',
      'Deutsch',
      'American English',
      'Español',
    ]);
  });
});

describe('what a page speaks', () => {
  const stored = new Map<string, string>();
  beforeEach(() => {
    stored.clear();
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => stored.get(key) ?? null,
      setItem: (key: string, value: string) => stored.set(key, value),
    });
    vi.stubGlobal('navigator', { languages: ['fi', 'de-CH'] });
    vi.stubGlobal('document', { documentElement: {} });
  });
  afterEach(() => {
    vi.unstubAllGlobals();
    speakBy(() => english);
  });

  it('is what the browser asks for, then what the nursery speaks, then what was chosen here', async () => {
    await beginSpeaking();
    expect(speech().tag).toBe('de');
    await beginSpeaking('es');
    expect(say`Take back`).toBe('Deshacer');
    stored.set('kauri.language', 'en-US');
    await beginSpeaking();
    expect(speech().tag).toBe('en-US');
    // What the door shows the next time is the nursery's, where nobody chose.
    stored.delete('kauri.language');
    await beginSpeaking();
    expect([speech().tag, document.documentElement.lang]).toEqual(['es', 'es']);
  });
});
