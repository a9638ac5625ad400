/** Writes the demo set: cards for the open nights of the Quillmoor Observatory. Run: npm run examples */
import { writeFileSync } from 'node:fs';
import { addMechanism, blankDesign, type Design, type Mechanism } from '../src/core/project/design';
import { prove } from '../src/core/project/prove';

type Wanted = Pick<Mechanism, 'id' | 'kind' | 'name' | 'on' | 'parameters'> & { stock?: string };
const stand = (design: Design, list: readonly Wanted[]): Design =>
  list.reduce((d, { id, kind, name, on, parameters, stock }) => {
    const added = addMechanism(d, kind, on, parameters, id).design;
    return { ...added, mechanisms: added.mechanisms.map((m) => (m.id === id ? { ...m, name, stock: stock ?? m.stock } : m)) };
  }, design);

/** A terrace of nested steps under the dome. */
const terrace: Design = {
  ...stand({ ...blankDesign('Terrace night', 190, 130), card: { ...blankDesign('', 190, 130).card, stock: 'night-216' } }, [
    { id: 'terrace', kind: 'step-fold', name: 'Lower terrace', on: 'card.gutter', parameters: { depth: 46, height: 30, width: 128 } },
    { id: 'stair', kind: 'step-fold', name: 'Stair', on: 'terrace.base', parameters: { depth: 22, height: 15, width: 44 } },
    { id: 'gallery', kind: 'step-fold', name: 'Gallery', on: 'terrace.wall', parameters: { depth: 24, height: 36, width: 92 } },
    { id: 'dome', kind: 'v-fold', name: 'Dome', on: 'gallery.wall', parameters: { lean: 56, fold: 72, size: 26, offset: -8, tab: 9, relief: 2.2 }, stock: 'brass-120' },
    { id: 'lamp', kind: 'step-fold', name: 'Lamp post', on: 'card.gutter', parameters: { depth: 14, height: 26, width: 10, offset: 78 } },
  ]),
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

/** A V-fold telescope that fits a C6 envelope. */
const telescope: Design = {
  ...stand({ ...blankDesign('Refractor evening', 156, 108), card: { ...blankDesign('', 156, 108).card, stock: 'card-240' } }, [
    { id: 'refractor', kind: 'v-fold', name: 'Refractor', on: 'card.gutter', parameters: { lean: 52, fold: 84, size: 62, offset: -7, tab: 12 }, stock: 'night-216' },
    { id: 'pier', kind: 'step-fold', name: 'Pier', on: 'card.gutter', parameters: { depth: 20, height: 34, width: 26, offset: 56 } },
    { id: 'ledge', kind: 'step-fold', name: 'Ledge', on: 'pier.base', parameters: { depth: 9, height: 12, width: 12 } },
    { id: 'sign', kind: 'step-fold', name: 'Sign, glued', on: 'card.gutter', parameters: { depth: 26, height: 16, riser: 22, tread: 32, width: 26, offset: -58, build: 'glued', tab: 9 }, stock: 'brass-120' },
  ]),
  post: { envelope: 'C6', format: 'uk-letter' },
  dressing: [{ facet: 'refractor.panelA', mats: [{ insetMm: 4, stock: 'brass-120' }] }, { facet: 'refractor.panelB', mats: [{ insetMm: 4, stock: 'brass-120' }] }, { facet: 'pier.riser', colour: '#b9c3d6', mats: [] }],
  notes: 'The old refractor, ready for the ringed planet.',
};

/** Two deliberate faults: the chart table reaches past the fore edge, and two slits leave too little paper between them. */
const survey: Design = {
  ...stand(blankDesign('Sky survey (two faults)', 150, 100), [
    { id: 'table', kind: 'step-fold', name: 'Chart table', on: 'card.gutter', parameters: { depth: 58, height: 46.5, width: 62, offset: -24 } },
    { id: 'plates', kind: 'step-fold', name: 'Plate rack', on: 'card.gutter', parameters: { depth: 26, height: 38, width: 40, offset: 28.8 } },
    { id: 'drawer', kind: 'step-fold', name: 'Drawer', on: 'table.base', parameters: { depth: 16, height: 18, width: 30 } },
  ]),
  post: { envelope: 'C6', format: 'uk-letter' },
  dressing: [{ facet: 'table.riser', colour: '#d9c9a3', mats: [] }, { facet: 'plates.riser', colour: '#b8c4d8', mats: [] }],
  notes: 'Begun in a hurry before the survey night. Prove says what is wrong with it.',
};

for (const [file, design] of [['terrace-night', terrace], ['refractor-evening', telescope], ['sky-survey', survey]] as const) {
  writeFileSync(`examples/${file}.json`, `${JSON.stringify(design, null, 1)}\n`);
  const proof = prove(design);
  console.log(file, proof.verdict, proof.findings.map((f) => `${f.rule}: ${f.message} ${JSON.stringify(f.remedies ?? [])}`));
}
