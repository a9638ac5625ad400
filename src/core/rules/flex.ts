/** `flex`: the loops close as rigid facets through the travel; where they do not, the paper bends or the travel ends. */
import { radToDeg } from '../units/angle';
import { mechanismOfJoint } from './flat-fold';
import { atDeg, leversOf, mm, titleOf, type Finding, type Rule } from './rule';

const RISK_MM = 1;
const BLOCKS_MM = 10;

const WHY = {
  taut: 'is pulled taut', reversed: 'would have to fold the other way', 'past-180': 'is folded as far as paper goes', 'wrong-branch': 'would have to jump to another pose',
  'no-start': 'has no pose that its folds allow',
} as const;

export const flex: Rule = {
  id: 'flex',
  needs: 'travel',
  check: ({ assembly, travel }) => {
    const out: Finding[] = [];
    for (const stop of assembly.travel.stops()) {
      const open = 180 - radToDeg(stop.drive);
      const mechanism = stop.joints.length > 0 ? mechanismOfJoint(assembly, stop.joints[0]) : 'card';
      const creases = [...new Set(stop.joints.map((j) => assembly.linkage.joints[j].id))];
      out.push({
        rule: 'flex', severity: 'blocks', mechanism, piece: '', measured: open, limit: open > 1e-6 ? 180 : 0, unit: 'deg', drive: { open }, aspect: 'stop', subjects: creases, levers: leversOf(mechanism, 'fold', 'lean', 'riser', 'tread'),
        message: `The card stops at ${open.toFixed(1)}°: ${titleOf(assembly, mechanism)} ${WHY[stop.reason]} (${creases.slice(0, 3).join(', ')}).`,
      });
    }
    const worst = travel.reduce<(typeof travel)[number] | null>((w, p) => (p.flexMm > (w?.flexMm ?? 0) ? p : w), null);
    if (worst && worst.flexMm > RISK_MM) {
      const mechanism = assembly.creases.find((c) => c.id === worst.flexAt)?.mechanism ?? 'card';
      out.push({
        rule: 'flex', severity: worst.flexMm > BLOCKS_MM ? 'blocks' : 'risk', mechanism, piece: '', measured: worst.flexMm, limit: worst.flexMm > BLOCKS_MM ? BLOCKS_MM : RISK_MM, unit: 'mm', drive: { open: worst.openDeg }, aspect: 'bend', subjects: worst.flexAt ? [worst.flexAt] : [], levers: [],
        message: `${titleOf(assembly, mechanism)} closes only by bending: ${mm(worst.flexMm)} ${atDeg(worst.openDeg)}.`,
      });
    }
    return out;
  },
};
