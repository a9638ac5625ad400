'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { PASS_WORDS, PASSES } from '@/core/paper/machine';
import type { Ring } from '@/core/plane/polygon';
import type { CutReport, Spot } from '@/core/simulate/report';
import type { CutWhat, Laid } from '@/workers/protocol';
import { useStudio } from '@/store/context';
import { deg, mm } from '../common/asked';
import { Action } from '../common/Action';
import { Choice, NumberField } from '../common/Field';
import { FileButton } from '../common/FileButton';
import { textOf } from '../common/files';
import { PACES, useCutter, useMachine, type Cutting, type Pace } from './useCutter';

const LANGUAGES: readonly { readonly id: CutWhat['format']; readonly name: string }[] = [
  { id: 'plt', name: 'HP-GL/2' },
  { id: 'gcode', name: 'G-code' },
  { id: 'svg', name: 'SVG' },
  { id: 'dxf', name: 'DXF' },
];
/** How the printed sheet lies on the bed, for the scanner to find out. */
const LIES = [
  mm('dx', 'Print lies across', -8, 8),
  mm('dy', 'up', -8, 8),
  deg('turnDeg', 'turned', { note: 'To the left.' }),
];
/** Larger files are no sheet of a card (characters). */
const LARGEST = 24_000_000;

/** The simulated cutter: the very file that is written is read back and cut, and what came of it is told. */
export function CutterView({ laid }: { readonly laid: Laid | null }) {
  const machine = useMachine();
  const cutter = useCutter();
  const [what, setWhat] = useState('sheet 0');
  const [format, setFormat] = useState<CutWhat['format']>('plt');
  const [refused, setRefused] = useState<string | null>(null);
  const marks = useStudio((s) => s.design.sheets.print?.marks ?? false);
  const units = useStudio((s) => s.design.units);
  const [lies, setLies] = useState<NonNullable<CutWhat['lies']>>({ dx: 1.5, dy: -0.8, turnDeg: 0.6 });
  const { cutting, running, pace } = cutter;
  const choices = [
    ...(laid?.layout.sheets.map((s, i) => ({ id: `sheet ${i}`, name: `sheet ${i + 1}: ${s.stock.name}` })) ?? []),
    ...(laid?.beds?.beds.map((_, i) => ({ id: `bed ${i}`, name: `bed ${i + 1}` })) ?? []),
    { id: 'strip', name: 'test strip' },
  ];
  const begin = (): void => {
    const [kind, n] = what.split(' ');
    const own = kind === 'strip' ? { strip: true } : kind === 'bed' ? { bed: Number(n) } : { sheet: Number(n) };
    cutter.begin({ format, ...own, ...(marks && kind === 'sheet' ? { lies } : {}) });
  };
  const open = async (chosen: File): Promise<void> => {
    const whole = await textOf(chosen, LARGEST, 'a cut file');
    setRefused(whole.ok ? null : whole.why);
    if (whole.ok) cutter.beginFile({ name: chosen.name, text: whole.text });
  };
  return (
    <Box as="section" aria-label="Simulated cutter">
      <Box display="flex" gap="0 14px" flexWrap="wrap" alignItems="start">
        <Choice asList label="Cut" value={what} choices={choices} onChange={setWhat} />
        <Choice
          asList
          label="from"
          value={format}
          choices={LANGUAGES}
          onChange={(id) => setFormat(id as typeof format)}
        />
        <Choice
          label="Pace"
          value={String(pace)}
          choices={PACES.map((p) => ({ id: String(p), name: `× ${p}` }))}
          onChange={(id) => cutter.setPace(Number(id) as Pace)}
        />
        <Action small strong onClick={begin}>
          Start cutting
        </Action>
        <FileButton
          label="File to cut"
          accept=".svg,.dxf,.plt,.hpgl,.gcode,.nc"
          testId="cut-file"
          onFile={(f) => void open(f)}
        >
          Cut a file
        </FileButton>
      </Box>
      {marks && (
        <Box as="section" aria-label="How the print lies" display="flex" gap="14px" flexWrap="wrap">
          {LIES.map((p) => (
            <NumberField
              key={p.key}
              parameter={p}
              value={lies[p.key as keyof typeof lies]}
              unit={units}
              onChange={(v) => v !== null && setLies({ ...lies, [p.key]: v })}
            />
          ))}
        </Box>
      )}
      {(refused ?? cutter.why) && (
        <chakra.p role="alert" color="bad" m="0 0 8px">
          {refused ?? cutter.why}
        </chakra.p>
      )}
      {!cutting && (
        <chakra.p className="dim" m="0">
          {machine.name}: the file is written, read back, and cut here first. It shows where paper stays uncut, what
          comes loose too soon, and how long it takes.
        </chakra.p>
      )}
      {cutting && (
        <>
          <Box display="flex" gap="8px" alignItems="center" flexWrap="wrap" mb="8px">
            <chakra.progress
              flex="1"
              minWidth="160px"
              value={Math.min(cutting.at.seconds, cutting.begun.estimateS)}
              max={cutting.begun.estimateS}
              aria-label="How far it has cut"
            />
            <chakra.span className="num" role="status" data-testid="cut-clock">
              {clock(cutting.at.seconds)} of about {clock(cutting.begun.estimateS)}
            </chakra.span>
            {!cutting.at.done && (
              <Action small onClick={() => cutter.pause(running)}>
                {running ? 'Pause' : 'Go on'}
              </Action>
            )}
            <Action small onClick={cutter.giveUp}>
              {cutting.at.done ? 'Clear the bed' : 'Give up'}
            </Action>
          </Box>
          {cutting.begun.scanned && (
            <chakra.p m="0 0 8px" data-testid="scanned">
              Marks found: the print lies {cutting.begun.scanned.dx.toFixed(2)} across,{' '}
              {cutting.begun.scanned.dy.toFixed(2)} up, turned {cutting.begun.scanned.turnDeg.toFixed(2)}°. The cut
              follows it to {cutting.begun.scanned.errorMm.toFixed(3)} mm.
            </chakra.p>
          )}
          <Bed cutting={cutting} />
          {cutting.begun.tight.length > 0 && (
            <chakra.p color="warn" fontSize="13px">
              {cutting.begun.tight.length} {cutting.begun.tight.length === 1 ? 'curve is' : 'curves are'} tighter than
              the blade turns ({machine.blade.leastRadiusMm} mm): the tightest has{' '}
              {Math.min(...cutting.begun.tight.map((t) => t.radiusMm)).toFixed(2)} mm.
            </chakra.p>
          )}
          {cutting.report && <Report report={cutting.report} />}
        </>
      )}
    </Box>
  );
}

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

const pathOf = (points: Ring): string => `M${points.map(([x, y]) => `${x.toFixed(2)} ${(-y).toFixed(2)}`).join('L')}`;

/** The sheet as it is cut: what is to come thin, what is cut in ink, the tool where it is. */
function Bed({ cutting: { begun, cut, at, report } }: { readonly cutting: Cutting }) {
  const points = begun.lines.flatMap((l) => l.points);
  const [x0, x1] = [Math.min(0, ...points.map((p) => p[0])), Math.max(...points.map((p) => p[0]))];
  const [y0, y1] = [Math.min(0, ...points.map((p) => p[1])), Math.max(...points.map((p) => p[1]))];
  const spots = report ? SPOTS.flatMap(({ of }) => report[of]) : begun.tight;
  return (
    <svg
      role="img"
      aria-label="The sheet as it is cut"
      width="100%"
      style={{ maxHeight: '52vh', background: 'var(--sheet)', border: '1px solid var(--rule)' }}
      viewBox={`${x0 - 6} ${-y1 - 6} ${x1 - x0 + 12} ${y1 - y0 + 12}`}
    >
      {report?.freed.map((part, k) => (
        <path
          key={`free ${k}`}
          d={[part.outline, ...part.holes].map((r) => `${pathOf(r)}Z`).join('')}
          fill="var(--accent-wash)"
          fillRule="evenodd"
        />
      ))}
      {begun.lines.map((l, k) => (
        <path key={`line ${k}`} className="line mark" d={pathOf(l.points)} />
      ))}
      {[...cut].map(([k, { pass, points: way }]) => (
        <path
          key={`cut ${k}`}
          className={pass === 'score' || pass === 'pen' ? `line ${ROLE[pass]}` : 'cut-way'}
          d={pathOf(way)}
        />
      ))}
      {spots.map((s, k) => (
        <circle key={`spot ${k}`} cx={s.at[0]} cy={-s.at[1]} r="2.4" fill="none" stroke="var(--bad)" className="thin" />
      ))}
      {!at.done && (
        <g data-testid="tool">
          <circle cx={at.axis[0]} cy={-at.axis[1]} r="3" fill="none" stroke="var(--ink)" className="thin" />
          {at.down && <circle cx={at.axis[0]} cy={-at.axis[1]} r="1" fill="var(--ink)" />}
        </g>
      )}
    </svg>
  );
}
const ROLE = { score: 'valley', pen: 'mark' } as const;

/** What is told of a run, and how. */
const SPOTS = [
  { of: 'leftUncut', none: 'Nothing that was meant stayed uncut.', some: 'Paper stays uncut' },
  { of: 'unscored', none: 'Every fold was scored.', some: 'A fold is not scored' },
  { of: 'cutThrough', none: 'No fold was cut through.', some: 'A fold is cut through' },
  { of: 'strayed', none: 'No tool went where no line is.', some: 'Worked where no line is' },
  { of: 'looseEarly', none: 'Nothing came loose before its inner cuts.', some: 'Worked after its part was loose' },
  { of: 'cutTwice', none: 'No line was cut twice.', some: 'Cut twice' },
] as const;

function Report({ report }: { readonly report: CutReport }) {
  const { seconds, estimateS, lengthMm, freed, passes } = report;
  return (
    <Box aria-label="What came of it" as="section" mt="8px">
      <chakra.p m="0 0 6px" data-testid="cut-report">
        Done in {clock(seconds)} (reckoned {clock(estimateS)}), {(lengthMm / 1000).toFixed(2)} m of lines.{' '}
        {freed.length} {freed.length === 1 ? 'part' : 'parts'} came free.
      </chakra.p>
      <Box as="ul" m="0 0 6px" pl="18px">
        {PASSES.flatMap((p) => passes.filter((x) => x.pass === p)).map((p, k) => (
          <li key={k}>
            {PASS_WORDS[p.pass]}: tool {p.tool}, {p.strokes} {p.strokes === 1 ? 'line' : 'lines'},{' '}
            {Math.round(p.lengthMm)} mm
          </li>
        ))}
      </Box>
      {SPOTS.filter(({ of }) => report[of].length > 0).map(({ of, some }) => (
        <Told key={of} spots={report[of]} some={some} />
      ))}
      <chakra.p m="0" color="good">
        {SPOTS.filter(({ of }) => report[of].length === 0)
          .map(({ none }) => none)
          .join(' ')}
      </chakra.p>
    </Box>
  );
}

function Told({ spots, some }: { readonly spots: readonly Spot[]; readonly some: string }) {
  const worst = spots.reduce((a, b) => (b.mm > a.mm ? b : a));
  return (
    <chakra.p m="0" color="bad">
      {some} at {spots.length} {spots.length === 1 ? 'place' : 'places'}, at worst {worst.mm.toFixed(2)} mm at{' '}
      {worst.at[0].toFixed(0)}, {worst.at[1].toFixed(0)} from the lower left.
    </chakra.p>
  );
}
