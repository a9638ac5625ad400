'use client';
import { useEffect, useRef, useState } from 'react';
import type { Snap } from '@/core/build/snaps';
import { leverValue, setLever } from '@/core/proof/levers';
import { fieldOf, kindIn } from '@/core/document/fields';
import { inSentence, labelOfLever } from '@/core/document/words';
import type { Design } from '@/core/document/design';
import { readValue } from '@/core/document/values';
import type { Vec2 } from '@/core/plane/vec2';
import { formatSaid } from '@/core/units/length';
import { useStudioStore } from '@/store/context';
import { typedOn, dragged } from './gripping';

/** A number that a hand has hold of. */
export interface Held {
  readonly mechanism: string;
  readonly parameter: string;
  /** How far what is held goes for a unit of it, in the axes of its piece. */
  readonly way: Vec2;
  readonly snaps: readonly Snap[];
  /** Units of the number that are as much as a few pixels. */
  readonly within: number;
}
/** What is said beside the pointer. */
export interface HoldNote {
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly bad: boolean;
}

/**
 * A number follows the pointer, as a preview; letting go keeps it. Typing sets it exactly, Escape gives it back.
 * `begin` takes hold; `follow` is told how far the pointer has gone, in the axes of the piece, and where it is on the
 * page.
 */
export function useHold() {
  const store = useStudioStore();
  const [note, setNote] = useState<HoldNote | null>(null);
  const now = useRef<{ held: Held; start: number; value: number; typed: string; at: Vec2 } | null>(null);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);

  const fieldIn = (d: Design, { mechanism, parameter }: Held) =>
    fieldOf(kindIn(d, mechanism) ?? '', parameter) ?? ({ unit: 'mm', min: -5000, max: 5000, key: parameter } as const);
  const show = (value: number, at: string | null): void => {
    const { held, at: page, typed } = now.current!;
    const { design, rooms, actions } = store.getState();
    now.current!.value = value;
    actions.showPreview(setLever(design, held.mechanism, held.parameter, value));
    const field = fieldIn(design, held);
    const said = field.unit === 'deg' ? `${Number(value.toFixed(1))}°` : formatSaid(value, design.units);
    const room = rooms[held.parameter]?.clear;
    const past = room && (value < room.low.value - 0.06 ? room.low : value > room.high.value + 0.06 ? room.high : null);
    const label = labelOfLever(design, held.mechanism, held.parameter);
    const text = [`${label} ${typed === '' ? said : `= ${typed}`}`, at, past?.by ? `past its room: ${past.by}` : null];
    setNote({
      x: page[0],
      y: page[1],
      text: text.filter(Boolean).join(' · '),
      bad: past !== null && past !== undefined,
    });
  };
  const end = (keep: boolean): void => {
    const was = now.current;
    now.current = null;
    stop.current();
    setNote(null);
    if (!was) return;
    const { actions, design } = store.getState();
    actions.showPreview(null);
    const { mechanism, parameter } = was.held;
    if (!keep || Math.abs(was.value - was.start) < 1e-9) return;
    const label = inSentence(labelOfLever(design, mechanism, parameter));
    actions.edit(label, (d) => setLever(d, mechanism, parameter, was.value));
  };
  const keys = (e: KeyboardEvent): void => {
    const was = now.current;
    if (!was) return;
    const typed = typedOn(was.typed, e.key);
    if (typed === null && e.key !== 'Escape' && e.key !== 'Enter') return;
    e.preventDefault();
    e.stopPropagation();
    if (e.key === 'Escape') return end(false);
    if (e.key === 'Enter') return end(true);
    was.typed = typed!;
    const { design } = store.getState();
    const read = readValue(fieldIn(design, was.held) as Parameters<typeof readValue>[0], was.typed, design.units);
    show(read.ok ? (read.value as number) : was.value, null);
  };

  const begin = (held: Held): boolean => {
    const { design, actions, writes } = store.getState();
    const start = leverValue(design, held.mechanism, held.parameter);
    if (start === null || !writes) return false;
    stop.current();
    actions.play(false);
    now.current = { held, start, value: start, typed: '', at: [0, 0] };
    window.addEventListener('keydown', keys, true);
    stop.current = () => window.removeEventListener('keydown', keys, true);
    return true;
  };
  const lineUp = (snaps: readonly Snap[]): void => {
    if (now.current) now.current = { ...now.current, held: { ...now.current.held, snaps } };
  };
  const follow = (by: Vec2, page: Vec2): void => {
    const was = now.current;
    if (!was) return;
    was.at = page;
    // What has been typed stays until the pointer lets go.
    if (was.typed !== '') return;
    const { design } = store.getState();
    const { way, snaps, within } = was.held;
    const parameter = fieldIn(design, was.held);
    const next = dragged(by, { start: was.start, way, snaps, within, parameter, unit: design.units });
    show(next.value, next.at);
  };
  return { begin, lineUp, follow, end, note, held: () => now.current !== null };
}
