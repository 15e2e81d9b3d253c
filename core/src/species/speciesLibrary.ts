import type { StartingSpecies } from './species';
import { species, type StartRow } from './speciesRow';
import { startingSpecies } from './startingSpecies';

/** How a species grows in its first season, by class: what is not known more closely of it. */
const pace = {
  fast: { height: 60, diameter: 7, growth: 0.0034, root: 0.0045, chill: 340 },
  medium: { height: 36, diameter: 5.2, growth: 0.003, root: 0.0036, chill: 390 },
  slow: { height: 18, diameter: 3.6, growth: 0.0025, root: 0.0023, chill: 430 },
  needle: { height: 13, diameter: 2.9, growth: 0.0025, root: 0.003, chill: 430 },
  nut: { height: 30, diameter: 6.5, growth: 0.004, root: 0.004, chill: 420 },
  // Trees of warm countries: they rest below 10 °C and gain nothing more above 35; a year's growth, per °C·d above 10.
  warm: { height: 80, diameter: 8, growth: 0.0043, root: 0.004, chill: 60, base: 10, ceiling: 35 },
  'warm slow': { height: 35, diameter: 6.5, growth: 0.0032, root: 0.0024, chill: 60, base: 10, ceiling: 35 },
} as const;

type Shares = readonly [viability: number, emergence: number, establishment: number, grade: number];

interface LibraryRow {
  pace: keyof typeof pace;
  perKg: number;
  shares: Shares;
  up: number;
  winters?: number;
  evergreen?: true;
  buds?: 'early' | 'late';
  start: StartRow;
}

const usual: Shares = [0.7, 0.6, 0.88, 0.82];
const nutty: Shares = [0.8, 0.8, 0.93, 0.85];
const chancy: Shares = [0.5, 0.5, 0.85, 0.8];

function more(code: string, common: string, latin: string, row: LibraryRow): StartingSpecies {
  const { perKg, up: sown, pace: how, shares, winters, evergreen, buds, start } = row;
  // Warmth to come up is written above 5 °C; above 10 it comes to fewer degree-days of the same weeks, at about 22 °C.
  const up = 'base' in pace[how] ? Math.round(sown * 0.7) : sown;
  return species(code, common, latin, {
    seedsPerKg: perKg,
    shares,
    upDd: up,
    winters,
    evergreen,
    buds,
    start,
    ...pace[how],
  });
}

const poisonous = 'Poisonous if eaten: gloves, wash hands, keep from stock and children.';
const thorns = 'Thorns: gloves and eye protection.';
const spreads = 'Spreads in some regions: ask the local invasive-species rules before raising it.';
const sap = 'Sap irritates skin: gloves.';

/**
 * Species a nursery can take into its own list: temperate, mediterranean and subtropical. Seeds a kilogram,
 * storage and treatments lie within ordinary published ranges of seed manuals; growth is by class. All are
 * starting values. A table: one species a line.
 */
// prettier-ignore
const furtherSpecies: readonly StartingSpecies[] = [
  more('FSY', 'Beech', 'Fagus sylvatica', { pace: 'medium', perKg: 4_600, shares: usual, up: 140, winters: 1, buds: 'late', start: { keeps: 'intermediate', sigma: 300, thick: 8, wake: 'cold70 | tub: cold84 | sown: cold84', radicle: 90, habit: 'heart', leaf: 'silky oval, wavy edge, alternate' } }),
  more('APS', 'Sycamore', 'Acer pseudoplatanus', { pace: 'fast', perKg: 10_000, shares: usual, up: 90, winters: 1, start: { keeps: 'recalcitrant', sigma: 150, thick: 5, wake: 'cold70 | tub: cold84 | sown: cold84', radicle: 60, habit: 'heart', leaf: 'five lobes, toothed, opposite', care: [spreads] } }),
  more('APL', 'Norway maple', 'Acer platanoides', { pace: 'fast', perKg: 7_000, shares: usual, up: 90, winters: 1, start: { keeps: 'orthodox', sigma: 600, thick: 4, wake: 'cold98 | sown: cold98', radicle: 70, habit: 'heart', leaf: 'five pointed lobes, opposite, milky stalk', care: [spreads] } }),
  more('FEX', 'Ash', 'Fraxinus excelsior', { pace: 'medium', perKg: 13_000, shares: usual, up: 110, winters: 2, buds: 'late', start: { keeps: 'orthodox', sigma: 1200, thick: 3, wake: 'warm112 cold112 | sown: warm90 cold112', radicle: 90, habit: 'heart', leaf: 'feathered, opposite, black bud', care: ['Disease rules may forbid moving it: ask the plant-health authority.'] } }),
  more('UGL', 'Wych elm', 'Ulmus glabra', { pace: 'fast', perKg: 90_000, shares: chancy, up: 60, start: { keeps: 'intermediate', sigma: 120, thick: 1.5, wake: ' | ', radicle: 40, habit: 'heart', leaf: 'rough, lopsided base, alternate' } }),
  more('QRO', 'Pedunculate oak', 'Quercus robur', { pace: 'nut', perKg: 280, shares: nutty, up: 190, winters: 1, buds: 'late', start: { keeps: 'recalcitrant', sigma: 75, thick: 17, wake: ' | tub: cold60 | sown: cold60', radicle: 110, habit: 'tap', leaf: 'lobed, hardly stalked, alternate' } }),
  more('QRU', 'Red oak', 'Quercus rubra', { pace: 'nut', perKg: 280, shares: nutty, up: 170, winters: 1, start: { keeps: 'recalcitrant', sigma: 110, thick: 18, wake: 'cold42 | tub: cold60 | sown: cold60', radicle: 120, habit: 'tap', leaf: 'large, bristle-tipped lobes' } }),
  more('QIL', 'Holm oak', 'Quercus ilex', { pace: 'slow', perKg: 420, shares: nutty, up: 220, evergreen: true, start: { keeps: 'recalcitrant', sigma: 80, thick: 13, wake: ' | cold30', radicle: 130, habit: 'tap', leaf: 'leathery, grey beneath, evergreen' } }),
  more('QSU', 'Cork oak', 'Quercus suber', { pace: 'slow', perKg: 200, shares: nutty, up: 210, evergreen: true, start: { keeps: 'recalcitrant', sigma: 80, thick: 16, wake: ' | cold30', radicle: 130, habit: 'tap', leaf: 'leathery, few teeth, evergreen' } }),
  more('QPU', 'Downy oak', 'Quercus pubescens', { pace: 'nut', perKg: 450, shares: nutty, up: 190, winters: 1, start: { keeps: 'recalcitrant', sigma: 75, thick: 13, wake: ' | sown: cold60', radicle: 110, habit: 'tap', leaf: 'lobed, downy beneath' } }),
  more('CSV', 'Sweet chestnut', 'Castanea sativa', { pace: 'nut', perKg: 250, shares: nutty, up: 180, winters: 1, start: { keeps: 'recalcitrant', sigma: 80, thick: 20, wake: 'cold56 | tub: cold70 | sown: cold70', radicle: 110, habit: 'tap', layer: [0.5, 1100], leaf: 'long, saw-toothed, alternate' } }),
  more('JRE', 'Walnut', 'Juglans regia', { pace: 'nut', perKg: 90, shares: nutty, up: 190, winters: 1, buds: 'late', start: { keeps: 'intermediate', sigma: 220, thick: 32, wake: 'cold70 | tub: cold98 | sown: cold98', radicle: 150, habit: 'tap', leaf: 'feathered, smooth edge, scented', care: ['Husks stain and irritate skin: gloves.'] } }),
  more('JNI', 'Black walnut', 'Juglans nigra', { pace: 'nut', perKg: 90, shares: nutty, up: 200, winters: 1, buds: 'late', start: { keeps: 'intermediate', sigma: 260, thick: 32, wake: 'cold112 | tub: cold120 | sown: cold120', radicle: 150, habit: 'tap', leaf: 'feathered, toothed, many leaflets', care: ['Husks stain and irritate skin: gloves.'] } }),
  more('CAV', 'Hazel', 'Corylus avellana', { pace: 'medium', perKg: 1_000, shares: usual, up: 120, winters: 1, buds: 'early', start: { keeps: 'intermediate', sigma: 180, thick: 14, wake: 'cold90 | tub: cold98 | sown: cold98', radicle: 90, habit: 'heart', layer: [0.8, 800], leaf: 'round, hairy, doubly toothed' } }),
  more('AHI', 'Horse chestnut', 'Aesculus hippocastanum', { pace: 'nut', perKg: 90, shares: nutty, up: 160, winters: 1, start: { keeps: 'recalcitrant', sigma: 90, thick: 30, wake: 'cold98 | sown: cold98', radicle: 100, habit: 'tap', leaf: 'hand of seven leaflets, sticky bud', care: [poisonous] } }),
  more('TPL', 'Large-leaved lime', 'Tilia platyphyllos', { pace: 'slow', perKg: 9_000, shares: chancy, up: 140, winters: 2, start: { keeps: 'orthodox', sigma: 900, thick: 6, wake: 'warm112 cold112 | sown: warm84 cold112', radicle: 110, habit: 'heart', layer: [0.7, 900], leaf: 'large heart, hairy beneath' } }),
  more('OCA', 'Hop hornbeam', 'Ostrya carpinifolia', { pace: 'slow', perKg: 60_000, shares: chancy, up: 120, winters: 2, start: { keeps: 'orthodox', sigma: 800, thick: 2, wake: 'warm56 cold120 | sown: warm56 cold120', radicle: 100, habit: 'heart', leaf: 'doubly toothed oval, hairy' } }),
  more('PAV', 'Wild cherry', 'Prunus avium', { pace: 'fast', perKg: 5_500, shares: usual, up: 100, winters: 1, start: { keeps: 'intermediate', sigma: 500, thick: 8, wake: 'warm14 cold126 | tub: warm14 cold126 | sown: warm20 cold120', radicle: 60, habit: 'heart', leaf: 'toothed oval, two red glands on the stalk' } }),
  more('PPA', 'Bird cherry', 'Prunus padus', { pace: 'fast', perKg: 19_000, shares: usual, up: 90, winters: 1, buds: 'early', start: { keeps: 'intermediate', sigma: 500, thick: 5, wake: 'cold126 | sown: cold126', radicle: 60, habit: 'fibrous', layer: [0.7, 750], leaf: 'fine-toothed oval, alternate' } }),
  more('MSY', 'Crab apple', 'Malus sylvestris', { pace: 'medium', perKg: 30_000, shares: usual, up: 90, winters: 1, start: { keeps: 'orthodox', sigma: 900, thick: 3, wake: 'cold98 | tub: cold98 | sown: cold98', radicle: 70, habit: 'heart', layer: [0.5, 900], leaf: 'toothed oval, alternate, hairless' } }),
  more('PPY', 'Wild pear', 'Pyrus pyraster', { pace: 'medium', perKg: 33_000, shares: usual, up: 90, winters: 1, start: { keeps: 'orthodox', sigma: 900, thick: 3, wake: 'cold98 | sown: cold98', radicle: 70, habit: 'tap', leaf: 'small, round, long stalk', care: [thorns] } }),
  more('SAR', 'Whitebeam', 'Sorbus aria', { pace: 'medium', perKg: 45_000, shares: chancy, up: 90, winters: 1, start: { keeps: 'orthodox', sigma: 1000, thick: 2, wake: 'warm14 cold126 | sown: cold126', radicle: 90, habit: 'heart', leaf: 'white felt beneath' } }),
  more('STO', 'Wild service tree', 'Sorbus torminalis', { pace: 'slow', perKg: 40_000, shares: chancy, up: 100, winters: 1, start: { keeps: 'orthodox', sigma: 900, thick: 2.5, wake: 'warm14 cold140 | sown: cold140', radicle: 90, habit: 'heart', cut: { root: [0.5, 500] }, leaf: 'maple-like but alternate' } }),
  more('SNI', 'Elder', 'Sambucus nigra', { pace: 'fast', perKg: 400_000, shares: chancy, up: 90, winters: 1, buds: 'early', start: { keeps: 'orthodox', sigma: 900, thick: 1.2, wake: 'warm70 cold84 | sown: warm60 cold100', radicle: 80, habit: 'fibrous', cut: { hard: [0.8, 300], soft: [0.8, 280] }, layer: [0.85, 500], leaf: 'feathered, opposite, rank scent', care: [poisonous] } }),
  more('LVU', 'Wild privet', 'Ligustrum vulgare', { pace: 'medium', perKg: 50_000, shares: usual, up: 100, winters: 1, start: { keeps: 'orthodox', sigma: 700, thick: 3, wake: 'cold70 | sown: cold84', radicle: 80, habit: 'fibrous', cut: { hard: [0.85, 350], 'semi-ripe': [0.85, 350] }, layer: [0.85, 600], leaf: 'narrow oval, opposite, smooth', care: [poisonous] } }),
  more('RCA', 'Purging buckthorn', 'Rhamnus cathartica', { pace: 'medium', perKg: 70_000, shares: usual, up: 100, winters: 1, start: { keeps: 'orthodox', sigma: 700, thick: 3, wake: 'cold84 | sown: cold98', radicle: 80, habit: 'fibrous', leaf: 'round, curved veins, nearly opposite', care: [poisonous] } }),
  more('FAL', 'Alder buckthorn', 'Frangula alnus', { pace: 'medium', perKg: 50_000, shares: usual, up: 100, winters: 1, start: { keeps: 'orthodox', sigma: 600, thick: 2.5, wake: 'cold56 | sown: cold84', radicle: 80, habit: 'fibrous', leaf: 'smooth-edged oval, alternate', care: [poisonous] } }),
  more('VLA', 'Wayfaring tree', 'Viburnum lantana', { pace: 'medium', perKg: 24_000, shares: usual, up: 120, winters: 2, start: { keeps: 'orthodox', sigma: 800, thick: 2.5, wake: 'warm90 cold90 | sown: warm80 cold100', radicle: 90, habit: 'fibrous', layer: [0.8, 700], leaf: 'thick, felted, opposite' } }),
  more('RCN', 'Dog rose', 'Rosa canina', { pace: 'medium', perKg: 55_000, shares: chancy, up: 100, winters: 2, start: { keeps: 'orthodox', sigma: 1200, thick: 2.5, wake: 'warm84 cold112 | sown: warm84 cold112', radicle: 80, habit: 'tap', cut: { hard: [0.6, 420] }, leaf: 'feathered, five to seven leaflets', care: [thorns] } }),
  more('CMA', 'Cornelian cherry', 'Cornus mas', { pace: 'slow', perKg: 5_000, shares: usual, up: 130, winters: 2, buds: 'early', start: { keeps: 'orthodox', sigma: 900, thick: 6, wake: 'warm112 cold112 | sown: warm90 cold112', radicle: 100, habit: 'heart', layer: [0.75, 850], leaf: 'glossy oval, curved veins, opposite' } }),
  more('HRH', 'Sea buckthorn', 'Hippophae rhamnoides', { pace: 'medium', perKg: 90_000, shares: usual, up: 90, winters: 1, start: { keeps: 'orthodox', sigma: 900, thick: 2, wake: 'cold84 | sown: cold84', radicle: 70, habit: 'fibrous', nodules: 'frankia', cut: { hard: [0.6, 420], 'semi-ripe': [0.75, 380], root: [0.6, 400] }, leaf: 'narrow, silver scales', care: [thorns] } }),
  more('RPS', 'Black locust', 'Robinia pseudoacacia', { pace: 'fast', perKg: 52_000, shares: [0.85, 0.75, 0.9, 0.85], up: 90, buds: 'late', start: { keeps: 'orthodox', sigma: 4000, thick: 2.5, wake: 'hot1 | scar1', radicle: 50, habit: 'heart', nodules: 'rhizobia', cut: { root: [0.7, 380] }, leaf: 'feathered, round leaflets, paired thorns', care: [poisonous, spreads, thorns] } }),
  more('GTR', 'Honey locust', 'Gleditsia triacanthos', { pace: 'fast', perKg: 6_000, shares: [0.85, 0.75, 0.9, 0.85], up: 100, buds: 'late', start: { keeps: 'orthodox', sigma: 4000, thick: 4, wake: 'hot1 soak1 | scar1', radicle: 60, habit: 'tap', leaf: 'fine feathered, thorny stem', care: [thorns] } }),
  more('CSI', 'Judas tree', 'Cercis siliquastrum', { pace: 'medium', perKg: 40_000, shares: usual, up: 120, winters: 1, start: { keeps: 'orthodox', sigma: 2500, thick: 2, wake: 'hot1 cold56 | scar1 cold56', radicle: 90, habit: 'tap', leaf: 'round heart, alternate' } }),
  more('CSC', 'Broom', 'Cytisus scoparius', { pace: 'medium', perKg: 120_000, shares: [0.8, 0.7, 0.85, 0.82], up: 80, start: { keeps: 'orthodox', sigma: 4000, thick: 1.2, wake: 'hot1 | scar1', radicle: 50, habit: 'tap', nodules: 'rhizobia', cut: { 'semi-ripe': [0.6, 420] }, leaf: 'green ridged twigs, tiny leaves', care: [poisonous, spreads] } }),
  more('LDE', 'Larch', 'Larix decidua', { pace: 'medium', perKg: 165_000, shares: chancy, up: 100, buds: 'early', start: { keeps: 'orthodox', sigma: 1800, thick: 2, wake: 'cold21 | ', radicle: 70, habit: 'heart', leaf: 'soft needles in tufts, shed in autumn' } }),
  more('PAB', 'Norway spruce', 'Picea abies', { pace: 'needle', perKg: 130_000, shares: [0.85, 0.75, 0.88, 0.85], up: 110, evergreen: true, start: { keeps: 'orthodox', sigma: 2500, thick: 2, wake: ' | cold21', radicle: 80, habit: 'fibrous', leaf: 'four-sided needles on pegs' } }),
  more('PSI', 'Sitka spruce', 'Picea sitchensis', { pace: 'needle', perKg: 400_000, shares: [0.85, 0.75, 0.88, 0.85], up: 110, evergreen: true, start: { keeps: 'orthodox', sigma: 2500, thick: 1.3, wake: 'cold28 | ', radicle: 80, habit: 'fibrous', cut: { 'semi-ripe': [0.7, 800] }, leaf: 'sharp flat needles, blue-white beneath' } }),
  more('AAL', 'Silver fir', 'Abies alba', { pace: 'slow', perKg: 22_000, shares: chancy, up: 130, evergreen: true, start: { keeps: 'intermediate', sigma: 400, thick: 4, wake: 'cold28 | sown: cold84', radicle: 90, habit: 'tap', leaf: 'flat needles, two white lines beneath' } }),
  more('PME', 'Douglas fir', 'Pseudotsuga menziesii', { pace: 'needle', perKg: 87_000, shares: [0.8, 0.75, 0.88, 0.85], up: 120, evergreen: true, start: { keeps: 'orthodox', sigma: 2200, thick: 2.5, wake: 'cold28 | ', radicle: 80, habit: 'heart', leaf: 'soft scented needles, pointed bud' } }),
  more('PNI', 'Black pine', 'Pinus nigra', { pace: 'needle', perKg: 50_000, shares: [0.85, 0.8, 0.9, 0.85], up: 110, evergreen: true, start: { keeps: 'orthodox', sigma: 2500, thick: 3, wake: ' | cold28', radicle: 80, habit: 'tap', leaf: 'long dark needles in pairs' } }),
  more('PPI', 'Stone pine', 'Pinus pinea', { pace: 'needle', perKg: 1_300, shares: [0.85, 0.8, 0.92, 0.85], up: 130, evergreen: true, start: { keeps: 'orthodox', sigma: 1500, thick: 8, wake: ' | soak1', radicle: 90, habit: 'tap', leaf: 'blue single juvenile needles' } }),
  more('PHA', 'Aleppo pine', 'Pinus halepensis', { pace: 'needle', perKg: 60_000, shares: [0.85, 0.8, 0.9, 0.85], up: 110, evergreen: true, start: { keeps: 'orthodox', sigma: 2500, thick: 2.5, wake: ' | soak1', radicle: 80, habit: 'tap', leaf: 'fine needles in pairs' } }),
  more('TBA', 'Yew', 'Taxus baccata', { pace: 'slow', perKg: 16_000, shares: chancy, up: 160, winters: 2, evergreen: true, start: { keeps: 'intermediate', sigma: 900, thick: 5, wake: 'warm112 cold112 | tub: warm84 cold112 | sown: warm84 cold112', radicle: 120, habit: 'heart', cut: { 'semi-ripe': [0.75, 900] }, leaf: 'flat dark needles, evergreen', care: [poisonous] } }),
  more('CSE', 'Italian cypress', 'Cupressus sempervirens', { pace: 'needle', perKg: 130_000, shares: chancy, up: 120, evergreen: true, start: { keeps: 'orthodox', sigma: 1800, thick: 1.5, wake: 'cold21 | ', radicle: 90, habit: 'heart', cut: { 'semi-ripe': [0.5, 800] }, leaf: 'tiny scales, evergreen' } }),
  more('CAT', 'Atlas cedar', 'Cedrus atlantica', { pace: 'needle', perKg: 14_000, shares: chancy, up: 120, evergreen: true, start: { keeps: 'intermediate', sigma: 500, thick: 4, wake: 'cold21 | ', radicle: 80, habit: 'tap', leaf: 'stiff needles in tufts, evergreen' } }),
  more('GBI', 'Ginkgo', 'Ginkgo biloba', { pace: 'slow', perKg: 600, shares: usual, up: 200, start: { keeps: 'intermediate', sigma: 250, thick: 12, wake: 'cold56 | ', radicle: 130, habit: 'tap', cut: { soft: [0.6, 500] }, leaf: 'fan', care: ['Seed coat blisters the skin: gloves.'] } }),
  more('MAL', 'White mulberry', 'Morus alba', { pace: 'fast', perKg: 450_000, shares: usual, up: 110, buds: 'late', start: { keeps: 'orthodox', sigma: 900, thick: 1, wake: 'cold42 | ', radicle: 70, habit: 'heart', cut: { hard: [0.6, 420], soft: [0.7, 350] }, layer: [0.8, 700], leaf: 'heart or lobed, glossy, milky sap', care: [spreads] } }),
  more('MGE', 'Medlar', 'Mespilus germanica', { pace: 'slow', perKg: 9_000, shares: chancy, up: 120, winters: 2, start: { keeps: 'orthodox', sigma: 900, thick: 5, wake: 'warm84 cold120 | sown: warm84 cold120', radicle: 90, habit: 'heart', leaf: 'long, downy, hardly toothed' } }),
  more('COB', 'Quince', 'Cydonia oblonga', { pace: 'medium', perKg: 30_000, shares: usual, up: 100, start: { keeps: 'orthodox', sigma: 700, thick: 3, wake: 'cold70 | sown: cold84', radicle: 70, habit: 'fibrous', cut: { hard: [0.65, 420] }, layer: [0.85, 650], leaf: 'round, felted beneath' } }),
  more('PDU', 'Almond', 'Prunus dulcis', { pace: 'fast', perKg: 400, shares: nutty, up: 120, buds: 'early', start: { keeps: 'intermediate', sigma: 700, thick: 14, wake: 'soak1 cold49 | sown: cold60', radicle: 70, habit: 'tap', leaf: 'long, narrow, fine teeth', care: ['Bitter kernels are poisonous.'] } }),
  more('PPE', 'Peach', 'Prunus persica', { pace: 'fast', perKg: 350, shares: usual, up: 110, buds: 'early', start: { keeps: 'intermediate', sigma: 500, thick: 14, wake: 'soak1 cold91 | sown: cold91', radicle: 70, habit: 'heart', cut: { 'semi-ripe': [0.5, 450] }, leaf: 'long, folded, fine teeth' } }),
  more('PAR', 'Apricot', 'Prunus armeniaca', { pace: 'fast', perKg: 700, shares: usual, up: 110, buds: 'early', start: { keeps: 'intermediate', sigma: 500, thick: 12, wake: 'soak1 cold56 | sown: cold70', radicle: 70, habit: 'heart', leaf: 'round heart, red stalk' } }),
  more('VVI', 'Grape vine', 'Vitis vinifera', { pace: 'fast', perKg: 35_000, shares: chancy, up: 130, buds: 'late', start: { keeps: 'orthodox', sigma: 900, thick: 3, wake: 'cold91', radicle: 90, habit: 'fibrous', cut: { hard: [0.85, 400] }, layer: [0.9, 550], leaf: 'five lobes, tendrils' } }),
  more('DLO', 'Date plum', 'Diospyros lotus', { pace: 'medium', perKg: 8_000, shares: usual, up: 130, start: { keeps: 'intermediate', sigma: 500, thick: 3, wake: 'cold56 | sown: cold70', radicle: 90, habit: 'tap', leaf: 'glossy oval, alternate' } }),
  more('FCA', 'Fig', 'Ficus carica', { pace: 'warm', perKg: 900_000, shares: chancy, up: 150, start: { keeps: 'orthodox', sigma: 900, thick: 0.8, wake: '', radicle: 90, habit: 'fibrous', cut: { hard: [0.85, 420] }, layer: [0.9, 600], leaf: 'large, rough, deep lobes', care: [sap] } }),
  more('PGR', 'Pomegranate', 'Punica granatum', { pace: 'warm', perKg: 30_000, shares: usual, up: 150, start: { keeps: 'orthodox', sigma: 700, thick: 3, wake: '', radicle: 90, habit: 'fibrous', cut: { hard: [0.8, 450] }, layer: [0.85, 650], leaf: 'narrow, glossy, red when young' } }),
  more('OEU', 'Olive', 'Olea europaea', { pace: 'slow', perKg: 2_000, shares: chancy, up: 260, evergreen: true, start: { keeps: 'orthodox', sigma: 1200, thick: 7, wake: 'scar1 soak1', radicle: 160, habit: 'heart', cut: { 'semi-ripe': [0.55, 900] }, layer: [0.6, 1200], leaf: 'narrow, silver beneath, opposite' } }),
  more('CES', 'Carob', 'Ceratonia siliqua', { pace: 'slow', perKg: 5_500, shares: usual, up: 220, evergreen: true, start: { keeps: 'orthodox', sigma: 4000, thick: 4, wake: 'hot1 soak1 | scar1', radicle: 120, habit: 'tap', layer: [0.6, 1200], leaf: 'feathered, round leathery leaflets' } }),
  more('PLE', 'Mastic', 'Pistacia lentiscus', { pace: 'slow', perKg: 60_000, shares: chancy, up: 180, evergreen: true, start: { keeps: 'orthodox', sigma: 700, thick: 3, wake: ' | cold28', radicle: 110, habit: 'tap', leaf: 'feathered, winged stalk, evergreen', care: [sap] } }),
  more('AUN', 'Strawberry tree', 'Arbutus unedo', { pace: 'slow', perKg: 450_000, shares: usual, up: 170, evergreen: true, start: { keeps: 'orthodox', sigma: 900, thick: 1.2, wake: 'cold56 | cold30', radicle: 110, habit: 'fibrous', cut: { 'semi-ripe': [0.5, 900] }, leaf: 'glossy, toothed, red stalk' } }),
  more('MCO', 'Myrtle', 'Myrtus communis', { pace: 'slow', perKg: 150_000, shares: usual, up: 170, evergreen: true, start: { keeps: 'orthodox', sigma: 700, thick: 2, wake: ' | cold28', radicle: 110, habit: 'fibrous', cut: { 'semi-ripe': [0.75, 600] }, leaf: 'small, pointed, scented, opposite' } }),
  more('LNO', 'Bay', 'Laurus nobilis', { pace: 'slow', perKg: 1_000, shares: usual, up: 220, evergreen: true, start: { keeps: 'recalcitrant', sigma: 70, thick: 9, wake: 'cold56 | ', radicle: 140, habit: 'tap', cut: { 'semi-ripe': [0.55, 900] }, layer: [0.7, 1000], leaf: 'leathery, wavy edge, scented' } }),
  more('PTF', 'Trifoliate orange', 'Citrus trifoliata', { pace: 'warm slow', perKg: 5_500, shares: nutty, up: 200, start: { keeps: 'recalcitrant', sigma: 90, thick: 5, wake: ' | cold28', radicle: 130, habit: 'tap', cut: { 'semi-ripe': [0.7, 550] }, layer: [0.85, 800], leaf: 'three leaflets, long green thorns', care: [thorns] } }),
  more('PAM', 'Avocado', 'Persea americana', { pace: 'warm slow', perKg: 30, shares: nutty, up: 320, evergreen: true, start: { keeps: 'recalcitrant', sigma: 25, thick: 45, wake: '', radicle: 220, habit: 'tap', layer: [0.5, 1300], leaf: 'large, smooth, copper when young' } }),
  more('MIN', 'Macadamia', 'Macadamia integrifolia', { pace: 'warm slow', perKg: 150, shares: nutty, up: 420, evergreen: true, start: { keeps: 'recalcitrant', sigma: 80, thick: 20, wake: 'soak1', radicle: 260, habit: 'tap', layer: [0.6, 1300], leaf: 'whorls of three, few spines' } }),
  more('MID', 'Mango', 'Mangifera indica', { pace: 'warm slow', perKg: 50, shares: nutty, up: 300, evergreen: true, start: { keeps: 'recalcitrant', sigma: 20, thick: 20, wake: '', radicle: 200, habit: 'tap', layer: [0.6, 1200], leaf: 'long, drooping, red when young', care: [sap] } }),
  more('LCH', 'Litchi', 'Litchi chinensis', { pace: 'warm slow', perKg: 350, shares: nutty, up: 260, evergreen: true, start: { keeps: 'recalcitrant', sigma: 6, thick: 12, wake: '', radicle: 160, habit: 'heart', layer: [0.88, 1000], leaf: 'feathered, glossy, few leaflets' } }),
  more('PGU', 'Guava', 'Psidium guajava', { pace: 'warm', perKg: 350_000, shares: usual, up: 260, evergreen: true, start: { keeps: 'orthodox', sigma: 1200, thick: 2, wake: 'soak1 | ', radicle: 150, habit: 'fibrous', cut: { soft: [0.6, 600] }, layer: [0.85, 850], leaf: 'ribbed oval, opposite, peeling bark', care: [spreads] } }),
  more('AML', 'Blackwood', 'Acacia melanoxylon', { pace: 'warm', perKg: 65_000, shares: [0.85, 0.75, 0.9, 0.85], up: 130, evergreen: true, start: { keeps: 'orthodox', sigma: 5000, thick: 2, wake: 'hot1 soak1 | scar1', radicle: 80, habit: 'tap', nodules: 'rhizobia', leaf: 'feathered first, then flat stalks', care: [spreads] } }),
  more('GRO', 'Silky oak', 'Grevillea robusta', { pace: 'warm', perKg: 70_000, shares: usual, up: 180, evergreen: true, start: { keeps: 'orthodox', sigma: 700, thick: 1.5, wake: ' | soak1', radicle: 110, habit: 'fibrous', leaf: 'ferny, silver beneath', care: [sap] } }),
  more('CCU', 'River she-oak', 'Casuarina cunninghamiana', { pace: 'warm', perKg: 1_500_000, shares: chancy, up: 150, evergreen: true, start: { keeps: 'orthodox', sigma: 900, thick: 0.8, wake: '', radicle: 80, habit: 'fibrous', nodules: 'frankia', cut: { soft: [0.6, 450] }, leaf: 'jointed green twigs', care: [spreads] } }),
  more('EGL', 'Blue gum', 'Eucalyptus globulus', { pace: 'warm', perKg: 350_000, shares: usual, up: 120, evergreen: true, start: { keeps: 'orthodox', sigma: 3000, thick: 1.2, wake: '', radicle: 70, habit: 'heart', leaf: 'blue, opposite, stem-clasping when young', care: [spreads] } }),
  more('ECA', 'River red gum', 'Eucalyptus camaldulensis', { pace: 'warm', perKg: 700_000, shares: usual, up: 120, evergreen: true, start: { keeps: 'orthodox', sigma: 3000, thick: 0.8, wake: '', radicle: 70, habit: 'heart', cut: { soft: [0.6, 450] }, leaf: 'narrow, red stem', care: [spreads] } }),
  more('JMI', 'Jacaranda', 'Jacaranda mimosifolia', { pace: 'warm', perKg: 70_000, shares: usual, up: 170, start: { keeps: 'orthodox', sigma: 900, thick: 1.5, wake: 'soak1 | ', radicle: 100, habit: 'heart', leaf: 'twice feathered, fine, opposite', care: [spreads] } }),
  more('MAZ', 'White cedar', 'Melia azedarach', { pace: 'warm', perKg: 1_500, shares: usual, up: 220, start: { keeps: 'orthodox', sigma: 1200, thick: 9, wake: 'soak2 | scar1', radicle: 130, habit: 'heart', cut: { root: [0.6, 450], hard: [0.6, 450] }, leaf: 'twice feathered, toothed', care: [poisonous, spreads] } }),
  more('TCI', 'Red cedar', 'Toona ciliata', { pace: 'warm', perKg: 300_000, shares: chancy, up: 150, start: { keeps: 'orthodox', sigma: 700, thick: 1, wake: '', radicle: 90, habit: 'heart', leaf: 'feathered, long leaflets, alternate' } }),
];

/** All species the library knows, those every new nursery starts with first. */
export const speciesLibrary: readonly StartingSpecies[] = [...startingSpecies, ...furtherSpecies];
