'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { MapCell } from '@/core/decide/map';
import { withValues, type Free } from '@/core/decide/target';
import { USUAL_OPEN, type At, type Measured } from '@/core/decide/wants';
import { nameOfMeasure, saidAt } from '@/core/decide/words';
import { sayNumber } from '@/core/document/words';
import { leverValue } from '@/core/proof/levers';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { Pick } from '../common/Pick';
import { freeOf, measureSaid, measuresToWant, nameOfFree, numbersToFree, parted, VERDICT_WORDS } from './choices';
import { MapSquare, SIDE, type Place } from './map-place';
import { StateChoice } from './StateChoice';
import { useJob } from './useJob';

const FILL: Readonly<Record<MapCell['verdict'], string>> = {
  clear: 'var(--good-bar)',
  risk: 'var(--warn)',
  blocked: 'var(--bad)',
};
const PLAIN = { id: 'none', name: 'the verdict alone' };

/** The verdict over two numbers as a picture: pointed at to read, clicked to go there. */
export function MapPane() {
  const design = useStudio((s) => s.design);
  const measures = useStudio((s) => s.proof?.measures);
  const numbers = useMemo(() => numbersToFree(design), [design]);
  const wantable = useMemo(() => [PLAIN, ...measuresToWant(design, measures ?? {})], [design, measures]);
  const [picked, setPicked] = useState<readonly (string | null)[]>([null, null]);
  const [measure, setMeasure] = useState(PLAIN.id);
  const ids = [picked[0] ?? numbers[0]?.id, picked[1] ?? numbers[1]?.id];
  const [x, y] = ids.map((id) => (id ? freeOf(design, id) : null));
  const [looked, setLooked] = useState<At>({ open: USUAL_OPEN });
  const want =
    measure === PLAIN.id ? null : { mechanism: parted(measure).mechanism, measure: parted(measure).key, ...looked };
  const job = useJob<{
    readonly cells: readonly MapCell[];
    readonly x: Free;
    readonly y: Free;
    readonly measure: Measured | null;
  }>('map', async (at, d, onMore) => {
    const told = (cells: readonly MapCell[]) => ({ cells, x: x!, y: y!, measure: want });
    const answer = await at.map(d, { x: x!, y: y!, measure: want }, (cells) => onMore(told(cells)));
    return answer.ok ? { ok: true, value: told(answer.value) } : answer;
  });
  if (numbers.length < 2) return <p className="dim">A map needs two numbers: put something on the card.</p>;
  return (
    <Box data-testid="map">
      <Box display="flex" flexWrap="wrap" gap="6px" alignItems="center" mb="8px">
        <Pick label="Across" value={ids[0]} choices={numbers} onChange={(id) => setPicked([id, picked[1]])} />
        <Pick label="Up" value={ids[1]} choices={numbers} onChange={(id) => setPicked([picked[0], id])} />
        <Pick label="Measure" value={measure} choices={wantable} onChange={setMeasure} />
        {want && <StateChoice at={looked} onChange={setLooked} />}
        {job.busy ? (
          <Action small onClick={job.stop}>
            Give up
          </Action>
        ) : (
          <Action small strong disabled={ids[0] === ids[1]} onClick={job.start}>
            Draw the map
          </Action>
        )}
        {job.busy && <span className="dim">{job.found?.cells.length ?? 0} places judged</span>}
      </Box>
      {job.why && (
        <chakra.p role="alert" color="bad" m="0">
          {job.why}
        </chakra.p>
      )}
      {job.found && <MapPicture {...job.found} stale={job.of !== design} />}
    </Box>
  );
}

function MapPicture({
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
  const under = (at && square.cell(at)) ?? square.cell(now);
  const shown = at ?? now;
  const values = cells.flatMap((c) => c.value ?? []);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  return (
    <Box display="grid" gridTemplateColumns={`${SIDE}px minmax(160px, 1fr)`} gap="14px">
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
        {cells.map((c) => (
          <rect
            key={`${c.x} ${c.y} ${c.w}`}
            x={square.px(c.x - c.w / 2)}
            y={square.py(c.y + c.h / 2)}
            width={(SIDE * c.w) / (x.to - x.from)}
            height={(SIDE * c.h) / (y.to - y.from)}
            fill={FILL[c.verdict]}
            opacity={c.value === null || high <= low ? 0.55 : 0.25 + (0.65 * (c.value - low)) / (high - low)}
            data-verdict={c.verdict}
          />
        ))}
        <path
          d={`M${square.px(now[0]) - 7} ${square.py(now[1])}h14M${square.px(now[0])} ${square.py(now[1]) - 7}v14`}
          stroke="var(--ink)"
          strokeWidth="2.4"
        />
      </svg>
      <Box fontSize="13.5px">
        {stale && <p className="dim">The card has changed since the map was drawn; the cross is where it is now.</p>}
        <chakra.p m="0">
          {nameOfFree(design, x)}: <b className="num">{sayNumber(design, x.mechanism, x.key, shown[0])}</b> (across)
        </chakra.p>
        <chakra.p m="0">
          {nameOfFree(design, y)}: <b className="num">{sayNumber(design, y.mechanism, y.key, shown[1])}</b> (up)
        </chakra.p>
        {under && (
          <Box role="status" mt="6px">
            <chakra.p m="0" fontWeight="600">
              {VERDICT_WORDS[under.verdict]}
            </chakra.p>
            {measure && (
              <chakra.p m="2px 0 0">
                {nameOfMeasure(design, measure)} {saidAt(design, measure)}:{' '}
                <b className="num">{measureSaid(measure.measure, under.value, design.units)}</b>
              </chakra.p>
            )}
            {under.by && <chakra.p m="2px 0 0">{under.by}</chakra.p>}
          </Box>
        )}
      </Box>
    </Box>
  );
}
