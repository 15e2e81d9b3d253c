import { buildSheet, buyingList, startingMedia, startingPrices, stockOf, type BedDesign } from '@kauri/core';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { money } from '../../../words/money';
import { newElement, freeName } from '../site/newThing';
import { buildCsv, buildPdf, buyLines, type BuildFile } from './buildFiles';

const design: BedDesign = {
  schema: 1,
  measured: 'outside',
  lengthMm: 3000,
  widthMm: 1200,
  tiers: ['50x200', '50x200'],
  layers: [{ kind: 'mesh', openingMm: [12.7, 12.7], wireMm: 1.05 }],
  fillBelowRimMm: 30,
  ground: 'paving',
  airGapMm: 90,
  lidAboveRimMm: 400,
};

async function file(): Promise<BuildFile> {
  const sheet = buildSheet(
    [{ name: 'Large, "ours"', design, count: 2, medium: startingMedia[0] }],
    startingPrices,
  );
  return {
    title: 'Build sheet',
    sheet,
    buying: await buyingList(sheet, 3, (board) => stockOf(board, 'durable', startingPrices)),
    prices: startingPrices,
    length: (mm) => `${mm} mm`,
    litres: (l) => `${l.toFixed(0)} L`,
    area: (m2) => `${m2.toFixed(2)} m²`,
  };
}

describe('what to buy', () => {
  it('holds every board, sheet and fixing, priced', async () => {
    const built = await file();
    const lines = buyLines(built);
    const boards = lines.filter((l) => l.what.startsWith('Board'));
    expect(boards.reduce((t, l) => t + l.count * l.each!, 0)).toBeCloseTo(
      built.buying.reduce((t, b) => t + b.plan.cost, 0),
      6,
    );
    const rest = lines.filter((l) => !l.what.startsWith('Board') && l.each !== null);
    expect(rest.reduce((t, l) => t + l.count * l.each!, 0)).toBeCloseTo(built.sheet.sundriesCost, 6);
    expect(lines.map((l) => l.what)).toEqual(
      expect.arrayContaining(['Corner brackets', 'Screws', 'Staples', 'Feet: bricks']),
    );
  });
  it('goes into a table that reads back, whatever the name', async () => {
    const built = await file();
    const { data, errors } = Papa.parse<Record<string, string>>(buildCsv(built), { header: true });
    expect(errors).toEqual([]);
    const cuts = data.filter((row) => row.list === 'cut');
    expect(cuts).toHaveLength(built.sheet.timber.length);
    expect(cuts[0]).toMatchObject({ bed: 'Large, "ours"', length_mm: '3000', count: '4' });
  });
  it('goes on paper with each step’s caution beside it', async () => {
    const built = await file();
    const text = JSON.stringify(buildPdf(built).content);
    for (const step of built.sheet.steps) {
      expect(text).toContain(JSON.stringify(step.what).slice(1, -1));
      if (step.caution) expect(text).toContain(JSON.stringify(`Caution: ${step.caution}`).slice(1, -1));
    }
    expect(text).toContain('<svg');
  });
});

describe('money', () => {
  it('is written to the hundredth, in whole pieces from a thousand', () => {
    expect(money(12.345, '£')).toBe('£\u00a012.35');
    expect(money(1234567.8, '€')).toBe('€\u00a01\u202f234\u202f568');
    expect(money(-3, '£')).toBe('−£\u00a03.00');
    expect(money(Infinity, '£')).toBe('–');
  });
});

describe('new things on the plan', () => {
  it('have a free name, an ordinary size and the shape of their kind', () => {
    expect(freeName('Bed 1', ['Bed 1', 'Bed 2'])).toBe('Bed 3');
    expect(freeName('Barn', ['Barn'])).toBe('Barn 1');
    expect(freeName('Barn', [])).toBe('Barn');
    const barn = newElement('building', [10.2, 5.1], []);
    expect(barn.points).toHaveLength(4);
    expect(newElement('trees', [0, 0], [barn]).points).toHaveLength(2);
    expect(newElement('standpipe', [1.2, 3.4], []).points).toEqual([[1, 3.5]]);
    expect(newElement('building', [0, 0], [barn]).name).toBe('Building 1');
  });
});
