'use client';
import { Box, chakra } from '@chakra-ui/react';
import { formatFine } from '@/core/units/length';
import { fieldOf, kindIn, parameterOf, setParameter } from '@/core/document/fields';
import { inSentence } from '@/core/document/words';
import { useActions, useStudio } from '@/store/context';
import { NumberField } from '../common/Field';
import type { StackLayer } from '@/workers/protocol';

const WIDTH = 258;
/** Heights are drawn so much larger than the millimetre of the widths would be. */
const PX_PER_MM = 24;
const FILL: Readonly<Record<StackLayer['kind'], string>> = {
  face: 'var(--rule)',
  sheet: 'var(--sheet)',
  moving: 'var(--chosen, #e6def0)',
  foam: 'url(#foam-section)',
  spacer: 'var(--board-2)',
  rivet: 'var(--glue)',
  token: 'var(--chosen, #e6def0)',
};
/** Where a layer is drawn across the section: foam at both ends, what moves between, spacers about the middle. */
const LANE: Partial<Record<StackLayer['kind'], readonly [x: number, width: number]>> = {
  foam: [0, 26],
  moving: [34, WIDTH - 68],
  token: [70, WIDTH - 140],
  spacer: [WIDTH / 2 - 34, 68],
  rivet: [WIDTH / 2 - 14, 28],
};
/** What is nearer than this touches, mm. */
const TOUCHES_MM = 0.02;

/** A cut through what lies over a face: every layer at its height, and the room over what moves. */
export function StackSection({ id }: { id: string }) {
  const layers = useStudio((s) => s.scene?.stacks[id]);
  const units = useStudio((s) => s.design.units);
  const shutMm = useStudio((s) => s.proof?.closed?.thickness_mm);
  if (!layers || layers.length < 2) return null;
  const [low, top] = [Math.min(...layers.map((l) => l.from)), Math.max(...layers.map((l) => l.to))];
  const height = (top - low) * PX_PER_MM;
  const y = (mm: number): number => (top - mm) * PX_PER_MM;
  const lane = (l: StackLayer): readonly [x: number, width: number] => LANE[l.kind] ?? [0, WIDTH];
  return (
    <Box mb="12px" data-section={id}>
      <chakra.span fontWeight="600">Section</chakra.span>
      <chakra.span className="dim" fontSize="12.5px">
        {' '}
        · heights enlarged
      </chakra.span>
      <svg
        role="img"
        aria-label={layers.map((l) => `${l.name} ${formatFine(l.to - l.from, units)}`).join(', ')}
        width="100%"
        viewBox={`-1 -1 ${WIDTH + 2} ${height + 2}`}
        style={{ display: 'block', marginTop: 4 }}
      >
        <defs>
          <pattern id="foam-section" width="5" height="5" patternUnits="userSpaceOnUse">
            <path d="M0 5 L5 0" stroke="var(--ink-2)" strokeWidth="0.8" />
          </pattern>
        </defs>
        {layers.map((l) => {
          const [x, width] = lane(l);
          const mirrored = l.kind === 'foam' ? [x, WIDTH - x - width] : [x];
          return mirrored.map((at) => (
            <rect
              key={`${l.name}${l.from}${at}`}
              x={at}
              y={y(l.to)}
              width={width}
              height={Math.max(1, (l.to - l.from) * PX_PER_MM)}
              fill={FILL[l.kind]}
              stroke="var(--ink)"
              strokeWidth="0.8"
            />
          ));
        })}
      </svg>
      <ul style={{ listStyle: 'none', margin: '4px 0 0', padding: 0, fontSize: '12.5px' }}>
        {[...layers].reverse().map((l) => (
          <li key={`${l.name}${l.from}`} style={{ display: 'flex', justifyContent: 'space-between' }}>
            {l.lever ? (
              <Thickness id={id} name={l.name} lever={l.lever} />
            ) : (
              <>
                <span>{l.name}</span>
                <span className="num">
                  {formatFine(l.to - l.from, units)}
                  {roomOver(layers, l, units)}
                </span>
              </>
            )}
          </li>
        ))}
      </ul>
      <chakra.p m="3px 0 0" fontSize="12.5px" borderTop="1px solid var(--rule)" data-testid="stack-height">
        <b>All of it {formatFine(top - low, units)}</b>
        {shutMm !== undefined && <span className="dim">; the shut card {formatFine(shutMm, units)}</span>}
      </chakra.p>
    </Box>
  );
}

/** A thickness that is set here: that of foam, of a spacer, of a token. */
function Thickness({ id, name, lever }: { id: string; name: string; lever: string }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const parameter = fieldOf(kindIn(design, id) ?? '', lever);
  const value = parameterOf(design, id, lever);
  if (!parameter || value === undefined) return null;
  return (
    <Box flex="1" data-thickness={lever}>
      <NumberField
        parameter={{ ...parameter, key: `section ${lever}`, label: name }}
        value={value}
        unit={design.units}
        fine
        onChange={(v) => v !== null && edit(`${inSentence(name)} thickness`, (d) => setParameter(d, id, lever, v))}
      />
    </Box>
  );
}

/** The room over what moves, up to the next sheet. */
function roomOver(layers: readonly StackLayer[], layer: StackLayer, units: 'mm' | 'in'): string {
  if (layer.kind !== 'moving' && layer.kind !== 'token') return '';
  const over = layers
    .filter((l) => l.kind !== 'foam' && l.kind !== 'rivet' && l.from >= layer.to - TOUCHES_MM)
    .map((l) => l.from - layer.to);
  const room = Math.min(...over);
  return Number.isFinite(room) && room > TOUCHES_MM ? `, ${formatFine(room, units)} free above` : '';
}
