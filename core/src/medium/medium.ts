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
}

/** Starting media, one for each of the main schools. Ordinary ranges; a nursery weighs its own. */
export const startingMedia: readonly MediumValues[] = [
  {
    name: 'Living mix: chips, compost, castings',
    wetKgPerM3: 720,
    dryKgPerM3: 330,
    airShare: 0.22,
    settling: 0.2,
    note: 'Feeds itself; settles as it lives.',
  },
  {
    name: 'Leaf mould',
    wetKgPerM3: 680,
    dryKgPerM3: 250,
    airShare: 0.18,
    settling: 0.25,
    note: 'Light and moist; settles most.',
  },
  {
    name: 'Coarse sand and topsoil',
    wetKgPerM3: 1650,
    dryKgPerM3: 1350,
    airShare: 0.12,
    settling: 0.06,
    note: 'Cheap and heavy; the seed feeds itself.',
  },
  {
    name: 'Soilless mix with controlled-release feed',
    wetKgPerM3: 620,
    dryKgPerM3: 160,
    airShare: 0.25,
    settling: 0.1,
    note: 'For containers.',
  },
];
