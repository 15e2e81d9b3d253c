import { fastest, ms } from './measure.mjs';

/** Light of a whole yard, and cutting boards at least cost. */
export async function benchYard(core) {
  const row = (e, n, w, h) => [
    [e, n],
    [e + w, n],
    [e + w, n + h],
    [e, n + h],
  ];
  const elements = [
    { id: 'o', kind: 'outline', name: 'Yard', points: row(0, 0, 60, 40) },
    ...[0, 1, 2, 3].map((i) => ({
      id: `b${i}`,
      kind: 'building',
      name: `Barn ${i}`,
      heightM: 8,
      points: row(-10 + 18 * i, 42, 9, 12),
    })),
    {
      id: 't',
      kind: 'trees',
      name: 'Row',
      heightM: 14,
      passesInLeaf: 0.2,
      passesBare: 0.7,
      points: [
        [-5, -4],
        [20, -6],
        [40, -5],
      ],
    },
  ];
  const spots = Array.from({ length: 60 }, (_, i) => ({
    id: `p${i}`,
    point: [2 + (i % 10) * 5, 2 + Math.floor(i / 10) * 6],
    canopyHeightM: 0.5,
  }));
  const site = { latitudeDeg: 54.6, longitudeDeg: -2.4 };
  const light = fastest(() => core.yardLight(spots, elements, site, 2026), { runs: 8 });
  const random = core.seededRandom(3);
  const problem = {
    pieces: Array.from({ length: 25 }, (_, i) => ({
      lengthMm: 250 + i * 71 + Math.floor(random() * 40),
      count: i < 15 ? 2 : 1,
    })),
    stock: [
      { lengthMm: 2400, price: 9 },
      { lengthMm: 3000, price: 11.5 },
      { lengthMm: 4800, price: 18 },
    ],
    kerfMm: 3,
  };
  await core.cutStock(problem);
  const started = performance.now();
  const plan = await core.cutStock(problem);
  const cut = performance.now() - started;
  const bed = core.cutStock({ ...problem, pieces: problem.pieces.slice(0, 4) });
  const few = performance.now();
  await bed;
  return [
    ['light of 60 places, 12 months, 19 faces', ms(light), '', '', '< 300 ms'],
    [
      `cutting 40 pieces of 25 lengths, ${((plan.cost / plan.bound - 1) * 100).toFixed(1)} % above the bound`,
      ms(cut),
      '',
      '',
      '< 2000 ms',
    ],
    ['cutting a bed’s four lengths, to the proven best', ms(performance.now() - few), '', '', ''],
  ];
}
