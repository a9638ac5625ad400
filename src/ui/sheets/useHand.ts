'use client';
/** A piece taken hold of on its sheet: it follows the pointer, says what is wrong there, and snaps when let go. */
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Design } from '@/core/document/design';
import { placesOf, turnedAbout, type PlacedPiece } from '@/core/sheets/layout';
import { useActions, useStudio } from '@/store/context';
import { engine, newestWins } from '@/workers/client';
import type { Answer, HeldPiece, Laid, SheetTrouble } from '@/workers/protocol';
import type { InHand } from '@/core/sheets/hand';

export interface Picked {
  readonly piece: string;
  readonly copy: number;
}
export interface Hand {
  readonly picked: Picked | null;
  readonly held: HeldPiece | null;
  readonly heldPiece: PlacedPiece | null;
  readonly trouble: SheetTrouble['trouble'] | null;
  readonly pick: (picked: Picked | null) => void;
  readonly take: (event: PointerEvent<SVGGElement>, slot: string, piece: PlacedPiece) => void;
  readonly move: (event: PointerEvent) => void;
  readonly drop: () => void;
  readonly giveBack: () => void;
  readonly key: (event: KeyboardEvent, slot: string, piece: PlacedPiece) => void;
  /** Puts a piece exactly somewhere, and keeps it there. */
  readonly put: (held: HeldPiece, label: string) => void;
  readonly lock: (slot: string, piece: PlacedPiece, locked: boolean) => void;
}

/** Moved less than this the pointer only picks, px. */
const CLICK_PX = 3;
const STEP_MM = 1;

/** A point of the screen on the sheet under it, mm, y up. */
function onSheetAt(svg: SVGSVGElement, x: number, y: number): readonly [number, number] {
  const at = new DOMPoint(x, y).matrixTransform(svg.getScreenCTM()!.inverse());
  const heightMm = svg.viewBox.baseVal.height - 2;
  return [at.x, heightMm - at.y];
}

interface Grab {
  readonly svg: SVGSVGElement;
  readonly from: readonly [number, number];
  readonly screen: readonly [number, number];
  readonly slot: string;
  readonly piece: PlacedPiece;
  moved: boolean;
}

export function useHand(laid: Laid | null, guests: readonly Design[]): Hand {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const [picked, setPicked] = useState<Picked | null>(null);
  const [held, setHeld] = useState<HeldPiece | null>(null);
  const [felt, setFelt] = useState<InHand | null>(null);
  const grab = useRef<Grab | null>(null);
  const heldNow = useRef<HeldPiece | null>(null);
  const feel = useMemo(
    () =>
      newestWins(
        (h: HeldPiece) => engine('study').held(design, guests, h),
        (a: Answer<InHand | null>) => a.ok && setFelt(a.value),
      ),
    [design, guests],
  );
  const hold = (h: HeldPiece | null): void => {
    heldNow.current = h;
    setHeld(h);
    if (h) feel(h);
    else setFelt(null);
  };
  const put = (h: HeldPiece, label: string): void => {
    if (!laid) return;
    const others = placesOf(laid.layout).filter((p) => p.piece !== h.piece || p.copy !== h.copy);
    const { slot: sheet, ...where } = h;
    edit(label, (d) => ({ ...d, sheets: { ...d.sheets, places: [...others, { ...where, sheet, locked: true }] } }));
  };
  const take: Hand['take'] = (event, slot, piece) => {
    const svg = event.currentTarget.ownerSVGElement!;
    event.currentTarget.setPointerCapture(event.pointerId);
    const screen = [event.clientX, event.clientY] as const;
    grab.current = { svg, from: onSheetAt(svg, ...screen), screen, slot, piece, moved: false };
    setPicked({ piece: piece.drawing.id, copy: piece.copy });
  };
  const move: Hand['move'] = (event) => {
    const g = grab.current;
    if (!g) return;
    const way = Math.hypot(event.clientX - g.screen[0], event.clientY - g.screen[1]);
    if (!g.moved && way < CLICK_PX) return;
    g.moved = true;
    const under = document.elementFromPoint(event.clientX, event.clientY)?.closest<SVGSVGElement>('svg[data-slot]');
    const sameStock = under?.dataset.slot?.split('/')[0] === g.slot.split('/')[0];
    const svg = under && sameStock ? under : g.svg;
    const [x, y] = onSheetAt(svg, event.clientX, event.clientY);
    const { drawing, copy, turnDeg } = g.piece;
    const [px, py] = [g.piece.x + x - g.from[0], g.piece.y + y - g.from[1]];
    hold({ slot: svg.dataset.slot!, piece: drawing.id, copy, x: px, y: py, turnDeg });
  };
  const giveBack = (): void => {
    grab.current = null;
    hold(null);
  };
  const drop = (): void => {
    const [g, h] = [grab.current, heldNow.current];
    grab.current = null;
    if (!g || !h) return hold(null);
    void engine('study')
      .held(design, guests, h)
      .then((a) => {
        const at = a.ok && a.value ? { ...h, x: a.value.x, y: a.value.y } : h;
        put(at, `${g.piece.drawing.title} moved on its sheet`);
        hold(null);
      });
  };
  useEffect(() => {
    const escape = (e: globalThis.KeyboardEvent): void => {
      if (e.key === 'Escape' && grab.current) {
        e.stopPropagation();
        giveBack();
      }
    };
    window.addEventListener('keydown', escape, true);
    return () => window.removeEventListener('keydown', escape, true);
  });
  const lock: Hand['lock'] = (slot, piece, locked) => {
    if (!laid) return;
    const { id, title } = piece.drawing;
    const places = placesOf(laid.layout).map((p) => {
      if (p.piece !== id || p.copy !== piece.copy || p.sheet !== slot) return p;
      const { locked: _, ...free } = p;
      return locked ? { ...free, locked } : free;
    });
    edit(`${title} ${locked ? 'locked' : 'let go'}`, (d) => ({ ...d, sheets: { ...d.sheets, places } }));
  };
  const key: Hand['key'] = (event, slot, piece) => {
    const { drawing, copy, x, y, turnDeg } = piece;
    const at = { slot, piece: drawing.id, copy, x, y, turnDeg };
    const mm = event.shiftKey ? 10 * STEP_MM : event.altKey ? STEP_MM / 10 : STEP_MM;
    const ways: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-mm, 0],
      ArrowRight: [mm, 0],
      ArrowUp: [0, mm],
      ArrowDown: [0, -mm],
    };
    const way = ways[event.key];
    if (way) put({ ...at, x: x + way[0], y: y + way[1] }, `${drawing.title} moved on its sheet`);
    else if (event.key === 'q' || event.key === 'Q') put(turnedInPlace(piece, slot, 90), `${drawing.title} turned`);
    else if (event.key === ' ' || event.key === 'Enter') lock(slot, piece, !piece.locked);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const from = laid?.layout.sheets.flatMap((s) => s.placed) ?? [];
  const own = held && from.find((p) => p.drawing.id === held.piece && p.copy === held.copy);
  const heldPiece = own && held ? { ...own, x: held.x, y: held.y, turnDeg: held.turnDeg } : null;
  return {
    ...{ picked, held, heldPiece, trouble: felt?.trouble ?? null },
    ...{ pick: setPicked, take, move, drop, giveBack, key, put, lock },
  };
}

/** Turned further about its middle, over its sheet. */
export const turnedInPlace = (piece: PlacedPiece, slot: string, byDeg: number): HeldPiece => ({
  slot,
  piece: piece.drawing.id,
  copy: piece.copy,
  ...turnedAbout(piece, byDeg),
});
