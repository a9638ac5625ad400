import type { Ring } from '@/core/plane/polygon';

/** Rings as path data. */
export const ringPath = (rings: readonly Ring[]): string =>
  rings.map((r) => `M${r.map((p) => p.join(' ')).join('L')}Z`).join('');
