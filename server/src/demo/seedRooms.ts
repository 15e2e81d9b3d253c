import type { DemoSeedRoom } from './seed';

/** Withybeck's seed room: fresh and old bags, batches at every stage, osier stools, layers on the limes. */
// One a line.
// prettier-ignore
export const withybeckSeed: DemoSeedRoom = {
  bags: [
    { code: 'S-BPE-01', species: 'BPE', collected: [8, 20], grams: 400, perKg: 1_500_000, store: 'fridge', tempC: 3, price: 190, place: 'Becks Moss edge', spot: [54.61, -2.43, 210], tests: [[50, 'germination', 100, 52]] },
    { code: 'S-ALN-01', species: 'ALN', collected: [10, 20, 1], grams: 250, perKg: 750_000, store: 'fridge', tempC: 3, price: 180, place: 'Low Carr, stream side', spot: [54.58, -2.39, 150], tests: [[30, 'germination', 100, 55], [350, 'germination', 100, 43]] },
    { code: 'S-SOR-01', species: 'SOR', collected: [9, 12, 2], grams: 120, perKg: 280_000, store: 'fridge', tempC: 3, price: 320, place: 'Upper ghyll', spot: [54.63, -2.45, 320], tests: [[35, 'cut', 40, 35], [40, 'germination', 50, 39]] },
    { code: 'S-SOR-02', species: 'SOR', collected: [9, 14, 1], grams: 300, perKg: 282_000, store: 'fridge', tempC: 3, price: 320, place: 'Upper ghyll', spot: [54.63, -2.45, 320], tests: [[15, 'cut', 50, 46]] },
    { code: 'S-QPE-01', species: 'QPE', collected: [10, 14], grams: 18_000, perKg: 320, store: 'cool-moist', tempC: 2, price: 9, place: 'Hanging wood', spot: [54.57, -2.36, 190], tests: [[5, 'float', 100, 91], [7, 'cut', 20, 18]], note: 'Floated the day they came.' },
    { code: 'S-CRA-01', species: 'CRA', collected: [10, 8, 1], grams: 900, perKg: 10_000, store: 'fridge', tempC: 3, price: 70, place: 'Old lane hedge', spot: [54.6, -2.41, 175], tests: [[30, 'cut', 50, 41]] },
    { code: 'S-PSP-01', species: 'PSP', collected: [9, 25, 1], grams: 1_500, perKg: 5_000, store: 'fridge', tempC: 3, price: 60, place: 'Quarry bank', spot: [54.59, -2.38, 205], tests: [[12, 'cut', 40, 33], [200, 'germination', 50, 34]] },
    { code: 'S-EEU-01', species: 'EEU', collected: [10, 2, 1], grams: 220, perKg: 32_000, store: 'fridge', tempC: 3, price: 240, place: 'Old lane hedge', spot: [54.6, -2.41, 175], tests: [[20, 'cut', 50, 40]] },
    { code: 'S-VOP-01', species: 'VOP', collected: [9, 18, 3], grams: 160, perKg: 30_000, store: 'room', tempC: 15, price: 200, place: 'Low Carr', spot: [54.58, -2.39, 150], tests: [[50, 'germination', 50, 32], [600, 'germination', 50, 1]], note: 'Three years in the shed.' },
    { code: 'S-PSY-01', species: 'PSY', collected: [2, 25, 1], grams: 300, perKg: 165_000, store: 'freezer', tempC: -18, price: 260, place: 'North ridge', spot: [54.66, -2.5, 380], tests: [[40, 'germination', 100, 91]] },
    { code: 'S-ACA-01', species: 'ACA', collected: [10, 10], grams: 800, perKg: 14_000, store: 'fridge', tempC: 3, price: 55, place: 'Village green', spot: [54.56, -2.35, 140] },
    { code: 'S-JCO-01', species: 'JCO', collected: [10, 25, 1], grams: 90, perKg: 80_000, store: 'fridge', tempC: 3, price: 480, place: 'Limestone scar', spot: [54.62, -2.48, 340], tests: [[20, 'cut', 40, 19]] },
    { code: 'S-TCO-01', species: 'TCO', collected: [10, 5], grams: 350, perKg: 32_000, store: 'fridge', tempC: 3, price: 150, place: 'Hanging wood', spot: [54.57, -2.36, 190], tests: [[10, 'cut', 40, 25]] },
  ],
  batches: [
    { bag: 'S-PSP-01', name: 'Fridge', school: 'indoors', phases: 'warm14 cold126', started: 139, grams: 400, looks: [[30, 50, 0], [2, 50, 3]] },
    { bag: 'S-EEU-01', name: 'Warm, then cold', school: 'indoors', phases: 'warm70 cold112', started: 95, grams: 120, looks: [[20, 50, 0]] },
    { bag: 'S-CRA-01', name: 'Leaf tub in the yard', school: 'tub', phases: 'tub: warm84 cold112', started: 210, grams: 500, looks: [[15, 60, 0]] },
    { bag: 'S-SOR-02', name: 'Bag', school: 'indoors', phases: 'warm14 cold120', started: 55, grams: 60 },
    { bag: 'S-SOR-02', name: 'Leaf tub', school: 'tub', phases: 'tub: cold120', started: 55, grams: 60 },
  ],
  stockBeds: [
    { species: 'SVI', name: 'Osier stools', plants: 60, planted: 2_000, yieldPerPlant: 30, note: 'Two clones, four rows along the fence.', cuts: [[1_010, 900], [640, 1_100], [275, 1_250]] },
    { species: 'CSA', name: 'Dogwood stools', plants: 24, planted: 1_000, yieldPerPlant: 14, note: 'From the old lane hedge.', cuts: [[270, 160]] },
  ],
  layers: [
    { species: 'TCO', tree: 'Lime by the gate, south', branchMm: 18, made: 560, looks: [[480, 'none'], [450, 'few'], [440, 'many']], severed: [438, 'rooted'] },
    { species: 'TCO', tree: 'Lime by the gate, low', branchMm: 24, made: 555, looks: [[470, 'none']], severed: [430, 'failed'] },
    { species: 'TCO', tree: 'Lime at the barn, first', branchMm: 20, made: 195, looks: [[110, 'none'], [80, 'few'], [62, 'many']] },
    { species: 'VOP', tree: 'Guelder rose, pond side', branchMm: 12, made: 150, looks: [[70, 'few']] },
  ],
};

/** Piedra Clara's: lenga and ñire, half a year on. */
// prettier-ignore
export const piedraClaraSeed: DemoSeedRoom = {
  bags: [
    { code: 'S-NPU-01', species: 'NPU', collected: [9, 20], grams: 400, perKg: 60_000, store: 'fridge', tempC: 4, price: 120, place: 'Ladera norte', spot: [-41.15, -71.5, 1050], tests: [[20, 'germination', 50, 27]] },
    { code: 'S-NAN-01', species: 'NAN', collected: [9, 10, 1], grams: 150, perKg: 250_000, store: 'fridge', tempC: 4, price: 140, place: 'Mallín bajo', spot: [-41.2, -71.42, 800], tests: [[30, 'germination', 50, 21]] },
    { code: 'S-NDO-01', species: 'NDO', collected: [9, 25], grams: 90, perKg: 480_000, store: 'fridge', tempC: 4, price: 160, place: 'Costa del lago', spot: [-41.1, -71.6, 780] },
  ],
  batches: [{ bag: 'S-NPU-01', name: 'Heladera', school: 'indoors', phases: 'cold60', started: 48, grams: 80, looks: [[9, 50, 0]] }],
  stockBeds: [],
  layers: [{ species: 'NAN', tree: 'Ñire del portón', branchMm: 15, made: 40, looks: [] }],
};
