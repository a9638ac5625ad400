'use client';
import { openOf } from '@/core/drives';
import { Box, chakra } from '@chakra-ui/react';
import { CARD } from '@/core/ids';
import { measureWords, nameOfMechanism } from '@/core/document/words';
import { formatLength, type LengthUnit } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { drivesOf } from '@/store/studio';
import { Action } from '../common/Action';
import { Hint } from '../common/Hint';
import { PosedView } from '../posed/PosedView';
import { FindingCard } from './FindingCard';
import { ThicknessView } from './ThicknessView';
import { useState } from 'react';
import { DecidePane, type Deciding } from '../decide/DecidePane';

/** What is weighed has lists and pictures of its own: it gets the room, and the posed card goes under the findings. */
const LAYOUT = {
  read: {
    gridTemplateColumns: 'minmax(300px, 0.85fr) minmax(0, 0.65fr) minmax(0, 0.5fr)',
    gridTemplateRows: 'minmax(0, 1fr) minmax(0, 1.15fr)',
    gridTemplateAreas: '"findings posed stack" "findings decide decide"',
  },
  weigh: {
    gridTemplateColumns: 'minmax(300px, 0.7fr) minmax(0, 1.3fr)',
    gridTemplateRows: 'minmax(0, 0.8fr) minmax(0, 1fr)',
    gridTemplateAreas: '"findings decide" "posed decide"',
  },
} as const;

/** What fails or is close to failing, where the stack is thick, and what a parameter would do. */
export function ProveStage() {
  const proof = useStudio((s) => s.proof);
  const proving = useStudio((s) => s.proving);
  const [deciding, setDeciding] = useState<Deciding>('what-if');
  const order = { blocks: 0, risk: 1, note: 2 };
  const findings = [...(proof?.findings ?? [])].sort((a, b) => order[a.severity] - order[b.severity]);
  return (
    <Box display="grid" height="100%" minHeight="0" {...LAYOUT[deciding === 'what-if' ? 'read' : 'weigh']}>
      <Box
        as="section"
        aria-label="Findings"
        bg="panel"
        p="12px 16px"
        overflowY="auto"
        minHeight="0"
        borderRight="1px solid var(--rule)"
        gridArea="findings"
      >
        <Box display="flex" alignItems="baseline" mb="10px">
          <chakra.h2 className="heading" flex="1">
            Findings
          </chakra.h2>
          <chakra.span className="dim" role="status">
            {proving ? 'proving…' : `${findings.length} found`}
          </chakra.span>
        </Box>
        <Hint />
        {findings.map((f) => (
          <FindingCard key={`${f.rule}${f.mechanism}${f.aspect}`} finding={f} wide />
        ))}
        {proof && !proving && findings.length === 0 && (
          <chakra.p>Nothing fails: it folds flat, opens as meant, clears its neighbours and fits its sheets.</chakra.p>
        )}
        {proof && !proving && <Named />}
        {proof && !proving && <Together />}
        {proof && !proving && <MeasureTable />}
      </Box>
      <Box gridArea="posed" display="grid" minHeight="0" minWidth="0" borderBlock="1px solid var(--rule)">
        <PosedView />
      </Box>
      {deciding === 'what-if' && (
        <Box gridArea="stack" display="grid" minHeight="0" minWidth="0" borderBottom="1px solid var(--rule)">
          <ThicknessView />
        </Box>
      )}
      <Box gridArea="decide" display="grid" minHeight="0" minWidth="0">
        <DecidePane shown={deciding} onShow={setDeciding} />
      </Box>
    </Box>
  );
}

/** What is named: whether it is reached, and how safely the card stands there. */
function Named() {
  const states = useStudio((s) => s.proof?.states) ?? [];
  const units = useStudio((s) => s.design.units);
  const { stand } = useActions();
  if (states.length === 0) return null;
  return (
    <Box mt="14px" data-testid="proved-states">
      <chakra.h2 className="heading" mb="6px !important">
        States by name
      </chakra.h2>
      <chakra.table width="100%" fontSize="13px">
        <tbody>
          {states.map(({ id, name, state, reached, standing }) => (
            <tr key={id}>
              <td>
                <Action small onClick={() => stand(state)}>
                  {name}
                </Action>
              </td>
              <td className="dim">
                {!reached
                  ? 'is not reached'
                  : standing
                    ? `${standing.weight_g.toFixed(1)} g, ${inWords(standing.tip_mm, units)}`
                    : 'is reached'}
              </td>
            </tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}
const inWords = (mm: number, units: LengthUnit): string =>
  `its weight ${formatLength(Math.abs(mm), units)} ${units} ${mm < 0 ? 'outside' : 'inside'} what it stands on`;

/** What was moved two at a time, and that nothing else was. */
function Together() {
  const pairs = useStudio((s) => s.proof?.pairs) ?? [];
  const threes = useStudio((s) => s.proof?.threes) ?? [];
  const drives = useStudio(drivesOf);
  if (drives.length < 3) return null;
  const name = (id: string): string => drives.find((d) => d.id === id)?.label ?? id;
  return (
    <Box mt="14px" data-testid="together">
      <chakra.h2 className="heading" mb="6px !important">
        Moved two at a time
      </chakra.h2>
      {pairs.length === 0 && (
        <chakra.p className="dim" m="0">
          Nothing that is moved by hand comes near anything else that is: each was moved with the others at rest.
        </chakra.p>
      )}
      <ul style={{ margin: 0, paddingLeft: 18 }}>
        {pairs.map(({ drives: [a, b], openings, states }) => (
          <li key={`${a} ${b}`}>
            {name(a)} with {name(b)}
            <chakra.span className="dim">
              {' '}
              · {states} states, opened to {openings.map((o) => `${o}°`).join(', ')}
            </chakra.span>
          </li>
        ))}
      </ul>
      {pairs.length > 0 && <chakra.p className="dim">All others were moved with the rest at rest.</chakra.p>}
      {threes.length > 0 && (
        <chakra.p className="dim" data-testid="threes">
          Three at a time at places drawn at random:{' '}
          {threes.map(({ drives: three, states }) => `${three.map(name).join(', ')} (${states})`).join('; ')}.
        </chakra.p>
      )}
    </Box>
  );
}

/** Of cards with more mechanisms only the one that is selected is measured here. */
const MEASURED_ALL = 12;

function MeasureTable() {
  const measures = useStudio((s) => s.pose?.measures);
  const design = useStudio((s) => s.design);
  const selected = useStudio((s) => s.selected);
  const few = design.mechanisms.length <= MEASURED_ALL;
  const shown = Object.entries(measures ?? {}).filter(([id]) => few || id === selected);
  const open = useStudio((s) => (s.pose ? openOf(s.pose.state) : 0));
  return (
    <Box mt="14px">
      <chakra.h2 className="heading" mb="6px !important">
        Measures at {open.toFixed(0)}°
        {few ? '' : ` of ${selected === CARD ? 'the base' : nameOfMechanism(design, selected)}`}
      </chakra.h2>
      <chakra.table width="100%" fontSize="13px">
        <tbody>
          {shown.flatMap(([id, of]) =>
            Object.entries(of).map(([key, number]) => {
              const { name, value } = measureWords(key, number, design.units);
              return (
                <tr key={`${id}${key}`}>
                  <td>{id === CARD ? 'Base card' : nameOfMechanism(design, id)}</td>
                  <td className="dim">{name}</td>
                  <td className="num">{value}</td>
                </tr>
              );
            }),
          )}
        </tbody>
      </chakra.table>
    </Box>
  );
}
