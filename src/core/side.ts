/** Paper has two sides. */
export const SIDES = ['inside', 'outside'] as const;
export type Side = (typeof SIDES)[number];
export const otherSide = (side: Side): Side => (side === 'inside' ? 'outside' : 'inside');
