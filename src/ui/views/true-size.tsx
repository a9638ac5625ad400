'use client';
import { keptNow } from '../common/kept';
import { useActions } from '@/store/context';

/** Size of a bank card, mm (ISO/IEC 7810:2019, ID-1). */
export const BANK_CARD_MM = { width: 85.6, height: 53.98 } as const;
/** Pixels of a page for a millimetre, as style sheets have them (CSS Values and Units 4: 96 px are an inch). */
export const CSS_PX_PER_MM = 96 / 25.4;
/** What a screen may have. */
export const PX_PER_MM = { least: 1.5, most: 20 } as const;

export function readPxPerMm(value: unknown): number | null {
  return typeof value === 'number' && value >= PX_PER_MM.least && value <= PX_PER_MM.most ? value : null;
}
/** Puts something to true size; a screen that was never measured is measured first. */
export function useTrueSize(): (put: (pxPerMm: number) => void) => void {
  const { show } = useActions();
  return (put) => {
    const known = keptNow('pxPerMm', readPxPerMm);
    if (known === null) show({ kind: 'screen' });
    put(known ?? CSS_PX_PER_MM);
  };
}
