'use client';
import { OPEN } from '@/core/drives';
import { ownerOfId } from '@/core/ids';
import { KINDS } from '@/core/kinds';
import { Box, chakra } from '@chakra-ui/react';
import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { HandPoint, Proof, TravelPoint } from '@/core/proof/prove';
import { formatLength, formatSaid, type LengthUnit, MM_PER_INCH } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { carriedDrive } from '@/store/studio';
import { ChartTable, thinned } from '../common/Unseen';
import { CardNumbers } from './CardNumbers';
import { Drives } from './Drives';
import { inksNow } from '../common/inks';
import { useDark } from '../theme';

Chart.defaults.font.family = "'Source Sans 3 Variable', sans-serif";
Chart.register(LineController, LineElement, PointElement, LinearScale, CategoryScale);

/** Room at the fore edge beyond this is not drawn (mm): what matters is how it comes near 0. */
const DEEPEST_MM = -30;

/** Figures whose tops are followed over the travel: so many of them are drawn. */
const MOST_TOPS = 6;

interface Area {
  readonly left: number;
  readonly right: number;
}
/** Where the chart's own area lies; the same object while nothing has moved. */
const placed = (old: Area, { chartArea: { left, right } }: Chart): Area =>
  old.left === left && old.right === right ? old : { left, right };
/** A length in the unit of the card, for the chart. */
const scaled = (mm: number | null, units: LengthUnit): number | null =>
  mm === null || units === 'mm' ? mm : mm / MM_PER_INCH;

interface Band {
  readonly from: number;
  readonly to: number;
  readonly name: string;
  readonly bad: boolean;
}

/** Chart of the whole travel and scrubber in one: drag the hair line, and the posed card follows. */
export function TravelStrip() {
  const proof = useStudio((s) => s.proof);
  const proving = useStudio((s) => s.proving);
  const drive = useStudio(carriedDrive);
  const value = useStudio((s) => s.state[drive.id] ?? drive.rest);
  const { move, play } = useActions();
  const dark = useDark();
  const mechanisms = useStudio((s) => s.design.mechanisms);
  const units = useStudio((s) => s.design.units);
  const opening = drive.id === OPEN;
  const figures = useMemo(
    () => (opening ? mechanisms.filter((m) => KINDS.get(m.kind)?.raises).slice(0, MOST_TOPS) : []),
    [mechanisms, opening],
  );
  const charts = useMemo(() => {
    const moving = mechanisms.find((m) => m.id === ownerOfId(drive.id));
    return (moving && KINDS.get(moving.kind)?.charts) ?? [];
  }, [mechanisms, drive]);
  const lit = useStudio((s) => s.lit);
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<'line', { x: number; y: number | null }[]> | null>(null);
  const [area, setArea] = useState<Area>({ left: 44, right: 44 });

  useEffect(() => {
    if (!canvas.current) return;
    const made = new Chart<'line', { x: number; y: number | null }[]>(canvas.current, {
      type: 'line',
      data: { datasets: [] },
      // Where the chart lies is known once it is laid out, after each change of size too.
      plugins: [{ id: 'place', afterLayout: (c) => setArea((old) => placed(old, c)) }],
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
          x: {
            type: 'linear',
            grid: { drawTicks: false },
          },
          y: { type: 'linear', ticks: { maxTicksLimit: 4 }, grid: { drawTicks: false } },
        },
      },
    });
    chart.current = made;
    return () => {
      made.destroy();
      chart.current = null;
    };
  }, []);

  useEffect(() => {
    const c = chart.current;
    if (!c) return;
    const colour = inksNow();
    const travel = proof?.travels[drive.id] ?? [];
    const points = (read: (t: TravelPoint | HandPoint) => number | null) =>
      travel.map((t) => ({ x: 'value' in t ? t.value : t.open, y: scaled(read(t), units) }));
    const along = c.options.scales!.x!;
    [along.min, along.max] = [drive.from, drive.to];
    along.ticks = {
      stepSize: drive.unit === 'deg' ? (drive.to > 180 ? 60 : 30) : undefined,
      callback: (v) => (drive.unit === 'deg' ? `${Number(Number(v).toFixed(1))}°` : formatLength(Number(v), units)),
    };
    const line = (label: string, ink: string, data: { x: number; y: number | null }[], dash: number[] = []) => ({
      label,
      data,
      borderColor: ink,
      borderWidth: 2,
      borderDash: dash,
      pointRadius: 0,
      tension: 0.2,
    });
    c.data.datasets = [
      line(
        'lift',
        colour('--accent'),
        points((t) => t.lift_mm),
      ),
      line(
        'clearance',
        colour('--good'),
        points((t) => t.clearance_mm),
        [6, 3],
      ),
      line(
        'past the fore edge',
        colour('--bad'),
        points((t) => (t.reach_mm === null || t.reach_mm < DEEPEST_MM ? null : t.reach_mm)),
        [2, 2],
      ),
      ...charts.map(({ measure, label }) =>
        line(
          label,
          colour('--ink'),
          points((t) => ('measures' in t ? (t.measures[measure] ?? null) : null)),
        ),
      ),
      ...figures.map(({ id, name }) =>
        line(
          name,
          colour('--ink-2'),
          points((t) => t.tops[id] ?? null),
          [1, 3],
        ),
      ),
    ];
    for (const axis of ['x', 'y'] as const) {
      const scale = c.options.scales![axis]!;
      scale.ticks!.color = colour('--ink-2');
      scale.grid!.color = colour('--rule');
    }
    c.options.scales!.y!.min = c.data.datasets[2].data.some((p) => p.y !== null && p.y < 0)
      ? scaled(DEEPEST_MM, units)!
      : 0;
    c.options.scales!.y!.suggestedMax = scaled(20, units)!;
    c.update('none');
  }, [proof, dark, figures, charts, drive, units]);

  const span = Math.max(1, area.right - area.left);
  const range = drive.to - drive.from;
  const xOf = (at: number): number => area.left + (span * (at - drive.from)) / range;
  const valueAt = (e: PointerEvent<HTMLElement>): number => {
    const x = e.clientX - e.currentTarget.getBoundingClientRect().left - area.left;
    return Math.min(drive.to, Math.max(drive.from, drive.from + (x * range) / span));
  };
  const drag = (e: PointerEvent<HTMLElement>): void => {
    if (e.buttons !== 1) return;
    move(drive.id, Math.round(valueAt(e) * 10) / 10);
  };
  const keys = (e: KeyboardEvent): void => {
    const by: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -15, PageUp: 15 };
    const step = by[e.key];
    if (step === undefined) return;
    e.preventDefault();
    move(drive.id, value + step);
  };
  const said = drive.unit === 'deg' ? `${value.toFixed(0)} degrees` : `${formatLength(value, units)} ${units}`;
  return (
    <Box
      as="section"
      aria-label="Travel"
      className="no-print"
      display="grid"
      gridTemplateColumns="228px minmax(0, 1fr) 290px"
      borderTop="1px solid var(--rule)"
      bg="panel"
      minHeight="0"
    >
      <Drives />
      <Box
        position="relative"
        bg="sheet"
        cursor="ew-resize"
        role="slider"
        tabIndex={0}
        aria-label={opening ? 'Opening of the card' : drive.label}
        aria-valuemin={drive.from}
        aria-valuemax={drive.to}
        aria-valuenow={Math.round(value)}
        aria-valuetext={opening ? `${said} open` : said}
        data-testid="travel"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          play(false);
          drag(e);
        }}
        onPointerMove={drag}
        onKeyDown={keys}
        touchAction="none"
        userSelect="none"
      >
        {(opening ? bandsOf(proof) : []).map((b) => (
          <Box
            key={`${b.name}${b.from}`}
            position="absolute"
            top="19px"
            bottom="22px"
            left={`${xOf(b.from)}px`}
            width={`${Math.max(3, xOf(b.to) - xOf(b.from))}px`}
            bg={b.bad ? 'var(--bad-wash)' : 'var(--warn-wash)'}
          >
            <chakra.span
              position="absolute"
              top="6px"
              left="4px"
              whiteSpace="nowrap"
              fontSize="12px"
              color={b.bad ? 'bad' : 'warn'}
              pointerEvents="none"
            >
              {b.name}
            </chakra.span>
          </Box>
        ))}
        {proof?.findings
          .filter((f) => f.subjects.some((id) => lit.includes(id)))
          .map((f) => (
            <Box
              key={f.id}
              position="absolute"
              top="18px"
              bottom="22px"
              left={`${xOf(f.drive[drive.id] ?? drive.rest) - 2}px`}
              width="4px"
              bg="accent"
              opacity="0.75"
              title={f.message}
              pointerEvents="none"
            />
          ))}
        <Box position="absolute" inset="0" pointerEvents="none">
          <canvas ref={canvas} aria-hidden="true" />
        </Box>
        <Box
          position="absolute"
          top="2px"
          left={`${area.left + 6}px`}
          right="8px"
          fontSize="12px"
          lineHeight="16px"
          display="flex"
          gap="14px"
          overflow="hidden"
          whiteSpace="nowrap"
          pointerEvents="none"
        >
          <chakra.span className="dim">{units}</chakra.span>
          <chakra.span color="accent">— lift</chakra.span>
          <chakra.span color="good">– – clearance between mechanisms</chakra.span>
          <chakra.span color="bad">··· past the fore edge</chakra.span>
          {charts.map((c) => (
            <span key={c.measure}>— {c.label.toLowerCase()}</span>
          ))}
          {proving && <chakra.span className="dim">proving…</chakra.span>}
          {figures.length > 0 && (
            <chakra.span className="dim" minWidth="0" overflow="hidden" textOverflow="ellipsis">
              ∙∙∙ tops:{' '}
              {figures
                .map((f) => {
                  const top = Math.max(0, ...(proof?.travel ?? []).map((t) => t.tops[f.id] ?? 0));
                  return `${f.name} ${formatLength(top, units)}`;
                })
                .join(', ')}
            </chakra.span>
          )}
        </Box>
        <Box
          position="absolute"
          top="19px"
          bottom="22px"
          left="0"
          // Moved by the graphics alone: what it moves over is not painted anew.
          style={{ transform: `translateX(${xOf(value)}px)`, willChange: 'transform' }}
          width="2px"
          ml="-1px"
          bg="ink"
          pointerEvents="none"
          _before={{
            content: '""',
            position: 'absolute',
            left: '-6px',
            top: '0',
            width: '14px',
            height: '15px',
            bg: 'ink',
            clipPath: 'polygon(0 0, 100% 0, 100% 60%, 50% 100%, 0 60%)',
          }}
        />
      </Box>
      <CardNumbers />
      {opening && <TravelTable proof={proof} units={units} />}
    </Box>
  );
}

/** The chart in numbers, for those who are read to. */
function TravelTable({ proof, units }: { readonly proof: Proof | null; readonly units: LengthUnit }) {
  if (!proof) return null;
  const say = (mm: number | null): string => (mm === null ? 'none' : formatSaid(mm, units));
  return (
    <ChartTable
      caption="The travel in numbers"
      heads={['Opened to', 'Lift', 'Clearance between mechanisms', 'Past the fore edge']}
      rows={thinned(proof.travel, 13).map((t) => [
        `${t.open.toFixed(0)}°`,
        say(t.lift_mm),
        say(t.clearance_mm),
        say(t.reach_mm),
      ])}
    />
  );
}

function bandsOf(proof: Proof | null): Band[] {
  if (!proof) return [];
  const out: Band[] = [];
  const past = proof.travel.filter((t) => (t.reach_mm ?? -1) > 0.001);
  if (past.length > 0) out.push({ from: past[0].open, to: past[past.length - 1].open, name: 'pokes out', bad: true });
  for (const f of proof.findings) {
    // What only a hand can bring about belongs to the drive it moves.
    if (f.rule === 'collision' && Object.entries(f.drive).every(([id, v]) => id === OPEN || v === 0))
      out.push({
        from: f.span?.from ?? f.drive.open,
        to: f.span?.to ?? f.drive.open,
        name: 'passes through',
        bad: true,
      });
    if (f.rule === 'flex' && f.unit === 'deg')
      out.push(
        f.limit === 180
          ? { from: f.measured, to: 180, name: 'out of reach', bad: true }
          : { from: 0, to: f.measured, name: 'out of reach', bad: true },
      );
    if (f.rule === 'flex' && f.unit === 'mm')
      out.push({ from: Math.max(0, f.drive.open - 5), to: Math.min(180, f.drive.open + 5), name: 'bends', bad: false });
  }
  return out;
}
