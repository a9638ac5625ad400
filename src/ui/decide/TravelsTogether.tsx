'use client';
import { Box } from '@chakra-ui/react';
import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import { useEffect, useRef } from 'react';
import type { TravelPoint } from '@/core/proof/prove';
import { formatSaid, MM_PER_INCH, type LengthUnit } from '@/core/units/length';
import { ChartTable, thinned } from '../common/Unseen';
import { inksNow } from '../common/inks';
import { useDark } from '../theme';

Chart.register(LineController, LineElement, PointElement, LinearScale);

export interface NamedTravel {
  readonly name: string;
  readonly hue: string;
  readonly travel: readonly TravelPoint[];
}

/** The travel of several cards in one chart: how high each stands as it opens. */
export function TravelsTogether({ all, units }: { readonly all: readonly NamedTravel[]; readonly units: LengthUnit }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const dark = useDark();
  const key = JSON.stringify(all);
  useEffect(() => {
    const ink = inksNow();
    const per = units === 'in' ? MM_PER_INCH : 1;
    const chart = new Chart<'line', { x: number; y: number }[]>(canvas.current!, {
      type: 'line',
      data: {
        datasets: (JSON.parse(key) as NamedTravel[]).map(({ name, hue, travel }) => ({
          label: name,
          borderColor: ink(hue),
          borderWidth: 2,
          pointRadius: 0,
          data: travel.map((t) => ({ x: t.open, y: t.lift_mm / per })),
        })),
      },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        parsing: false,
        plugins: { legend: { display: false } },
        scales: {
          x: { type: 'linear', min: 0, max: 180, ticks: { color: ink('--ink-2'), callback: (v) => `${v}°` } },
          y: {
            type: 'linear',
            title: { display: true, text: `stands high, ${units}`, color: ink('--ink') },
            ticks: { color: ink('--ink-2') },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [key, units, dark]);
  return (
    <Box height="220px" position="relative">
      <canvas ref={canvas} role="img" aria-label="How high each stands as it opens; its numbers follow" />
      <ChartTable
        caption="How high each stands"
        heads={['Opened to', ...all.map((a) => a.name)]}
        rows={thinned(all[0]?.travel ?? [], 10).map((t) => [
          `${t.open.toFixed(0)}°`,
          ...all.map((a) => {
            const at = a.travel.find((p) => Math.abs(p.open - t.open) < 0.01);
            return at ? formatSaid(at.lift_mm, units) : 'not reached';
          }),
        ])}
      />
    </Box>
  );
}
