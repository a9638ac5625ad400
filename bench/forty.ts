/** A long card of forty mechanisms: ten steps, each carrying three. */
import { addMechanism } from '../src/core/document/standing';
import { blankDesign, type Design } from '../src/core/document/design';

export function fortyMechanisms(): Design {
  let design = blankDesign('Forty', 420, 150);
  const on = (crease: string, depth: number, height: number, width: number, offset = 0): string => {
    const added = addMechanism(design, 'step-fold', crease, { depth, height, width, offset });
    ({ design } = added);
    return added.id;
  };
  for (let k = 0; k < 10; k++) {
    const step = on('card.gutter', 40, 24, 34, 42 * k - 189);
    on(`${step}.base`, 10, 8, 26);
    on(`${step}.ridge`, 9, 9, 24);
    on(`${step}.wall`, 12, 8, 20);
  }
  return design;
}
