import { inWords } from '../speech/say';

/** What Kauri needs of a growing medium. */
export interface MediumValues {
  name: string;
  /** Bulk density at container capacity, kg per m³ of loose medium. */
  wetKgPerM3: number;
  dryKgPerM3: number;
  /** Air-filled porosity at container capacity, share. */
  airShare: number;
  /** Share of depth lost in a season. */
  settling: number;
  note: string;
  /** Share of its volume that is water plants can take, at container capacity. */
  heldShare?: number;
  /** Widest opening it stays on, mm. */
  heldByMm?: number;
  costPerM3?: number;
  ph?: string;
  /** What it is mixed from, by volume. */
  parts?: readonly MediumPart[];
}

/** One material of a recipe. */
export interface MediumPart {
  material: string;
  /** Parts by volume. */
  parts: number;
}

/** Where a medium's water or grain was never measured. */
export const USUAL_HELD_SHARE = 0.25;
export const USUAL_HELD_BY_MM = 6;

/** Starting media, one for each of the main schools. Ordinary ranges; a nursery weighs its own. */
export const startingMedia: readonly MediumValues[] = inWords(
  [
    {
      name: 'Living mix: chips, compost, castings',
      wetKgPerM3: 720,
      dryKgPerM3: 330,
      airShare: 0.22,
      settling: 0.2,
      note: 'Feeds itself; settles as it lives.',
      heldShare: 0.28,
      heldByMm: 13,
      costPerM3: 48,
      ph: '6.0–7.0',
      parts: [
        { material: 'chips', parts: 4 },
        { material: 'compost', parts: 3 },
        { material: 'castings', parts: 1 },
      ],
    },
    {
      name: 'Leaf mould',
      wetKgPerM3: 680,
      dryKgPerM3: 250,
      airShare: 0.18,
      settling: 0.25,
      note: 'Light and moist; settles most.',
      heldShare: 0.32,
      heldByMm: 6,
      costPerM3: 20,
      ph: '5.5–6.5',
      parts: [{ material: 'leaf mould', parts: 1 }],
    },
    {
      name: 'Coarse sand and topsoil',
      wetKgPerM3: 1650,
      dryKgPerM3: 1350,
      airShare: 0.12,
      settling: 0.06,
      note: 'Cheap and heavy; the seed feeds itself.',
      heldShare: 0.16,
      heldByMm: 2,
      costPerM3: 36,
      ph: '6.0–7.5',
      parts: [
        { material: 'coarse sand', parts: 2 },
        { material: 'topsoil', parts: 1 },
      ],
    },
    {
      name: 'Soilless mix with controlled-release feed',
      wetKgPerM3: 620,
      dryKgPerM3: 160,
      airShare: 0.25,
      settling: 0.1,
      note: 'For containers.',
      heldShare: 0.3,
      heldByMm: 6,
      costPerM3: 85,
      ph: '5.5–6.2',
      parts: [
        { material: 'bark fines', parts: 5 },
        { material: 'coir', parts: 3 },
        { material: 'perlite', parts: 2 },
      ],
    },
  ],
  'name',
  'note',
);
