'use client';
import { useCallback, useSyncExternalStore } from 'react';
import type { LengthUnit } from '@/core/units/length';

/** What this browser keeps of how a person likes to work; none of it belongs to a card. */
export type Kept = 'views' | 'pxPerMm' | 'keys' | 'hints' | 'favourites' | 'units' | 'light';
const nameOf = (what: Kept): string => (what === 'light' ? 'rhabdoplex-light' : `rhabdoplex.${what}`);

const listeners = new Set<() => void>();
const listen = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** A browser that stores nothing keeps it for as long as the page. */
const forNow = new Map<Kept, string>();
export function readKept(what: Kept): string | null {
  try {
    return localStorage.getItem(nameOf(what)) ?? forNow.get(what) ?? null;
  } catch {
    return forNow.get(what) ?? null;
  }
}
/** Returns whether it is kept over this page; a liking that is not stays for as long as the page. */
export function keep(what: Kept, text: string): boolean {
  let kept = true;
  forNow.set(what, text);
  try {
    localStorage.setItem(nameOf(what), text);
  } catch {
    kept = false;
  }
  for (const l of listeners) l();
  return kept;
}

/** A kept liking and how to change it; what is stored and cannot be read is as if it were not there. */
export function useKept<T>(what: Kept, otherwise: T, read: (value: unknown) => T | null): [T, (value: T) => void] {
  const text = useSyncExternalStore(
    listen,
    () => readKept(what),
    () => null,
  );
  const change = useCallback((value: T): void => void keep(what, JSON.stringify(value)), [what]);
  return [parsed(text, read) ?? otherwise, change];
}
export const readYesNo = (value: unknown): boolean | null => (typeof value === 'boolean' ? value : null);
/** A kept liking now; null where there is none that can be read. */
export const keptNow = <T>(what: Kept, read: (value: unknown) => T | null): T | null => parsed(readKept(what), read);
function parsed<T>(text: string | null, read: (value: unknown) => T | null): T | null {
  if (text === null) return null;
  try {
    return read(JSON.parse(text));
  } catch {
    return null;
  }
}

/** The unit that new cards are measured in: the one chosen last. */
export const unitsKept = (): LengthUnit => keptNow('units', readUnits) ?? 'mm';
const readUnits = (value: unknown): LengthUnit | null => (value === 'mm' || value === 'in' ? value : null);
