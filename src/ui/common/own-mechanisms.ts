'use client';
import { keep, keptNow } from './kept';

/** A mechanism of one's own, kept in this browser for other cards. */
export interface OwnMechanism {
  readonly name: string;
  /** As it is copied (`document/several.ts`). */
  readonly text: string;
}
const MOST_OWN = 40;
const LONGEST = 200_000;

export const ownMechanisms = (): readonly OwnMechanism[] =>
  keptNow('own', (v) => (Array.isArray(v) ? v.filter(isOwn).slice(0, MOST_OWN) : null)) ?? [];
const isOwn = (v: unknown): v is OwnMechanism =>
  typeof v === 'object' &&
  v !== null &&
  typeof (v as OwnMechanism).name === 'string' &&
  typeof (v as OwnMechanism).text === 'string';

/** Why it was not kept, or null. One of the same name is replaced. */
export function keepOwn(own: OwnMechanism): string | null {
  if (own.text.length > LONGEST) return 'it is too large to be kept in this browser; copy it instead';
  const others = ownMechanisms().filter((o) => o.name !== own.name);
  if (others.length >= MOST_OWN) return `${MOST_OWN} are kept already; forget one first`;
  return keep('own', JSON.stringify([...others, own])) ? null : 'this browser has no room left for it';
}
export const forgetOwn = (name: string): void =>
  void keep('own', JSON.stringify(ownMechanisms().filter((o) => o.name !== name)));
