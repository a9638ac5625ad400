'use client';
import { Box } from '@chakra-ui/react';
import { BarController, BarElement, Chart, LinearScale } from 'chart.js';
import { bin } from 'd3-array';
import { useEffect, useRef } from 'react';
import { formatFine, MM_PER_INCH, type LengthUnit } from '@/core/units/length';
import { ChartTable } from '../common/Unseen';
import { inksNow } from '../common/inks';
import { useDark } from '../theme';

Chart.register(BarController, BarElement, LinearScale);
const BINS = 24;

/** How many of the made cards came out so. @param values mm */
export function Histogram({
  values,
  title,
  units,
  badFrom,
}: {
  readonly values: readonly number[];
  readonly title: string;
  readonly units: LengthUnit;
  /** More than this is a fault, mm. */
  readonly badFrom: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const dark = useDark();
  const bins = bin().thresholds(BINS)([...values]);
  const rows = bins.map((b) => ({ from: b.x0 ?? 0, to: b.x1 ?? 0, count: b.length }));
  const key = JSON.stringify(rows);
  useEffect(() => {
    const list = JSON.parse(key) as typeof rows;
    const ink = inksNow();
    const scaled = (mm: number): number => (units === 'mm' ? mm : mm / MM_PER_INCH);
    const chart = new Chart(canvas.current!, {
      type: 'bar',
      data: {
        datasets: [
          {
            data: list.map((r) => ({ x: scaled((r.from + r.to) / 2), y: r.count })),
            backgroundColor: list.map((r) => ink((r.from + r.to) / 2 > badFrom ? '--bad' : '--good-bar')),
            barPercentage: 1,
            categoryPercentage: 0.96,
            grouped: false,
          },
        ],
      },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        plugins: { legend: { display: false }, tooltip: { enabled: false } },
        scales: {
          x: {
            type: 'linear',
            min: scaled(list[0]?.from ?? 0),
            max: scaled(list.at(-1)?.to ?? 1),
            offset: false,
            title: { display: true, text: `${title}, ${units}`, color: ink('--ink') },
            ticks: { color: ink('--ink-2'), maxRotation: 0, maxTicksLimit: 7 },
          },
          y: { ticks: { precision: 0, color: ink('--ink-2') } },
        },
      },
    });
    return () => chart.destroy();
  }, [key, title, units, badFrom, dark]);
  return (
    <Box height="150px" position="relative">
      <canvas ref={canvas} role="img" aria-label={`${title}: how many cards came out so; its numbers follow`} />
      <ChartTable
        caption={title}
        heads={['From', 'To', 'Cards']}
        rows={rows.map((r) => [formatFine(r.from, units), formatFine(r.to, units), String(r.count)])}
      />
    </Box>
  );
}
