'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Ring } from '@/core/plane/polygon';
import { onSheet, paperOnSheet, type PlacedPiece, type SheetLayout } from '@/core/sheets/layout';
import { formatLength, roundedForCutting } from '@/core/units/length';
import { useStudio } from '@/store/context';
import type { SheetTrouble } from '@/workers/protocol';
import { pale } from '../common/files';
import type { Hand, Picked } from './useHand';

const TROUBLE_WORDS: Readonly<Record<SheetTrouble['trouble'], string>> = {
  overlap: 'lies over another piece',
  near: 'lies nearer to another than asked',
  margin: 'hangs over the margin',
};
export const troubleWords = (trouble: SheetTrouble['trouble']): string => TROUBLE_WORDS[trouble];

export interface SheetBoardProps {
  readonly sheet: SheetLayout;
  readonly number: number;
  readonly marginMm: number;
  readonly troubles: readonly SheetTrouble[];
  readonly hand: Hand;
}

const samePiece = (p: PlacedPiece, picked: Picked | null): boolean =>
  picked !== null && p.drawing.id === picked.piece && p.copy === picked.copy;

/** One sheet: its pieces by their true outlines, to be dragged, turned and locked; what is left over hatched. */
export function SheetBoard({ sheet, number: n, marginMm, troubles, hand }: SheetBoardProps) {
  const svg = useRef<SVGSVGElement>(null);
  const { widthMm, heightMm, slot } = sheet;
  const placed = sheet.placed.filter((p) => !(hand.held && samePiece(p, hand.held) && hand.held.slot !== slot));
  const visiting = hand.held?.slot === slot && !placed.some((p) => samePiece(p, hand.held)) ? hand.heldPiece : null;
  return (
    <chakra.figure m="0">
      <svg
        ref={svg}
        data-slot={slot}
        role="group"
        aria-label={`Sheet ${n}, ${sheet.stock.name}`}
        width="100%"
        viewBox={`-1 -1 ${widthMm + 2} ${heightMm + 2}`}
        style={{ touchAction: 'none' }}
      >
        <defs>
          <pattern id={`rest-${n}`} width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V4" stroke="var(--rule)" strokeWidth="0.8" />
          </pattern>
        </defs>
        <rect width={widthMm} height={heightMm} fill={pale(sheet.colour)} />
        <LeftOver sheet={sheet} fill={`url(#rest-${n})`} />
        <rect width={widthMm} height={heightMm} fill="none" stroke="var(--ink-2)" className="thin" />
        <rect
          x={marginMm}
          y={marginMm}
          width={Math.max(0, widthMm - 2 * marginMm)}
          height={Math.max(0, heightMm - 2 * marginMm)}
          fill="none"
          stroke="var(--ink-2)"
          strokeDasharray="2 3"
          className="thin"
        />
        {byArea([...placed, ...(visiting ? [visiting] : [])]).map((p) => {
          const held = samePiece(p, hand.held);
          const own = held && hand.held ? { ...p, x: hand.held.x, y: hand.held.y, turnDeg: hand.held.turnDeg } : p;
          const wrong = held
            ? hand.trouble
            : (troubles.find((t) => t.slot === slot && t.piece === p.drawing.id && t.copy === p.copy)?.trouble ?? null);
          return (
            <Piece
              key={`${p.drawing.id} ${p.copy}`}
              piece={own}
              sheet={sheet}
              picked={samePiece(p, hand.picked)}
              wrong={wrong}
              hand={hand}
            />
          );
        })}
      </svg>
      <Caption sheet={sheet} number={n} marginMm={marginMm} />
    </chakra.figure>
  );
}

/** The largest first: what lies in the window of another can then be taken hold of. */
const byArea = (pieces: readonly PlacedPiece[]): PlacedPiece[] => [...pieces].sort((a, b) => boxArea(b) - boxArea(a));
const boxArea = ({ drawing: { box } }: PlacedPiece): number => (box.max[0] - box.min[0]) * (box.max[1] - box.min[1]);

/** What stays whole when the rest is cut off straight. */
function LeftOver({ sheet: { widthMm, heightMm, left }, fill }: { sheet: SheetLayout; fill: string }) {
  const x = left.heightMm >= heightMm - 1e-6 ? widthMm - left.widthMm : 0;
  return <rect x={x} y="0" width={left.widthMm} height={left.heightMm} fill={fill} data-testid="left-over" />;
}

function Caption({ sheet, number: n, marginMm }: { sheet: SheetLayout; number: number; marginMm: number }) {
  const { stock, name, price, usePercent, left, offcut, widthMm, heightMm } = sheet;
  const grain = stock.grain === 'none' ? 'grain free' : stock.grain === 'long' ? 'grain ↔' : 'grain ↕';
  const units = useStudio((s) => s.design.units);
  const say = (wide: number, high: number): string =>
    `${[wide, high].map((mm) => formatLength(roundedForCutting(mm, units), units)).join(' × ')} ${units}`;
  const margin = marginMm > 0 ? `margin ${formatLength(marginMm, units)} ${units}` : 'cut to its edge';
  const size = offcut ? `offcut ${say(widthMm, heightMm)}` : name;
  return (
    <chakra.figcaption fontSize="13px" mt="4px">
      <chakra.span display="block">
        <b>Sheet {n}</b> {stock.name}, {size}, {grain}, {margin}
        {price !== null && `, ${price.toFixed(2)}`}
      </chakra.span>
      <chakra.span className="dim">
        {usePercent.toFixed(0)} % used; {say(left.widthMm, left.heightMm)} left whole
      </chakra.span>
    </chakra.figcaption>
  );
}

const pathOf = (rings: readonly Ring[], height: number): string =>
  rings.map((r) => `M${r.map(([x, y]) => `${x.toFixed(3)} ${(height - y).toFixed(3)}`).join('L')}Z`).join('');

interface PieceProps {
  readonly piece: PlacedPiece;
  readonly sheet: SheetLayout;
  readonly picked: boolean;
  readonly wrong: SheetTrouble['trouble'] | null;
  readonly hand: Hand;
}

function Piece({ piece, sheet: { slot, heightMm }, picked, wrong, hand }: PieceProps) {
  const [focused, setFocused] = useState(false);
  const { drawing, copy, locked } = piece;
  const paper = paperOnSheet(piece);
  const outline = pathOf(
    paper.flatMap((p) => [p.outer, ...p.holes]),
    heightMm,
  );
  const drag = {
    onPointerDown: (e: PointerEvent<SVGGElement>) => hand.take(e, slot, piece),
    onPointerMove: hand.move,
    onPointerUp: hand.drop,
    onPointerCancel: hand.giveBack,
  };
  const keys = (e: KeyboardEvent): void => hand.key(e, slot, piece);
  const label = `${drawing.title}${copy > 1 ? `, ${copy}` : ''}${locked ? ', locked' : ''}`;
  return (
    <g
      {...drag}
      tabIndex={0}
      role="button"
      aria-pressed={picked}
      aria-label={`${label}${wrong ? `, ${troubleWords(wrong)}` : ''}`}
      data-piece={drawing.id}
      data-copy={copy}
      data-wrong={wrong ?? undefined}
      onKeyDown={keys}
      onFocus={() => {
        setFocused(true);
        hand.pick({ piece: drawing.id, copy });
      }}
      onBlur={() => setFocused(false)}
      style={{ cursor: 'grab', outline: 'none' }}
    >
      <path
        d={pathOf(
          paper.map((p) => p.outer),
          heightMm,
        )}
        fill="transparent"
      />
      <path
        d={outline}
        fillRule="evenodd"
        fill={wrong ? 'var(--bad-wash)' : picked ? 'var(--accent-wash)' : 'var(--sheet)'}
        stroke={focused || picked ? 'var(--accent)' : 'none'}
        strokeWidth={focused ? 2.6 : 1.6}
        style={{ vectorEffect: 'non-scaling-stroke' }}
      />
      {drawing.lines.map((l, k) => (
        <path
          key={k}
          className={`line ${l.role}`}
          d={`M${l.points
            .map((q) => {
              const [x, y] = onSheet(piece, q);
              return `${x.toFixed(3)} ${(heightMm - y).toFixed(3)}`;
            })
            .join('L')}${l.closed ? 'Z' : ''}`}
        />
      ))}
      {locked && <LockMark piece={piece} height={heightMm} />}
    </g>
  );
}

/** A pin through what is locked. */
function LockMark({ piece, height }: { piece: PlacedPiece; height: number }) {
  const { min, max } = piece.drawing.box;
  const [x, y] = onSheet(piece, [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2]);
  return (
    <g pointerEvents="none" aria-hidden="true">
      <circle cx={x} cy={height - y} r="2.6" fill="var(--accent)" />
      <circle cx={x} cy={height - y} r="0.9" fill="var(--sheet)" />
    </g>
  );
}

export function BoardMessage({ children }: { readonly children: string }) {
  return (
    <Box as="p" role="alert" color="bad" m="0">
      {children}
    </Box>
  );
}
