'use client';
import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import { useEffect, useRef, useState, type RefObject } from 'react';
import type { Drive } from '@/core/drives';
import type { HandPoint, Proof, TravelPoint } from '@/core/proof/prove';
import { formatLength, type LengthUnit, MM_PER_INCH } from '@/core/units/length';
import { inksNow } from '../common/inks';
import { useDark } from '../theme';

Chart.defaults.font.family = "'Source Sans 3 Variable', sans-serif";
Chart.register(LineController, LineElement, PointElement, LinearScale, CategoryScale);

/** Room at the fore edge beyond this is not drawn (mm): what matters is how it comes near 0. */
const DEEPEST_MM = -30;
/** The chart is at least so high, mm. */
const LEAST_HIGH_MM = 20;

type Point = { x: number; y: number | null };
type LineChart = Chart<'line', Point[]>;
/** Where the chart's own area lies across the strip, px. */
export interface Area {
  readonly left: number;
  readonly right: number;
}
/** What is drawn of a proof along a drive. */
export interface Travelled {
  readonly proof: Proof | null;
  readonly drive: Drive;
  readonly units: LengthUnit;
  /** Measures of what the drive moves. */
  readonly charts: readonly { readonly measure: string; readonly label: string }[];
  /** Mechanisms whose tops are followed. */
  readonly figures: readonly { readonly id: string; readonly name: string }[];
}

/** The same object while nothing has moved. */
const placed = (old: Area, { chartArea: { left, right } }: Chart): Area =>
  old.left === left && old.right === right ? old : { left, right };
/** A length in the unit of the card, for the chart. */
const scaled = (mm: number | null, units: LengthUnit): number | null =>
  mm === null || units === 'mm' ? mm : mm / MM_PER_INCH;

/** Draws the travel on a canvas; returns where its area lies. */
export function useTravelChart(canvas: RefObject<HTMLCanvasElement | null>, travelled: Travelled): Area {
  const { proof, drive, units, charts, figures } = travelled;
  const dark = useDark();
  const chart = useRef<LineChart | null>(null);
  const [area, setArea] = useState<Area>({ left: 44, right: 44 });
  useEffect(() => {
    if (!canvas.current) return;
    // Where the chart lies is known once it is laid out, after each change of size too.
    const made = emptyChart(canvas.current, (c) => setArea((old) => placed(old, c)));
    chart.current = made;
    return () => {
      made.destroy();
      chart.current = null;
    };
  }, [canvas]);
  useEffect(() => {
    if (chart.current) draw(chart.current, { proof, drive, units, charts, figures });
  }, [proof, dark, figures, charts, drive, units]);
  return area;
}

const emptyChart = (canvas: HTMLCanvasElement, onLaid: (chart: Chart) => void): LineChart =>
  new Chart<'line', Point[]>(canvas, {
    type: 'line',
    data: { datasets: [] },
    plugins: [{ id: 'place', afterLayout: onLaid }],
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      parsing: false,
      events: [],
      layout: { padding: { top: 24, right: 14 } },
      // The names stand on the strip itself, beside the unit.
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: {
        x: { type: 'linear', grid: { drawTicks: false } },
        y: { type: 'linear', ticks: { maxTicksLimit: 4 }, grid: { drawTicks: false } },
      },
    },
  });

function draw(chart: LineChart, travelled: Travelled): void {
  const { drive, units } = travelled;
  const { x, y } = chart.options.scales! as Record<'x' | 'y', NonNullable<LineChart['options']['scales']>[string]>;
  chart.data.datasets = linesOf(travelled);
  Object.assign(x!, { min: drive.from, max: drive.to });
  x!.ticks = {
    stepSize: drive.unit === 'deg' ? (drive.to > 180 ? 60 : 30) : undefined,
    callback: (v) => (drive.unit === 'deg' ? `${Number(Number(v).toFixed(1))}°` : formatLength(Number(v), units)),
  };
  const ink = inksNow();
  for (const scale of [x!, y!]) {
    scale.ticks!.color = ink('--ink-2');
    scale.grid!.color = ink('--rule');
  }
  const comesBack = chart.data.datasets[PAST].data.some((p) => p.y !== null && p.y < 0);
  Object.assign(y!, {
    min: comesBack ? scaled(DEEPEST_MM, units)! : 0,
    suggestedMax: scaled(LEAST_HIGH_MM, units)!,
  });
  chart.update('none');
}

/** Place of the line of what reaches past the fore edge. */
const PAST = 2;
function linesOf({ proof, drive, units, charts, figures }: Travelled) {
  const ink = inksNow();
  const travel = proof?.travels[drive.id] ?? [];
  const line = (
    label: string,
    colour: string,
    read: (t: TravelPoint | HandPoint) => number | null,
    dash: number[] = [],
  ) => ({
    label,
    data: travel.map((t) => ({ x: 'value' in t ? t.value : t.open, y: scaled(read(t), units) })),
    borderColor: ink(colour),
    borderWidth: 2,
    borderDash: dash,
    pointRadius: 0,
    tension: 0.2,
  });
  const past = (t: TravelPoint | HandPoint): number | null =>
    t.reach_mm === null || t.reach_mm < DEEPEST_MM ? null : t.reach_mm;
  return [
    line('lift', '--accent', (t) => t.lift_mm),
    line('clearance', '--good', (t) => t.clearance_mm, [6, 3]),
    line('past the fore edge', '--bad', past, [2, 2]),
    ...charts.map(({ measure, label }) =>
      line(label, '--ink', (t) => ('measures' in t ? (t.measures[measure] ?? null) : null)),
    ),
    ...figures.map(({ id, name }) => line(name, '--ink-2', (t) => t.tops[id] ?? null, [1, 3])),
  ];
}
