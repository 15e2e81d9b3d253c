import { inWords } from '@kauri/core';

/** An idea that Kauri works with: what it is and what it is for, in two sentences. */
export interface Idea {
  name: string;
  is: string;
  use: string;
}

/** The ideas behind the screens. Where a figure is a rule of thumb it says so. */
export const ideas = inWords(
  {
    groundLine: {
      name: 'Ground line',
      is: 'A lot’s course drawn as the tree stands: height grows up from the line, root fill down from it.',
      use: 'Solid is past, broken is forecast; the pale band holds eight forecasts in ten.',
    },
    rootFill: {
      name: 'Root fill',
      is: 'How far roots have taken up their medium, from 0 to 1: from about 0.65 a plug holds its shape, from 1 it is root-bound.',
      use: 'It is worked out from warmth and from the plugs you pull; pulling a few is what sharpens it most.',
    },
    window: {
      name: 'Window',
      is: 'The days on which a step suits: open when it can be done, closed when it harms or is too late.',
      use: 'Its ends are uncertain, so each is given early, middle and late; stay inside the early close and you are safe nine times in ten.',
    },
    odds: {
      name: 'Odds',
      is: 'Kauri runs every lot through many possible seasons, from past weather and from what is not known of the trees.',
      use: 'Nine in ten means that in nine of ten such seasons it came out so; they are told to be held against what happens.',
    },
    working: {
      name: 'Working',
      is: 'The sum behind a figure, with the numbers put in and where each is from: your record, a choice, a standard or a starting value.',
      use: 'Starting values are ordinary published ones; your own records take their place as they come.',
    },
    warmth: {
      name: 'Warmth',
      is: 'Thermal time: each day’s warmth above what the species grows from, added up in degree-days.',
      use: 'Plants go by it more than by the calendar, so a cold spring moves every date that rests on it.',
    },
    chill: {
      name: 'Chill',
      is: 'Hours of cold that bring buds and seed through their rest.',
      use: 'A tree lifted before its chill is met stores badly, and seed without it stays asleep.',
    },
    dormancy: {
      name: 'Two clocks of seed',
      is: 'Cold takes dormancy away, warmth then brings the radicle; each has a clock of its own.',
      use: 'Too little of the first and little comes up; too much after it and radicles come in the bag.',
    },
    share: {
      name: 'Share that goes on',
      is: 'Of a hundred that begin a step, how many finish it: come up, live on, make the grade.',
      use: 'It starts from ordinary values and moves toward yours; the fewer your lots, the wider its range.',
    },
    standing: {
      name: 'Standing',
      is: 'What the ledger says is alive in a lot: sown and come up, less every loss written down, and set right by each count.',
      use: 'Nothing can be lifted, promised or sent that is not standing or lying somewhere.',
    },
    verdict: {
      name: 'Root verdict',
      is: 'Plants are pulled one by one, and after each the plan says accept, reject or pull another.',
      use: 'It pulls few where a lot is clearly good or bad, and keeps the two risks you chose: refusing a good lot, passing a bad one.',
    },
    promise: {
      name: 'Free to promise',
      is: 'The most that can still be promised on a day, when every lot serves only while it is fit and no promise is broken.',
      use: 'Ask it while the buyer is on the line: it names the lots behind the answer, and the odds.',
    },
    route: {
      name: 'Route',
      is: 'How a kind of tree is raised here, stage by stage: where it stands, for how long, what share goes on, what it costs.',
      use: 'When to sow, how much seed and what a tree costs all follow from it; edit it until it is yours.',
    },
    exposure: {
      name: 'Exposure clock',
      is: 'Minutes that bare roots stand before fine ones dry, from the sun, wind and dryness of the air now.',
      use: 'A rule of thumb: start it when the first root sees air, and cover or dip before it runs out.',
    },
    parcel: {
      name: 'Parcel',
      is: 'Lifted trees of one lot and grade lying in one place.',
      use: 'Parcels are what is set aside, loaded and sent; each can be traced back to its seed.',
    },
    lived: {
      name: 'What lived',
      is: 'The share found alive at the last walk, with the range the true one lies in nine times in ten.',
      use: 'Small groups are read beside the others, so that three trees of three do not look better than ninety of a hundred.',
    },
  } as const satisfies Record<string, Idea>,
  'name',
  'is',
  'use',
);
export type IdeaKey = keyof typeof ideas;

/** Words of the trade, each in a line. */
export const terms = inWords(
  [
    { name: 'Air-pruning', is: 'A root tip that meets dry air stops, and the root branches behind it.' },
    { name: 'Liner', is: 'A young tree raised to be planted on: bare-root, plug or pot.' },
    { name: 'Plug', is: 'A young tree with the medium its roots hold together.' },
    { name: 'Bare-root', is: 'Lifted at rest without medium, to be kept moist until it is planted.' },
    { name: 'Pricking out', is: 'Moving seedlings from a flat into cells, at their first true leaves.' },
    { name: 'Moving up', is: 'Into a larger container, before the roots circle in the old one.' },
    { name: 'Spreading', is: 'Setting trays or pots apart, so that neighbours do not shade each other.' },
    { name: 'Lifting', is: 'Taking trees out of a bed, at rest.' },
    { name: 'Heeling in', is: 'Laying lifted trees in a trench with their roots covered, until they go.' },
    { name: 'Collar', is: 'Where stem and root meet; its thickness tells more of a tree than its height.' },
    { name: 'Sturdiness', is: 'Height in centimetres over collar in millimetres: the lower, the sturdier.' },
    { name: 'J-root', is: 'A root bent up when it was planted or pricked out; it stays bent.' },
    { name: 'Provenance', is: 'Where the seed’s parents stood.' },
    { name: 'Recalcitrant seed', is: 'Seed that dies when it dries, so it is kept moist and not for long.' },
    { name: 'Riser', is: 'A second frame on a bed, for depth, that lifts off at harvest.' },
    { name: 'Held over', is: 'Kept another season because it is not yet to size.' },
  ] as const,
  'name',
  'is',
);
