'use client';
import { CARD } from '@/core/ids';
import { Box, chakra } from '@chakra-ui/react';
import { Chart, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { useEffect, useMemo, useRef, useState } from 'react';
import { inSentence, isLengthMeasure, measureWords } from '@/core/document/words';
import { formatSaid, formatLength, MM_PER_INCH, roundedForCutting, type LengthUnit } from '@/core/units/length';
import { valuesIn, baseKindOf, kindIn, cardValues, parametersOf, setParameter } from '@/core/document/fields';
import type { WhatIfPoint } from '@/core/proof/what-if';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { ChartTable, thinned } from '../common/Unseen';
import { Action } from '../common/Action';
import { Choice } from '../common/Field';
import { inksNow } from '../common/inks';
import { useDark } from '../theme';

Chart.register(LineController, LineElement, PointElement, LinearScale, Legend, Tooltip);
const POINTS = 21;

/** One parameter swept over its range: what the card would do at each value. A click on the chart takes that value. */
export function WhatIf() {
  const design = useStudio((s) => s.design);
  const selected = useStudio((s) => s.selected);
  const { edit, select, showPreview } = useActions();
  const values = valuesIn(design, selected) ?? cardValues(design);
  const keys = parametersOf(kindIn(design, selected) ?? baseKindOf(design).id).filter(
    (p) => typeof values[p.key] === 'number',
  );
  const [wanted, setKey] = useState('');
  const [alsoWanted, setAlso] = useState('');
  const parameter = keys.find((p) => p.key === wanted) ?? keys[0];
  const now = values[parameter?.key ?? ''] as number;
  const [points, setPoints] = useState<readonly WhatIfPoint[]>([]);
  const range = useMemo(() => {
    const span = parameter?.unit === 'deg' ? 45 : Math.max(15, Math.abs(now) * 0.9);
    return [Math.max(parameter?.min ?? -1e4, now - span), Math.min(parameter?.max ?? 1e4, now + span)] as const;
  }, [parameter, now]);
  useEffect(() => {
    if (!parameter) return;
    setPoints([]);
    let live = true;
    const at = Array.from({ length: POINTS }, (_, k) => range[0] + ((range[1] - range[0]) * k) / (POINTS - 1));
    void engine('study').whatIf(design, selected, parameter.key, at, (p) => {
      if (live) setPoints((list) => [...list, p]);
    });
    return () => {
      live = false;
    };
  }, [design, selected, parameter, range]);
  const take = (value: number): void => {
    const degrees = parameter.unit === 'deg';
    const v = !degrees && design.units === 'in' ? roundedForCutting(value, 'in') : Math.round(value * 2) / 2;
    showPreview(null);
    const said = degrees ? `${v}°` : `${formatLength(v, design.units)} ${design.units}`;
    edit(`${inSentence(parameter.label)} ${said}`, (d) => setParameter(d, selected, parameter.key, v));
  };
  if (!parameter) return null;
  const measured = Object.keys(points[0]?.measures ?? {});
  const also = measured.includes(alsoWanted) ? alsoWanted : null;
  return (
    <Box
      as="section"
      aria-label="What if"
      data-points={points.length}
      p="10px 14px"
      display="flex"
      flexDirection="column"
      minHeight="0"
      minWidth="0"
    >
      <Box
        display="flex"
        gap="18px"
        alignItems="baseline"
        css={{ '& > div': { marginBottom: 0, flexWrap: 'nowrap' }, '& select': { maxWidth: '118px' } }}
      >
        <chakra.h2 className="heading" whiteSpace="nowrap">
          What if
        </chakra.h2>
        <Choice
          asList
          label="of"
          value={selected}
          choices={[{ id: CARD, name: 'Base card' }, ...design.mechanisms.map((x) => ({ id: x.id, name: x.name }))]}
          onChange={select}
        />
        <Choice
          asList
          label="parameter"
          value={parameter.key}
          choices={keys.map((p) => ({ id: p.key, name: p.label }))}
          onChange={setKey}
        />
        {measured.length > 0 && (
          <Choice
            asList
            label="and"
            value={also ?? ''}
            choices={[
              { id: '', name: 'nothing more' },
              ...measured.map((id) => ({ id, name: nameOf(id, design.units) })),
            ]}
            onChange={setAlso}
          />
        )}
        <chakra.span
          className="dim"
          fontSize="12.5px"
          minWidth="0"
          overflow="hidden"
          whiteSpace="nowrap"
          textOverflow="ellipsis"
        >
          {points.length < POINTS ? `${points.length} of ${POINTS}` : ''}
        </chakra.span>
        {points.length > 0 && points.length < POINTS && (
          <Action
            small
            onClick={() => void engine('study').whatIf(design, selected, parameter.key, [], () => undefined)}
          >
            Stop
          </Action>
        )}
      </Box>
      <WhatIfChart
        points={points}
        also={also}
        now={now}
        unit={parameter.unit === 'deg' ? '°' : design.units}
        units={design.units}
        range={range}
        onTake={take}
      />
    </Box>
  );
}

const nameOf = (key: string, units: LengthUnit): string => measureWords(key, 0, units).name;
const measureOf = ({ measures }: WhatIfPoint, key: string): number | null => measures[key] ?? null;
function saidOf(point: WhatIfPoint, key: string, units: LengthUnit): string {
  const value = measureOf(point, key);
  return value === null ? 'not known' : measureWords(key, value, units).value;
}

function WhatIfChart({
  points,
  also,
  now,
  unit,
  units,
  range,
  onTake,
}: {
  points: readonly WhatIfPoint[];
  /** A measure that is drawn too. */
  also: string | null;
  now: number;
  /** Of the parameter, and of lengths. */
  unit: string;
  units: LengthUnit;
  range: readonly [number, number];
  onTake: (value: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<'line', { x: number; y: number | null }[]> | null>(null);
  /** Length of one unit of each axis, mm (or degrees). */
  const perLength = units === 'in' ? MM_PER_INCH : 1;
  const perParameter = unit === 'in' ? MM_PER_INCH : 1;
  const taking = useRef(onTake);
  const dark = useDark();
  useEffect(() => {
    taking.current = (x) => onTake(x * perParameter);
  }, [onTake, perParameter]);
  useEffect(() => {
    const made = new Chart<'line', { x: number; y: number | null }[]>(canvas.current!, {
      type: 'line',
      data: { datasets: [] },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        parsing: false,
        interaction: { mode: 'index', intersect: false },
        plugins: { legend: { position: 'top', labels: { boxWidth: 16, boxHeight: 1 } } },
        scales: {
          x: { type: 'linear' },
          y: { type: 'linear', title: { display: true } },
          count: {
            type: 'linear',
            position: 'right',
            min: 0,
            suggestedMax: 4,
            ticks: { precision: 0 },
            grid: { drawOnChartArea: false },
            title: { display: true, text: 'findings' },
          },
          // Of a measure that is no length; there only where one is asked for.
          own: { type: 'linear', position: 'right', display: 'auto', grid: { drawOnChartArea: false } },
        },
        onClick: (event, _, c) => event.x !== null && taking.current(c.scales.x.getValueForPixel(event.x)!),
      },
    });
    chart.current = made;
    return () => made.destroy();
  }, []);
  useEffect(() => {
    const c = chart.current;
    if (!c) return;
    const ink = inksNow();
    const set = (label: string, colour: string, read: (p: WhatIfPoint) => number | null, extra: object = {}) => ({
      label,
      borderColor: ink(colour),
      backgroundColor: ink(colour),
      borderWidth: 2,
      pointRadius: 0,
      data: points.map((p) => ({ x: p.value / perParameter, y: read(p) })),
      ...extra,
    });
    const length = (mm: number | null): number | null => (mm === null ? null : mm / perLength);
    const alsoDrawn = (key: string): ReturnType<typeof set> =>
      isLengthMeasure(key)
        ? set(nameOf(key, units), '--ink', (p) => length(measureOf(p, key)))
        : set(nameOf(key, units), '--ink', (p) => measureOf(p, key), { yAxisID: 'own' });
    c.data.datasets = [
      set('past the fore edge, closed', '--bad', (p) => length(p.reachMm), { borderDash: [2, 2] }),
      set('lift at 90°', '--accent', (p) => length(p.liftMm)),
      set('findings that block', '--warn', (p) => p.blocks, { yAxisID: 'count', stepped: 'middle' }),
      set('risks', '--good', (p) => p.risks, { yAxisID: 'count', stepped: 'middle', borderDash: [6, 3] }),
      ...(also === null ? [] : [alsoDrawn(also)]),
    ];
    for (const axis of ['x', 'y', 'count']) Object.assign(c.options.scales![axis]!.ticks!, { color: ink('--ink-2') });
    c.options.plugins!.legend!.labels!.color = ink('--ink');
    Object.assign(c.options.scales!.x!, {
      min: range[0] / perParameter,
      max: range[1] / perParameter,
      title: {
        display: true,
        text: `now ${Number((now / perParameter).toFixed(3))} ${unit} · click a value to take it`,
      },
    });
    Object.assign(c.options.scales!.y!, { title: { display: true, text: units } });
    c.update('none');
  }, [points, also, now, unit, units, perLength, perParameter, range, dark]);
  return (
    <Box flex="1" minHeight="0" position="relative">
      <canvas
        ref={canvas}
        role="img"
        aria-label="Chart of what the parameter does; its numbers follow"
        style={{ cursor: 'pointer' }}
      />
      <ChartTable
        caption="What the parameter does"
        heads={[
          'Set to',
          'Past the fore edge, closed',
          'Lift at 90°',
          'Findings that block',
          'Risks',
          ...(also === null ? [] : [nameOf(also, units)]),
        ]}
        rows={thinned(points, 13).map((p) => [
          `${Number((p.value / perParameter).toFixed(3))} ${unit}`,
          ...[p.reachMm, p.liftMm].map((mm) => (mm === null ? 'not known' : formatSaid(mm, units))),
          String(p.blocks),
          String(p.risks),
          ...(also === null ? [] : [saidOf(p, also, units)]),
        ])}
      />
    </Box>
  );
}
