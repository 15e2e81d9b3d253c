/** Work done to a lot that keeps it where it stands. Moves on are apart: they begin a new home. */
export const careKinds = ['water', 'feed', 'inoculum', 'spread', 'pack', 'stake', 'weed', 'prune'] as const;
export type CareKind = (typeof careKinds)[number];

export type CareDone =
  /** Watered by hand over what rain and the programme give, mm; null where nobody measured. */
  | { what: 'water'; mm: number | null }
  /** Fed: prills rated in months at 21 °C, or null for a liquid or organic feed that does not run out by a rating. */
  | { what: 'feed'; ratedMonths: number | null; gramsPerLitre: number | null }
  | { what: 'inoculum'; source: (typeof inoculumSources)[number] }
  /** Cells set apart, each to this many times the room it has packed tight. */
  | { what: 'spread'; apart: number }
  | { what: 'pack' }
  | { what: 'stake'; stake: (typeof stakeKinds)[number]; staked: number }
  | { what: 'weed'; how: (typeof weedings)[number] }
  /** The top taken back to a height, cm. */
  | { what: 'prune'; toCm: number };

export const inoculumSources = ['nodules', 'mycorrhiza'] as const;
export const stakeKinds = ['flexible', 'rigid'] as const;
export const weedings = ['pulled', 'cut', 'mulched'] as const;

/** Inoculum is watered on this many days after half are up: two to three weeks after germination. */
export const INOCULATE_FROM_DAYS = 14;
export const INOCULATE_UNTIL_DAYS = 28;

/*
 * Genera whose roots carry nitrogen-fixing nodules: actinorhizal ones and the woody legumes a tree nursery meets.
 * Huss-Danell 1997, New Phytologist 136:375; Sprent 2009, Legume Nodulation.
 */
const nodulating = new Set(
  (
    'Alnus Casuarina Allocasuarina Elaeagnus Hippophae Shepherdia Myrica Morella Ceanothus Purshia Coriaria Discaria ' +
    'Robinia Laburnum Cytisus Ulex Genista Acacia Caragana Colutea Sophora Albizia Amorpha Maackia'
  ).split(' '),
);

/** Whether a species is one whose roots should carry nodules, by its genus. */
export function carriesNodules(latin: string): boolean {
  return nodulating.has(latin.trim().split(/\s+/)[0]);
}

/** What to crush, strain and water on. The usual practice, not a measured optimum. */
export const nodulesRecipe = {
  /** Fresh nodules from a healthy plant of the same genus for each thousand seedlings, g. */
  gramsPerThousand: 20,
  /** Water for each thousand seedlings, L. */
  litresPerThousand: 5,
} as const;
