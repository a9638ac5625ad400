export * from './rigid';
export { creaseMotion, pivotMotion, jointTransform, type Joint, type Linkage, type Motion } from './joint';
export { Travel, type Folds, type Reached, type Stop, type StopReason } from './travel';
export { leastBending } from './bending';
export { largestGap, placeBodies, tiedBodies } from './bodies';
