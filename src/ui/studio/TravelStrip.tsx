'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useMemo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { OPEN, type Drive } from '@/core/drives';
import { ownerOfId } from '@/core/ids';
import { KINDS } from '@/core/kinds';
import type { Proof } from '@/core/proof/prove';
import { formatLength, formatSaid, type LengthUnit } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { carriedDrive } from '@/store/studio';
import { ChartTable, thinned } from '../common/Unseen';
import { CardNumbers } from './CardNumbers';
import { Drives } from './Drives';
import { bandsOf } from './travel-bands';
import { useTravelChart, type Area, type Travelled } from './useTravelChart';

/** Figures whose tops are followed over the travel: so many of them are drawn. */
const MOST_TOPS = 6;
/** The chart's area under the names and over the numbers of its axis. */
const ACROSS_CHART = { position: 'absolute', top: '19px', bottom: '22px' } as const;

/** Chart of the whole travel and scrubber in one: drag the hair line, and the posed card follows. */
export function TravelStrip() {
  const proof = useStudio((s) => s.proof);
  const units = useStudio((s) => s.design.units);
  const drive = useStudio(carriedDrive);
  const opening = drive.id === OPEN;
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
      <Scrubber drive={drive} />
      <CardNumbers />
      {opening && <TravelTable proof={proof} units={units} />}
    </Box>
  );
}

/** What is drawn along a drive, of the card as it is. */
function useTravelled(drive: Drive): Travelled {
  const proof = useStudio((s) => s.proof);
  const units = useStudio((s) => s.design.units);
  const mechanisms = useStudio((s) => s.design.mechanisms);
  const figures = useMemo(
    () => (drive.id === OPEN ? mechanisms.filter((m) => KINDS.get(m.kind)?.raises).slice(0, MOST_TOPS) : []),
    [mechanisms, drive],
  );
  const charts = useMemo(() => {
    const moving = mechanisms.find((m) => m.id === ownerOfId(drive.id));
    return (moving && KINDS.get(moving.kind)?.charts) ?? [];
  }, [mechanisms, drive]);
  return { proof, drive, units, figures, charts };
}

function Scrubber({ drive }: { readonly drive: Drive }) {
  const value = useStudio((s) => s.state[drive.id] ?? drive.rest);
  const { move, play } = useActions();
  const canvas = useRef<HTMLCanvasElement>(null);
  const travelled = useTravelled(drive);
  const area = useTravelChart(canvas, travelled);
  const span = Math.max(1, area.right - area.left);
  const range = drive.to - drive.from;
  const xOf = (at: number): number => area.left + (span * (at - drive.from)) / range;
  const drag = (e: PointerEvent<HTMLElement>): void => {
    if (e.buttons !== 1) return;
    const x = e.clientX - e.currentTarget.getBoundingClientRect().left - area.left;
    const at = Math.min(drive.to, Math.max(drive.from, drive.from + (x * range) / span));
    move(drive.id, Math.round(at * 10) / 10);
  };
  const keys = (e: KeyboardEvent): void => {
    const by: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -15, PageUp: 15 };
    const step = by[e.key];
    if (step === undefined) return;
    e.preventDefault();
    move(drive.id, value + step);
  };
  const opening = drive.id === OPEN;
  const { units } = travelled;
  const said = drive.unit === 'deg' ? `${value.toFixed(0)} degrees` : `${formatLength(value, units)} ${units}`;
  return (
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
      {opening && <Troubles xOf={xOf} />}
      <Lit drive={drive} xOf={xOf} />
      <Box position="absolute" inset="0" pointerEvents="none">
        <canvas ref={canvas} aria-hidden="true" />
      </Box>
      <Names {...travelled} area={area} />
      <HairLine at={xOf(value)} />
    </Box>
  );
}

/** Stretches where something is wrong. */
function Troubles({ xOf }: { readonly xOf: (at: number) => number }) {
  const proof = useStudio((s) => s.proof);
  return bandsOf(proof).map((b) => (
    <Box
      key={`${b.name}${b.from}`}
      {...ACROSS_CHART}
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
  ));
}

/** Where the findings are whose parts are pointed at. */
function Lit({ drive, xOf }: { readonly drive: Drive; readonly xOf: (at: number) => number }) {
  const lit = useStudio((s) => s.lit);
  const findings = useStudio((s) => s.proof?.findings) ?? [];
  return findings
    .filter((f) => f.subjects.some((id) => lit.includes(id)))
    .map((f) => (
      <Box
        key={f.id}
        {...ACROSS_CHART}
        left={`${xOf(f.drive[drive.id] ?? drive.rest) - 2}px`}
        width="4px"
        bg="accent"
        opacity="0.75"
        title={f.message}
        pointerEvents="none"
      />
    ));
}

/** What the lines of the chart are. */
function Names({ proof, units, charts, figures, area }: Travelled & { readonly area: Area }) {
  const proving = useStudio((s) => s.proving);
  const topOf = (id: string): number => Math.max(0, ...(proof?.travel ?? []).map((t) => t.tops[id] ?? 0));
  return (
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
          ∙∙∙ tops: {figures.map((f) => `${f.name} ${formatLength(topOf(f.id), units)}`).join(', ')}
        </chakra.span>
      )}
    </Box>
  );
}

/** Where the drive is, px from the left. */
const HairLine = ({ at }: { readonly at: number }) => (
  <Box
    {...ACROSS_CHART}
    left="0"
    // Moved by the graphics alone: what it moves over is not painted anew.
    style={{ transform: `translateX(${at}px)`, willChange: 'transform' }}
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
);

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
