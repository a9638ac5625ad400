'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { MapCell } from '@/core/decide/map';
import { withValues, type Free } from '@/core/decide/target';
import type { Measured } from '@/core/decide/wants';
import { nameOfMeasure, saidAt } from '@/core/decide/words';
import { sayNumber } from '@/core/document/words';
import { leverValue } from '@/core/proof/levers';
import { useActions, useStudio } from '@/store/context';
import { measureSaid, nameOfFree, VERDICT_WORDS } from './choices';
import { Cells, Framed, Legend } from './MapCells';
import { usePlace } from './usePlace';
import { MapSquare, SIDE, type Place } from './map-place';

/** The map, with what is known of the place that is pointed at; a held pointer leads the card over it. */
export function MapPicture({
  cells,
  x,
  y,
  measure,
  stale,
}: {
  readonly cells: readonly MapCell[];
  readonly x: Free;
  readonly y: Free;
  readonly measure: Measured | null;
  readonly stale: boolean;
}) {
  const design = useStudio((s) => s.design);
  const { edit, showPreview } = useActions();
  const [at, setAt] = useState<Place | null>(null);
  /** Where the pointer that is held down has led the card; null while none is. */
  const led = useRef<Place | null>(null);
  const square = useMemo(() => new MapSquare(x, y, cells), [x, y, cells]);
  const now: Place = [
    leverValue(design, x.mechanism, x.key) ?? x.from,
    leverValue(design, y.mechanism, y.key) ?? y.from,
  ];
  const point = (e: PointerEvent<SVGElement>): Place => {
    const r = e.currentTarget.getBoundingClientRect();
    const p = square.at((e.clientX - r.left) / r.width, (e.clientY - r.top) / r.height);
    setAt(p);
    return p;
  };
  const lead = (p: Place | null): void => {
    led.current = p && square.alongEdge(p);
    showPreview(led.current && withValues(design, [x, y], led.current));
  };
  const go = (p: Place): void => {
    lead(null);
    edit('a place of the map', (d) => withValues(d, [x, y], p));
  };
  const keys = (e: KeyboardEvent): void => {
    const way: Record<string, Place> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    };
    const by = way[e.key];
    if (e.key === 'Enter' && at) go(at);
    else if (e.key === 'Escape' && led.current) lead(null);
    else if (by) {
      const [u, v] = at ?? now;
      const step = e.shiftKey ? 10 : 1;
      setAt(square.near(u + step * by[0], v + step * by[1]));
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <Box display="grid" gridTemplateColumns="auto minmax(160px, 1fr)" gap="14px">
      <Framed x={x} y={y}>
        <svg
          viewBox={`0 0 ${SIDE} ${SIDE}`}
          width={SIDE}
          height={SIDE}
          role="application"
          tabIndex={0}
          aria-label={`${nameOfFree(design, x)} and ${nameOfFree(design, y)}: arrow keys point, Enter goes there`}
          data-testid="map-picture"
          shapeRendering="crispEdges"
          style={{ border: '1px solid var(--rule)', cursor: 'crosshair', touchAction: 'none' }}
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            lead(point(e));
          }}
          onPointerMove={(e) => {
            const p = point(e);
            if (led.current) lead(p);
          }}
          onPointerUp={() => led.current && go(led.current)}
          onPointerCancel={() => lead(null)}
          onPointerLeave={() => setAt(null)}
          onKeyDown={keys}
        >
          <Cells square={square} cells={cells} />
          <path
            d={`M${square.px(now[0]) - 7} ${square.py(now[1])}h14M${square.px(now[0])} ${square.py(now[1]) - 7}v14`}
            stroke="var(--ink)"
            strokeWidth="2.4"
          />
        </svg>
      </Framed>
      <Box fontSize="13.5px">
        <Legend />
        {stale && <p className="dim">The card has changed since the map was drawn; the cross is where it is now.</p>}
        <Reading x={x} y={y} at={at ?? now} under={(at && square.cell(at)) ?? square.cell(now)} measure={measure} />
      </Box>
    </Box>
  );
}

/** What is known of one place. */
function Reading({
  x,
  y,
  at: [across, up],
  under,
  measure,
}: {
  readonly x: Free;
  readonly y: Free;
  readonly at: Place;
  readonly under: MapCell | undefined;
  readonly measure: Measured | null;
}) {
  const design = useStudio((s) => s.design);
  const here = usePlace(x, y, measure, [across, up]);
  const told = here ?? under;
  return (
    <>
      <chakra.p m="0">
        {nameOfFree(design, x)}: <b className="num">{sayNumber(design, x.mechanism, x.key, across)}</b> (across)
      </chakra.p>
      <chakra.p m="0">
        {nameOfFree(design, y)}: <b className="num">{sayNumber(design, y.mechanism, y.key, up)}</b> (up)
      </chakra.p>
      {told && (
        <Box role="status" mt="6px">
          <chakra.p m="0" fontWeight="600">
            {VERDICT_WORDS[told.verdict]}
          </chakra.p>
          {measure && (
            <chakra.p m="2px 0 0">
              {nameOfMeasure(design, measure)} {saidAt(design, measure)} is {here ? '' : 'about '}
              <b className="num">{measureSaid(measure.measure, told.value, design.units)}</b>
            </chakra.p>
          )}
          {told.by && <chakra.p m="2px 0 0">{told.by}</chakra.p>}
        </Box>
      )}
    </>
  );
}
