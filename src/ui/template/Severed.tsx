'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Severing } from '@/core/build/template-severing';
import type { TemplateLine } from '@/core/pattern/mending';
import type { TemplateRole } from '@/core/pattern/pattern';
import { formatLength, type LengthUnit } from '@/core/units/length';
import { Action } from '../common/Action';
import { viewOf } from './viewing';

/** Cuts that would part a piece, those that are alike together: what they are is asked by a picture of them. */
export function Severed({
  severing,
  lines,
  units,
  onPick,
  onRole,
}: {
  readonly severing: readonly Severing[];
  readonly lines: readonly TemplateLine[];
  readonly units: LengthUnit;
  readonly onPick: (ids: readonly string[]) => void;
  readonly onRole: (ids: readonly string[], role: TemplateRole) => void;
}) {
  if (severing.length === 0) return null;
  return (
    <Box role="group" aria-label="Cuts from edge to edge" my="10px">
      <chakra.h3 className="heading" mb="6px !important">
        Cuts from edge to edge
      </chakra.h3>
      {severing.slice(0, MOST_ASKED).map((s) => (
        <Box
          key={s.lines.join(' ')}
          data-severing={s.lines.length}
          display="grid"
          gridTemplateColumns="84px minmax(0, 1fr)"
          gap="10px"
          border="1px solid var(--rule)"
          borderLeft="4px solid var(--warn)"
          borderRadius="card"
          p="8px 10px"
          mb="6px"
        >
          <chakra.button
            type="button"
            aria-label="Pick them in the drawing"
            bg="sheet"
            border="1px solid var(--rule)"
            borderRadius="card"
            cursor="pointer"
            onClick={() => onPick(s.lines)}
          >
            <Picture lines={lines} lit={s.lines} />
          </chakra.button>
          <Box>
            <chakra.p m="0 0 6px" fontSize="13px">
              {asked(s, units)}
            </chakra.p>
            <Box display="flex" gap="5px" flexWrap="wrap">
              {(s.mayFold ? ANSWERS : ANSWERS.filter(([role]) => role === 'cut')).map(([role, words]) => (
                <Action key={role} small onClick={() => onRole(s.lines, role)}>
                  {words}
                </Action>
              ))}
            </Box>
          </Box>
        </Box>
      ))}
      {severing.length > MOST_ASKED && (
        <chakra.p className="dim" fontSize="13px">
          and {severing.length - MOST_ASKED} more
        </chakra.p>
      )}
    </Box>
  );
}

const MOST_ASKED = 8;
const ANSWERS: readonly (readonly [TemplateRole, string])[] = [
  ['valley', 'Valley'],
  ['mountain', 'Mountain'],
  ['cut', 'Really a cut'],
];

function asked({ lines, longMm, mayFold }: Severing, units: LengthUnit): string {
  const many = lines.length > 1;
  const long = `${formatLength(longMm, units)} ${units}`;
  const said = `${many ? `${lines.length} lines` : 'A line'} of ${long} ${many ? 'cut' : 'cuts'} a piece in two`;
  if (!mayFold) return `${said}, not straight.`;
  return `${said}: ${many ? 'are they folds' : 'is it a fold'}?`;
}

/** The whole drawing small, some of its lines inked. */
function Picture({ lines, lit }: { readonly lines: readonly TemplateLine[]; readonly lit: readonly string[] }) {
  const inked = new Set(lit);
  const drawn = lines.map((l) => ({
    lit: inked.has(l.id),
    d: `M${l.points.map(([x, y]) => `${x} ${-y}`).join('L')}${l.closed ? 'Z' : ''}`,
  }));
  return (
    <svg width="82" height="82" viewBox={viewOf(lines).box} aria-hidden="true">
      {[false, true].map((on) => (
        <path
          key={String(on)}
          d={drawn
            .filter((l) => l.lit === on)
            .map((l) => l.d)
            .join('')}
          fill="none"
          stroke={on ? 'var(--bad)' : 'var(--ink-2)'}
          strokeWidth={on ? 3 : 0.8}
          opacity={on ? 1 : 0.6}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
