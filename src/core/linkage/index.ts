export * from './rigid';
export {
  creaseMotion,
  jointTransform,
  motionAt,
  OPENING_RANGE,
  pivotMotion,
  trackLength,
  type DriveRange,
  type Driven,
  type Joint,
  type Linkage,
  type Motion,
  type Track,
  type TrackRun,
} from './joint';
export { Travel, type Folds, type Reached, type Stop, type StopReason } from './travel';
export { contactOf } from './contact';
export { bowed, complete, type Bow } from './elastica';
export { bentBy, carriedOn, leastBending, type Bent, type Wall } from './bending';
export { gapsOf, largestGap, placeBodies, tiedBodies } from './bodies';
