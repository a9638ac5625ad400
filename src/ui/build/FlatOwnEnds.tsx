'use client';
import type { KeyboardEvent } from 'react';
import { withOwnCorner } from '@/core/build/own-edges';
import type { Around, OwnEnd, OwnHold, OwnSlide } from '@/core/build/own-ends';
import { linesOf, withSpot, type Spot } from '@/core/kinds';
import { setParameter, valuesOf } from '@/core/document/fields';
import type { Design } from '@/core/document/design';
import { dot2, sub2, type Vec2 } from '@/core/plane/vec2';
import { formatSaid } from '@/core/units/length';
import { atStart } from '@/core/document/words';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import type { Scene, SceneFrame } from '@/workers/protocol';
import { keyStep } from './gripping';
import { HoldNoteAt } from './HoldNote';
import { REACH_PX, fromFrame, inFrame, onGrid, ownAxes, pickAt, spotOf, tidy } from './picking';
import { mmOfPixels, piecePoint } from './piece-point';
import { useDragged } from './useDragged';

/** Ends of the selected lines of one's own: dragged onto what they are to hang on, or to a place of their own. */
export function FlatOwnEnds({
  scene,
  piece,
  own,
}: {
  readonly scene: Scene;
  readonly piece: string;
  readonly own: OwnHold;
}) {
  const id = useStudio((s) => s.selected);
  const frame = scene.frames[id];
  const around = own.around.find((a) => a.piece === piece);
  if (!frame || !around) return null;
  // Pieces of its own are drawn in their own axes.
  const title = scene.pieces.find((p) => p.id === piece)?.title ?? piece;
  const outline = own.corners.some((c) => c.piece !== piece) ? `the outline of ${title}` : 'the outline';
  const axes = frame.piece === piece ? frame : ownAxes(piece);
  return (
    <>
      {own.ends
        .filter((e) => e.piece === piece)
        .map((e) => (
          <PlaceHandle
            key={`${e.line} ${e.end}`}
            scene={scene}
            place={{
              name: `${e.line} ${e.end}`,
              words: `end of ${e.line}`,
              at: e.at,
              // It does not hang on itself.
              around: { ...around, lines: around.lines.filter((l) => l.of !== e.line) },
              put: (d, spot) => withEnd(d, id, e, spot),
            }}
            frame={axes}
          />
        ))}
      {own.corners
        .filter((c) => c.piece === piece)
        .map((c, k) => (
          <PlaceHandle
            key={k}
            scene={scene}
            place={{
              name: `corner ${k + 1} ${piece}`,
              words: `corner ${k + 1} of ${outline}`,
              at: c.at,
              around,
              free: true,
              // A corner lies where it is put: it hangs on nothing.
              put: (d, _, at) => withOwnCorner(d, id, c, at),
            }}
            frame={axes}
          />
        ))}
      {own.slides
        .filter((s) => s.piece === piece)
        .map((s) => (
          <SlideHandle key={s.line} id={id} slide={s} />
        ))}
    </>
  );
}

/** A line beside another or across a facet, led by its middle: its amount follows. */
function SlideHandle({ id, slide }: { readonly id: string; readonly slide: OwnSlide }) {
  const store = useStudioStore();
  const { edit } = useActions();
  const { line, key, value, at, way } = slide;
  const put = (design: Design, amount: number): Design => {
    const lines = linesOf(valuesOf(design.mechanisms.find((m) => m.id === id)!));
    return setParameter(
      design,
      id,
      'lines',
      lines.map((l) => (l.name === line ? { ...l, [key]: amount } : l)),
    );
  };
  // Whole millimetres, or hundredths of the facet.
  const rounded = (amount: number): number =>
    key === 'mm' ? Math.round(amount) : Math.min(1, Math.max(0, Math.round(amount * 100) / 100));
  const said = (amount: number): string =>
    key === 'mm' ? formatSaid(amount, store.getState().design.units) : `at ${amount.toFixed(2)} of the facet`;
  const dragged = useDragged<Vec2>(
    (e) => piecePoint(e.currentTarget, e.clientX, e.clientY),
    (e, from) => {
      const by = sub2(piecePoint(e.currentTarget, e.clientX, e.clientY), from);
      const amount = rounded(value + dot2(by, way) / dot2(way, way));
      return { design: put(store.getState().design, amount), says: `${line} · ${said(amount)}` };
    },
    ({ design }) => edit(`line ${line}`, () => design),
  );
  const keys = (e: KeyboardEvent): void => {
    const by = keyStep(e, { unit: 'mm' }, store.getState().design.units);
    if (by === null) return;
    e.preventDefault();
    e.stopPropagation();
    edit(`line ${line}`, (design) => put(design, key === 'mm' ? tidy(value + by) : rounded(value + by / 100)));
  };
  return (
    <>
      <circle
        className="grip grip-corner"
        role="slider"
        tabIndex={0}
        aria-label={`${line}, led aside`}
        aria-valuenow={value}
        aria-valuetext={said(value)}
        data-slide={line}
        cx={at[0]}
        cy={at[1]}
        r="1.6"
        style={{ cursor: 'move', touchAction: 'none' }}
        {...dragged.handlers}
        onKeyDown={keys}
      >
        <title>{`${line}: lead it aside, or arrow keys`}</title>
      </circle>
      <HoldNoteAt note={dragged.note} />
    </>
  );
}

const withEnd = (design: Design, id: string, { line, end }: OwnEnd, spot: Spot): Design => {
  const lines = linesOf(valuesOf(design.mechanisms.find((m) => m.id === id)!));
  return setParameter(
    design,
    id,
    'lines',
    lines.map((l) => (l.name === line ? withSpot(l, end, spot) : l)),
  );
};

/** A place on a piece that a hand may change. */
interface Place {
  readonly name: string;
  /** "end of fold". */
  readonly words: string;
  readonly at: Vec2;
  /** What it may be put onto. */
  readonly around: Around;
  /** What goes along with it does not hold it back. */
  readonly free?: true;
  /** The design with it somewhere else: as a spot that hangs on what is there, and as a place of the piece. */
  readonly put: (design: Design, spot: Spot, at: Vec2) => Design;
}

/** Led onto what it is to be at, or by arrow keys. */
function PlaceHandle({
  scene,
  place,
  frame,
}: {
  readonly scene: Scene;
  readonly place: Place;
  readonly frame: SceneFrame;
}) {
  const store = useStudioStore();
  const { edit } = useActions();
  const { name, words, at, around, free, put } = place;
  const dragged = useDragged<Vec2>(
    () => at,
    (e, from) => {
      const to = piecePoint(e.currentTarget, e.clientX, e.clientY);
      const near = pickAt(
        scene,
        { around, frame, ...(free ? { leaving: from } : {}) },
        to,
        mmOfPixels(e.currentTarget, REACH_PX),
      );
      const there = near.name === null ? { ...near, at: onGrid(to, frame) } : near;
      const spot = spotOf(there, frame);
      return {
        design: put(store.getState().design, spot, there.at),
        says: `${words} · ${near.name ?? `${String(spot.x)}, ${String(spot.y)} mm`}`,
      };
    },
    ({ design }) => edit(words, () => design),
  );
  const keys = (e: KeyboardEvent): void => {
    const by = keyStep(e, { unit: 'mm' }, store.getState().design.units);
    if (by === null) return;
    e.preventDefault();
    e.stopPropagation();
    const upright = e.key === 'ArrowUp' || e.key === 'ArrowDown';
    const [x, y] = inFrame(at, frame);
    const to = { x: tidy(upright ? x : x + by), y: tidy(upright ? y + by : y) };
    edit(words, (design) => put(design, to, fromFrame([to.x, to.y], frame)));
  };
  return (
    <>
      <circle
        className="grip grip-corner"
        role="button"
        tabIndex={0}
        aria-label={`${atStart(words)}: drag it, or arrow keys`}
        data-end={name}
        cx={at[0]}
        cy={at[1]}
        r="1.6"
        style={{ cursor: 'move', touchAction: 'none' }}
        {...dragged.handlers}
        onKeyDown={keys}
      >
        <title>{`${words}: drag it onto what it is to be at`}</title>
      </circle>
      <HoldNoteAt note={dragged.note} />
    </>
  );
}
