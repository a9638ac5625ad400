/** What a maker calls a part is what every list, step and finding calls it. */
import { buildAssembly } from '../build/build';
import { workSteps } from '../build/steps';
import { prove } from '../proof/prove';
import { card, layered, stand } from '../tests/cards';
import { checkDesign } from './schema';
import { copiedText, pasted } from './several';
import { removeMechanism } from './standing';
import { named, nameOfPart } from './words';

const step = stand(card(200, 100), 'step-fold', { depth: 30, height: 30, width: 40, build: 'glued' });

test('a facet called anew is called so where it is named, and as before once it has no name', () => {
  const design = named(named(step, 'leafB', 'cover flap'), 'step-fold-1.riser', 'terrace wall');
  expect(checkDesign(design).ok).toBe(true);
  expect(nameOfPart(design, 'leafB')).toBe('cover flap');
  expect(nameOfPart(design, 'step-fold-1.riser')).toBe('terrace wall of Step');
  expect(nameOfPart(design, 'leafB.mat-1')).toBe('mat 1 on the cover flap');
  const texts = workSteps(design, buildAssembly(design))
    .map((s) => s.text)
    .join(' ');
  expect(texts).toContain('cover flap');
  expect(texts).not.toMatch(/leaf B|the front/);
  expect(named(named(design, 'leafB', ''), 'step-fold-1.riser', '')).toEqual(step);
});

test('findings call it so', () => {
  const across = layered(named(step, 'step-fold-1.riser', 'terrace wall'), {
    facet: 'step-fold-1.riser',
    shape: { rect: { width: 20, height: 40 } },
  });
  const said = prove(across, 6)
    .findings.map((f) => f.message)
    .join(' ');
  expect(said).toContain('terrace wall of Step');
  expect(said).not.toContain('riser');
});

test('a name goes with the part that has it', () => {
  const design = named(named(step, 'leafB', 'cover flap'), 'step-fold-1.riser', 'terrace wall');
  expect(removeMechanism(design, 'step-fold-1').names).toEqual([{ of: 'leafB', name: 'cover flap' }]);
});

test('in a copy its parts are called and meant alike', () => {
  const design = { ...named(step, 'step-fold-1.riser', 'terrace wall'), meantOut: [{ of: 'step-fold-1', mm: 4 }] };
  const copied = pasted(design, copiedText(design, ['step-fold-1']));
  if (!copied.ok) throw new Error(copied.why);
  const [id] = copied.ids;
  expect(copied.design.names).toEqual([...design.names!, { of: `${id}.riser`, name: 'terrace wall' }]);
  expect(copied.design.meantOut).toEqual([...design.meantOut, { of: id, mm: 4 }]);
});

test('no name is markup, none is endless', () => {
  expect(checkDesign(named(step, 'leafB', 'x'.repeat(41))).ok).toBe(false);
  expect(checkDesign({ ...step, names: [{ of: 'leafB', name: '  ' }] }).ok).toBe(false);
});
