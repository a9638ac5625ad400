import { AT_REST } from './at-rest';
import { collision } from './collision';
import { edgeStop } from './edge-stop';
import { flatFold } from './flat-fold';
import { flex } from './flex';
import { foam } from './foam';
import { foamSweep } from './foam-sweep';
import { glueRoom } from './glue-room';
import { grain } from './grain';
import { gutterRelief } from './gutter-relief';
import { hides, stuckToMover } from './hides';
import { rivetsHold } from './rivets';
import { hung } from './hung';
import { loosePart } from './loose-part';
import { overhang } from './overhang';
import { postSize } from './post-size';
import type { Rule } from './rule';
import { sheetFit } from './sheet-fit';
import { stock } from './stock';
import { notLookedAt, stuckBetween } from './stuck-between';
import { sweep } from './sweep';
import { thickness } from './thickness';
import { tip } from './tip';
import { DEMANDING } from './demands';
import { web } from './web';

export * from './rule';
export { atState, RULE_WORDS } from './words';
export { overhang, overhangOf, type Overhang } from './overhang';
export { bendingMechanism, FLEX_RISK_MM, WHY_STOPPED } from './flex';
export { byHandOf } from './by-hand';
export type { WalkedThree } from './threes';
export type { WalkedPair } from './together';
export { reachPast } from './sweep';
export { gapsBelow, leastClearance, type Gap } from './clearance';
export { closedStack, thicknessMap, type ThicknessMap } from './stack-map';
export { closedSize, postedSize, postedStack } from './posted';
export { pieceSize } from './sheet-fit';
export { standings, tipAt, type Standing } from './tip';
export { weightAt } from './weight';

/** Every rule, cheapest evidence first. A new rule is a new module and a line here. */
export const RULES: readonly Rule[] = [
  flatFold,
  loosePart,
  overhang,
  postSize,
  sheetFit,
  grain,
  thickness,
  glueRoom,
  foam,
  tip,
  gutterRelief,
  ...DEMANDING,
  edgeStop,
  hides,
  rivetsHold,
  stock,
  web,
  flex,
  sweep,
  collision,
  stuckBetween,
  stuckToMover,
  notLookedAt,
  foamSweep,
  hung,
  ...AT_REST,
];
