'use client';
import { useState, type ChangeEvent, type KeyboardEvent } from 'react';

export interface Typed {
  /** What stands in the field. */
  readonly text: string;
  /** Why what is typed cannot be taken; null while nothing is wrong. */
  readonly why: string | null;
  readonly onFocus: () => void;
  readonly onChange: (event: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => void;
  readonly onBlur: () => void;
  /** Enter takes what is typed, Escape takes it back. */
  readonly onKeyDown: (event: KeyboardEvent) => void;
  readonly forget: () => void;
}

/**
 * What is typed in a field until it is taken. A field in which nothing is typed follows its value even while it is in
 * the hand: a value that is changed from elsewhere meanwhile is shown, and leaving the field does not put it back.
 *
 * @param shown the value as it reads; `exact` to its last digit, which is what typing starts from
 * @param take takes the text over, or says why not
 */
export function useTyped(shown: string, exact: string, take: (text: string) => string | null): Typed {
  const [typed, setTyped] = useState<string | null>(null);
  const [held, setHeld] = useState(false);
  const [why, setWhy] = useState<string | null>(null);
  const forget = (): void => {
    setTyped(null);
    setWhy(null);
  };
  const commit = (): void => {
    if (typed === null) return;
    const fault = typed.trim() === exact ? null : take(typed.trim());
    if (fault === null) forget();
    else setWhy(fault);
  };
  return {
    text: typed ?? (held ? exact : shown),
    why,
    onFocus: () => setHeld(true),
    onChange: (e) => setTyped(e.currentTarget.value),
    onBlur: () => {
      setHeld(false);
      commit();
    },
    onKeyDown: (e) => {
      if (e.key === 'Enter') commit();
      else if (e.key === 'Escape' && typed !== null) {
        e.stopPropagation();
        forget();
      }
    },
    forget,
  };
}
