/** Writes the demo set: cards for the open nights of the Quillmoor Observatory. Run: npm run examples */
import { writeFileSync } from 'node:fs';
import { addMechanism } from '../src/core/document/standing';
import { blankDesign, CENTRE, newLayer, type Design, type Mechanism, type Mount } from '../src/core/document/design';
import { prove } from '../src/core/proof/prove';
import { STARTER_SHAPES } from '../src/core/shapes/starter';
import type { ShapeAsset, ShapeStep, Shape } from '../src/core/shapes/shape';
import { shelveFonts } from '../src/fonts/shelve';

shelveFonts();

type Wanted = Pick<Mechanism, 'id' | 'kind' | 'name' | 'on' | 'parameters'> & { stock?: string };
const stand = (design: Design, list: readonly Wanted[]): Design =>
  list.reduce((d, { id, kind, name, on, parameters, stock }) => {
    const added = addMechanism(d, kind, on, parameters, id).design;
    return {
      ...added,
      mechanisms: added.mechanisms.map((m) => (m.id === id ? { ...m, name, stock: stock ?? m.stock } : m)),
    };
  }, design);

/** A terrace of nested steps under the dome. */
const terrace: Design = {
  ...stand(
    { ...blankDesign('Terrace night', 190, 130), card: { ...blankDesign('', 190, 130).card, stock: 'night-216' } },
    [
      {
        id: 'terrace',
        kind: 'step-fold',
        name: 'Lower terrace',
        on: 'card.gutter',
        parameters: { depth: 46, height: 30, width: 128 },
      },
      {
        id: 'stair',
        kind: 'step-fold',
        name: 'Stair',
        on: 'terrace.base',
        parameters: { depth: 22, height: 15, width: 44 },
      },
      {
        id: 'gallery',
        kind: 'step-fold',
        name: 'Gallery',
        on: 'terrace.wall',
        parameters: { depth: 24, height: 36, width: 92 },
      },
      {
        id: 'dome',
        kind: 'v-fold',
        name: 'Dome',
        on: 'gallery.wall',
        parameters: { lean: 56, fold: 72, size: 26, offset: -8, tab: 9, relief: 2.2 },
        stock: 'brass-120',
      },
      {
        id: 'lamp',
        kind: 'step-fold',
        name: 'Lamp post',
        on: 'card.gutter',
        parameters: { depth: 14, height: 26, width: 10, offset: 78 },
      },
    ],
  ),
  post: { envelope: null, format: 'uk-large-letter' },
  dressing: [
    { facet: 'terrace.riser', mats: [{ insetMm: 3, stock: 'brass-120' }] },
    { facet: 'terrace.tread', colour: '#7f8ca6', mats: [] },
    { facet: 'gallery.riser', colour: '#c9d3e6', mats: [] },
    { facet: 'gallery.tread', colour: '#9fabc4', mats: [] },
    { facet: 'stair.riser', colour: '#e3c37a', mats: [] },
    { facet: 'lamp.riser', colour: '#f3dfa8', mats: [] },
  ],
  notes: 'Open night on the terrace at Quillmoor: steps cut from one sheet, the dome glued over the gallery.',
};

/** A flat ring as it is seen aslant, mm. */
const RING: Shape = { path: 'M-31 0A31 8 0 1 1 31 0A31 8 0 1 1 -31 0ZM-25 0A25 4.6 0 1 0 25 0A25 4.6 0 1 0 -25 0Z' };

/** A V-fold telescope that fits a C6 envelope. */
const telescope: Design = {
  ...stand(
    { ...blankDesign('Refractor evening', 156, 108), card: { ...blankDesign('', 156, 108).card, stock: 'card-240' } },
    [
      {
        id: 'refractor',
        kind: 'v-fold',
        name: 'Refractor',
        on: 'card.gutter',
        parameters: { lean: 52, fold: 84, size: 62, offset: -7, tab: 12 },
        stock: 'night-216',
      },
      {
        id: 'pier',
        kind: 'step-fold',
        name: 'Pier',
        on: 'card.gutter',
        parameters: { depth: 20, height: 34, width: 26, offset: 56 },
      },
      {
        id: 'ledge',
        kind: 'step-fold',
        name: 'Ledge',
        on: 'pier.base',
        parameters: { depth: 9, height: 12, width: 12 },
      },
      {
        id: 'sign',
        kind: 'step-fold',
        name: 'Sign, glued',
        on: 'card.gutter',
        parameters: { depth: 26, height: 16, riser: 22, tread: 32, width: 26, offset: -58, build: 'glued', tab: 9 },
        stock: 'brass-120',
      },
    ],
  ),
  post: { envelope: 'C6', format: 'uk-letter' },
  dressing: [
    { facet: 'refractor.panelA', mats: [{ insetMm: 4, stock: 'brass-120' }] },
    { facet: 'refractor.panelB', mats: [{ insetMm: 4, stock: 'brass-120' }] },
    { facet: 'pier.riser', colour: '#b9c3d6', mats: [] },
    { facet: 'leafB', side: 'outside', mats: [{ insetMm: 6, corners: 'round', stock: 'night-216' }] },
  ],
  layers: [
    {
      ...newLayer({
        id: 'planet',
        name: 'Planet',
        facet: 'leafB',
        side: 'outside',
        shape: { circle: 38 },
        as: 'layer',
        stock: 'brass-120',
      }),
      x: -16,
      foamMm: 1,
    },
    {
      ...newLayer({
        id: 'ring',
        name: 'Ring of the planet',
        facet: 'leafB',
        side: 'outside',
        shape: RING,
        as: 'layer',
        stock: 'card-160',
      }),
      x: -16,
      turnDeg: -68,
    },
    {
      ...newLayer({
        id: 'imprint',
        name: 'Imprint',
        facet: 'leafA',
        side: 'outside',
        shape: { text: { string: 'Quillmoor Observatory', font: 'fredoka', size: 7 } },
        as: 'drawn',
        stock: 'card-160',
      }),
      from: { x: 'high', y: 'middle' },
      x: -8,
      turnDeg: -90,
    },
  ],
  notes: 'The old refractor, ready for the ringed planet.',
};

/** An off-centre card whose insert folds out, with a seal over the flap's free edge. */
const season: Design = {
  ...blankDesign('Season programme'),
  card: {
    ...blankDesign('').card,
    construction: 'gate-insert',
    stock: 'night-216',
    pageStock: 'card-160',
    parameters: {
      ...{ length: 215.9, height: 107.95, score: 76.2, mat: 3.2 },
      ...{ insertLength: 215.9, insertHeight: 82.55, insertScore: 107.95 },
    },
  },
  post: { envelope: 'us-a2', format: 'usps-letter' },
  dressing: [
    { facet: 'leafB', side: 'outside', mats: [{ insetMm: 1.6, stock: 'brass-120' }] },
    { facet: 'insertB', side: 'outside', mats: [{ insetMm: 1.6, stock: 'brass-120' }] },
    { facet: 'insertB', mats: [{ insetMm: 1.6, stock: 'brass-120' }] },
  ],
  layers: [
    {
      ...newLayer({
        ...{ id: 'seal', name: 'Seal', facet: 'leafB', side: 'outside', as: 'layer', stock: 'card-160' },
        shape: { star: { points: 12, outer: 40, inner: 33 } },
      }),
      from: { x: 'middle', y: 'low' },
      y: -16,
    },
  ],
  artwork: [
    {
      ...{ id: 'seal-words', name: 'Words of the seal', on: 'layer.seal', x: 0, y: 0, turnDeg: 0 },
      ...{ widthMm: 24, bleedMm: 0 },
      what: { text: { string: 'OPEN\nNIGHTS', font: 'lora', size: 7 }, colour: '#7a4a12' },
    },
  ],
  sheets: { marginMm: 5, spacingMm: 3, copies: 1, print: { marks: true, backs: 'none' } },
  notes: 'The open nights of the season, on an insert that folds out. The seal is stuck to the flap only.',
};

/**
 * Two deliberate faults: the chart table reaches past the fore edge, and two slits leave too little paper between
 * them.
 */
const survey: Design = {
  ...stand(blankDesign('Sky survey (two faults)', 150, 100), [
    {
      id: 'table',
      kind: 'step-fold',
      name: 'Chart table',
      on: 'card.gutter',
      parameters: { depth: 58, height: 46.5, width: 62, offset: -24 },
    },
    {
      id: 'plates',
      kind: 'step-fold',
      name: 'Plate rack',
      on: 'card.gutter',
      parameters: { depth: 26, height: 38, width: 40, offset: 28.8 },
    },
    {
      id: 'drawer',
      kind: 'step-fold',
      name: 'Drawer',
      on: 'table.base',
      parameters: { depth: 16, height: 18, width: 30 },
    },
  ]),
  post: { envelope: 'C6', format: 'uk-letter' },
  dressing: [
    { facet: 'table.riser', colour: '#d9c9a3', mats: [] },
    { facet: 'plates.riser', colour: '#b8c4d8', mats: [] },
  ],
  notes: 'Begun in a hurry before the survey night. Prove says what is wrong with it.',
};

/** A silhouette of the starter set on the card's shelf. */
const starter = (id: string, steps: readonly ShapeStep[] = []): ShapeAsset => {
  const { name, source } = STARTER_SHAPES.find((s) => s.id === id)!;
  return { id, name, source, steps };
};
const own = (id: string, name: string, source: Shape, steps: readonly ShapeStep[] = []): ShapeAsset => ({
  id,
  name,
  source,
  steps,
});
const at = (asset: string): Shape => ({ asset });

/** A ridge on struts, and the observatory in front of it: a figure that stands on another's foot. */
const skyline: Design = {
  ...stand(
    {
      ...blankDesign('Dome skyline', 180, 120),
      card: { ...blankDesign('', 180, 120).card, stock: 'night-216' },
      shapes: [starter('ridge-line', [{ do: 'size', width: 152, height: 66 }]), starter('dome'), starter('cabin')],
    },
    [
      {
        id: 'ridge',
        kind: 'strut-figure',
        name: 'Ridge',
        on: 'card.gutter',
        parameters: {
          shape: at('ridge-line'),
          figureHeight: 66,
          depth: 16,
          // By hand: at its low end the ridge is too narrow below a strut.
          struts: [-53.25, -24.75, 7.75, 30.5, 59].map((x) => ({ x, width: 5 })),
        },
      },
      {
        id: 'domes',
        kind: 'strut-figure',
        name: 'Dome',
        on: 'ridge.foot-1',
        parameters: { shape: at('dome'), figureHeight: 36, depth: 20, offset: 22, strutMin: 5 },
      },
      {
        id: 'cabin',
        kind: 'strut-figure',
        name: 'Night cabin',
        on: 'ridge.foot-1',
        parameters: { shape: at('cabin'), figureHeight: 33, depth: 14, offset: -48, strutMin: 4 },
      },
    ],
  ),
  post: { envelope: 'C5', format: 'uk-letter' },
  dressing: [
    { facet: 'ridge.figure', colour: '#8b93b5', mats: [] },
    { facet: 'domes.figure', colour: '#e9dfc6', mats: [] },
    { facet: 'cabin.figure', colour: '#c9a27a', mats: [] },
  ],
  notes: 'The ridge above Quillmoor with its two domes. Everything is cut from the page.',
};

/** Three planes and lettering that stands on a platform. */
const ridge: Design = {
  ...stand(
    {
      ...blankDesign('Night ridge', 190, 130),
      card: { ...blankDesign('', 190, 130).card, stock: 'night-216' },
      shapes: [
        starter('hill'),
        starter('ridge-line'),
        own('title', 'Moor', { text: { string: 'MOOR', font: 'fredoka', size: 28, spacing: 5 } }),
      ],
    },
    [
      {
        id: 'planes',
        kind: 'plane-stack',
        name: 'Ridge, hill and terrace',
        on: 'card.gutter',
        parameters: {
          planes: [
            { depth: 14, base: 0, height: 70, width: 150, offset: 0, shape: at('ridge-line') },
            { depth: 34, base: 0, height: 44, width: 118, offset: 0, joins: 0 },
            { depth: 62, base: 0, height: 14, width: 102, offset: 0, joins: 1 },
          ],
          contact: 30,
        },
      },
      {
        id: 'title',
        kind: 'strut-figure',
        name: 'Moor',
        on: 'planes.wall-3',
        parameters: { shape: at('title'), figureHeight: 20, depth: 13, strutMin: 5, footMin: 6 },
      },
    ],
  ),
  dressing: [
    { facet: 'planes.plane-1', colour: '#6f7aa6', mats: [] },
    { facet: 'planes.plane-1-part-2', colour: '#6f7aa6', mats: [] },
    ...[1, 2, 3, 4].map((k) => ({ facet: `title.figure-${k}`, colour: '#efe2b8', mats: [] })),
    { facet: 'planes.plane-2', colour: '#8f9a7c', mats: [] },
    { facet: 'planes.plane-3', colour: '#c8b98e', mats: [] },
  ],
  notes: 'Three planes one behind the other, each platform on the plane behind; the lettering stands on the front one.',
};

/** A folded note whose dome stays up past the fold. */
const note: Design = {
  ...stand(
    {
      ...blankDesign('Dome note', 150, 86),
      card: { ...blankDesign('', 150, 86).card, stock: 'card-240' },
      shapes: [
        starter('dome'),
        starter('ringed-planet'),
        own('hours', 'Open night', { text: { string: 'OPEN', font: 'fredoka', size: 37, spacing: 5 } }, [
          { do: 'ties', width: 3.4, count: 2, turn: null, moved: [] },
        ]),
      ],
    },
    [
      {
        id: 'dome',
        kind: 'half-cut',
        name: 'Dome',
        on: 'card.gutter',
        parameters: { shape: at('dome'), figureHeight: 62, rise: 24 },
      },
    ],
  ),
  post: { envelope: 'C6', format: 'uk-letter' },
  layers: [
    {
      id: 'planet',
      name: 'Ringed planet',
      facet: 'leafB',
      shape: at('ringed-planet'),
      as: 'layer',
      from: { x: 'middle', y: 'low' },
      x: 0,
      y: 14,
      turnDeg: 0,
      width: 46,
      height: null,
      stock: 'brass-120',
      foamMm: 0,
      foamInsetMm: 3,
    },
    {
      id: 'open',
      name: 'Open',
      facet: 'leafA',
      shape: at('hours'),
      as: 'window',
      from: { x: 'middle', y: 'high' },
      x: 0,
      y: -10,
      turnDeg: 180,
      width: null,
      height: null,
      stock: 'card-160',
      foamMm: 0,
      foamInsetMm: 3,
    },
  ],
  notes: 'Stands on a shelf as a tent; the dome looks over the fold.',
};

/** A comet lifted off the gutter. */
const comet: Design = {
  ...stand(
    {
      ...blankDesign('Comet watch', 170, 115),
      card: { ...blankDesign('', 170, 115).card, stock: 'night-216' },
      shapes: [starter('comet'), starter('star'), starter('hill')],
    },
    [
      {
        id: 'comet',
        kind: 'floating-band',
        name: 'Comet',
        on: 'card.gutter',
        parameters: { slit: 92, width: 34, figure: at('comet'), figureHeight: 46, offset: -10 },
        stock: 'brass-120',
      },
      {
        id: 'star',
        kind: 'floating-band',
        name: 'Star',
        on: 'card.gutter',
        parameters: { slit: 52, width: 16, figure: at('star'), figureHeight: 34, offset: 54 },
        stock: 'card-160',
      },
    ],
  ),
  post: { envelope: 'C5', format: 'uk-letter' },
  notes: 'Both float about a centimetre over the fold when the card lies nearly flat.',
};

/** Something fixed on a face. */
const fix = (
  design: Design,
  on: string,
  mount: Partial<Mount>,
  { id, kind, name, parameters }: Omit<Wanted, 'on' | 'stock'>,
): Design => {
  const added = addMechanism(design, kind, { on, mount: { ...CENTRE, ...mount } }, parameters, id).design;
  return { ...added, mechanisms: added.mechanisms.map((m) => (m.id === id ? { ...m, name } : m)) };
};
const side = (name: string, gutter: number, reach: number, stock: string): Design => {
  const plain = blankDesign(name, gutter, reach);
  return { ...plain, card: { ...plain.card, stock } };
};

const PHASES = ['new', 'young', 'first half', 'waxing', 'full', 'waning', 'last half', 'old'];
/** Eight phases behind a window in the cover, and a ticket inside. */
const moon: Design = {
  ...fix(
    fix(
      side('Moon phases', 148, 105, 'night-216'),
      'leafB',
      { side: 'outside', y: 14 },
      {
        id: 'moon',
        kind: 'volvelle',
        name: 'Moon',
        parameters: {
          width: 90,
          height: 90,
          corner: 6,
          radius: 36,
          pivot: { x: 0, y: -3 },
          sectors: 8,
          windows: [{ inner: 16, outer: 33, span: 42, at: 90 }],
          contents: PHASES.map((text) => ({ text, size: 4 })),
          notch: 8,
        },
      },
    ),
    'leafA',
    { side: 'inside', y: -22 },
    {
      id: 'ticket',
      kind: 'pocket',
      name: 'Ticket pocket',
      parameters: { width: 96, height: 56, tape: 8, insertWidth: 76, insertHeight: 58, notch: 10 },
    },
  ),
  post: { envelope: 'C6', format: 'uk-letter' },
  notes: 'Turn the disc by its lower edge: the name of each phase reads upright in the window.',
};

/** A meteor on a curved track, and a dome that rises by a strip. Two faults: it falls out of its slot, no notch. */
const meteor: Design = {
  ...fix(
    fix(
      side('Meteor night', 190, 140, 'night-216'),
      'leafB',
      { side: 'outside', y: 30 },
      {
        id: 'meteor',
        kind: 'track-slider',
        name: 'Meteor',
        parameters: {
          width: 126,
          height: 74,
          corner: 5,
          path: { curve: 'M 0 26 C 20 -6 56 -10 84 8' },
          slot: 15.6,
          spacer: 8,
          carrier: 24,
        },
      },
    ),
    'leafA',
    { side: 'inside', y: 6 },
    {
      id: 'rising',
      kind: 'lift-tab',
      name: 'Rising dome',
      parameters: { lower: 34, upper: 40, width: 60, strip: 18, glueTab: 12, notch: 5 },
    },
  ),
  post: { envelope: 'C5', format: 'uk-large-letter' },
  notes: 'Two things are wrong with it, on purpose: see what Prove says.',
};

/** A wheel of lamps on one leaf, planets that tumble on the other. */
const orrery: Design = {
  ...fix(
    fix(
      side('Orrery', 200, 143, 'night-216'),
      'leafB',
      { side: 'inside' },
      {
        id: 'lamps',
        kind: 'carrier-wheel',
        name: 'Lamp wheel',
        parameters: {
          spokes: 6,
          arm: 40,
          carrier: { width: 18, height: 24, hang: 5 },
          hub: 18,
          spacers: [{ thickness: 1 }],
        },
      },
    ),
    'leafA',
    { side: 'inside' },
    {
      id: 'planets',
      kind: 'waterfall',
      name: 'Planets',
      parameters: { count: 4, panelHeight: 46, panelWidth: 52, pitch: 12, beltWidth: 18, rivetGap: 23 },
    },
  ),
  notes: 'Turn the wheel: the lamps hang upright. Pull the tab: the planets tumble one after another.',
};

/** A card that stands by itself: the dome on its plate, the open nights written on its base. */
const shelf: Design = {
  ...blankDesign('Dome on the shelf'),
  card: {
    ...blankDesign('').card,
    construction: 'easel',
    stock: 'night-216',
    pageStock: 'card-240',
    parameters: { width: 107.95, height: 107.95, stop: 80, stopHeight: 2, stopWidth: 8 },
  },
  post: { envelope: 'us-a2', format: 'usps-letter' },
  dressing: [{ facet: 'plate', mats: [{ insetMm: 3.2, stock: 'night-216' }] }],
  layers: [
    {
      ...newLayer({
        ...{ id: 'dome', name: 'Dome', facet: 'plate', as: 'layer', stock: 'card-160' },
        shape: { asset: 'dome' },
      }),
      from: { x: 'middle', y: 'low' },
      y: 12,
      width: 70,
    },
  ],
  shapes: [starter('dome')],
  notes: 'It stands against its stop with the dome upright; lift the plate to read the open nights on the base.',
};

/** A planet on its axis: stem, globe and star, each a bundle of leaves that fans out over the fold. */
const planet: Design = {
  ...stand(
    { ...blankDesign('Planet on its axis', 180, 120), card: { ...blankDesign('', 180, 120).card, stock: 'night-216' } },
    [
      {
        id: 'planet',
        kind: 'leaf-bundle',
        name: 'Planet',
        on: 'card.gutter',
        parameters: {
          shape: { rect: { width: 16, height: 40 } },
          count: 3,
          height: 40,
          stack: [
            { shape: { circle: 80 }, count: 6, height: 80 },
            { shape: { star: { points: 5, outer: 20, inner: 9 } }, count: 3, height: 30 },
          ],
          gap: 2,
        },
        stock: 'brass-120',
      },
    ],
  ),
  notes: 'The ringed planet turns its whole face to you as the card is opened; six leaves make the globe.',
};

/** A box that shears flat: the dome on its panel, the hill on its front. */
const boxed: Design = {
  ...blankDesign('Dome in a box'),
  card: {
    ...blankDesign('').card,
    construction: 'box-frame',
    stock: 'night-216',
    pageStock: 'card-240',
    parameters: { displayWidth: 69.85, depth: 38.1, wallHeight: 46, panelHeight: 132, tab: 10 },
  },
  post: { envelope: 'us-a2', format: 'usps-letter' },
  dressing: [{ facet: 'panel', mats: [{ insetMm: 3.2, stock: 'night-216' }] }],
  layers: [
    {
      ...newLayer({
        ...{ id: 'dome', name: 'Dome', facet: 'panel', as: 'layer', stock: 'card-160' },
        shape: { asset: 'dome' },
      }),
      from: { x: 'middle', y: 'low' },
      y: 56,
      width: 52,
    },
    {
      ...newLayer({
        ...{ id: 'hill', name: 'Hill', facet: 'front', side: 'outside', as: 'layer', stock: 'brass-120' },
        shape: { asset: 'hill' },
      }),
      from: { x: 'middle', y: 'low' },
      y: 3,
      width: 60,
    },
  ],
  shapes: [starter('dome'), starter('hill')],
  notes: 'Pressed sideways it goes in its envelope; square it stands on the shelf with the dome over the hill.',
};

/** The comet shows through the cover and is drawn out on its pleat. */
const atWindow = addMechanism(
  {
    ...blankDesign('Comet at the window', 139.7, 107.95),
    card: { ...blankDesign('', 139.7, 107.95).card, stock: 'night-216' },
  },
  'z-window',
  undefined,
  { window: { circle: 40 }, piece: { circle: 36 } },
  'comet',
).design;
const passing: Design = {
  ...atWindow,
  layers: [
    {
      ...newLayer({
        ...{ id: 'tail', name: 'Comet', facet: 'comet.piece', as: 'layer', stock: 'brass-120' },
        shape: { asset: 'comet' },
      }),
      width: 28,
    },
  ],
  shapes: [starter('comet')],
  mechanisms: [{ ...atWindow.mechanisms[0], name: 'Comet' }],
  notes: 'The comet looks out of its window; draw the pleat out for the hours at which it passes.',
};

/** A cabin, mm. */
const CABIN = [
  [-18, 0],
  [18, 0],
  [18, 18],
  [0, 36],
  [-18, 18],
] as const;

/** A moon and a cabin, each on the plate of the one behind: all stand up one after another. */
const stepped: Design = {
  ...blankDesign('Moon before the dome'),
  card: {
    ...blankDesign('').card,
    construction: 'easel',
    stock: 'night-216',
    pageStock: 'card-240',
    parameters: {
      width: 120,
      height: 110,
      stop: 94,
      stopBy: 'tab',
      stopHeight: 5,
      levels: [
        { width: 62, height: 76, stop: 54, stopBy: 'tab', stopHeight: 4, plate: { circle: 66 }, from: 8 },
        { width: 34, height: 40, stop: 32, plate: { polygon: CABIN }, from: 6 },
      ],
    },
  },
  post: { envelope: 'us-a6', format: 'usps-letter' },
  dressing: [{ facet: 'plate', mats: [{ insetMm: 3.2, stock: 'brass-120' }] }],
  notes: 'Fold the tabs up, stand the cover in the first, the moon in the second, the cabin before it.',
};

/** The terraces below the dome, as strips over the fold: they rise as the card is closed to half. */
const terraces: Design = {
  ...stand(
    {
      ...blankDesign('Terraces in tiers', 180, 120),
      card: {
        ...blankDesign('').card,
        stock: 'night-216',
        parameters: {
          ...{ gutter: 180, reachA: 120, reachB: 120 },
          edges: [{ side: 'leaf A fore', shape: { circle: 10 }, pitch: 12 }],
          corners: [
            { at: 'leaf B head', how: 'round', size: 10 },
            { at: 'leaf B foot', how: 'round', size: 10 },
          ],
        },
      },
    },
    [
      {
        id: 'tiers',
        kind: 'step-strips',
        name: 'Terraces',
        on: 'card.gutter',
        parameters: {
          tiers: [
            { p: 26, q: null, from: -70, to: -24 },
            { p: 40, q: null, from: -22, to: 22 },
            { p: 26, q: null, from: 24, to: 70 },
          ],
          tab: 10,
          bow: { p: 52, length: 104, from: -70, to: 70 },
        },
        stock: 'brass-120',
      },
    ],
  ),
  notes: 'Three terraces behind a bowed parapet lie flat when the card does, and stand up when it is set on the shelf.',
};

/** Two arms that swing out to the reader: the slit of the dome opens. */
const slit: Design = {
  ...stand(
    { ...blankDesign('The dome opens', 180, 120), card: { ...blankDesign('', 180, 120).card, stock: 'night-216' } },
    [
      {
        id: 'arms',
        kind: 'twist-fold',
        name: 'Shutters',
        on: 'card.gutter',
        parameters: { half: 26, arm: 78 },
        stock: 'card-240',
      },
    ],
  ),
  layers: (['armRightA', 'armLeftA'] as const).map((facet) => ({
    ...newLayer({
      ...{ id: facet === 'armRightA' ? 'star-right' : 'star-left', name: 'Star', facet: `arms.${facet}` },
      ...{ as: 'layer' as const, stock: 'brass-120' },
      shape: { star: { points: 5, outer: 9, inner: 4 } },
    }),
    from: { x: facet === 'armRightA' ? ('high' as const) : ('low' as const), y: 'middle' as const },
    x: facet === 'armRightA' ? -6 : 6,
  })),
  notes: 'As the card is closed its shutters swing out of the fold; opened flat they lie along it.',
};

for (const [file, design] of [
  ['terraces-in-tiers', terraces],
  ['the-dome-opens', slit],
  ['planet-on-its-axis', planet],
  ['dome-in-a-box', boxed],
  ['comet-at-the-window', passing],
  ['dome-on-the-shelf', shelf],
  ['moon-before-the-dome', stepped],
  ['season-programme', season],
  ['moon-phases', moon],
  ['meteor-night', meteor],
  ['orrery', orrery],
  ['dome-skyline', skyline],
  ['night-ridge', ridge],
  ['dome-note', note],
  ['comet-watch', comet],
  ['terrace-night', terrace],
  ['refractor-evening', telescope],
  ['sky-survey', survey],
] as const) {
  writeFileSync(`examples/${file}.json`, `${JSON.stringify(design, null, 1)}\n`);
  const proof = prove(design);
  console.log(
    file,
    proof.verdict,
    proof.findings.map((f) => `${f.rule}: ${f.message} ${JSON.stringify(f.remedies ?? [])}`),
  );
}
