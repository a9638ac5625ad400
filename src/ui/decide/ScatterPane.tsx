'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { BINDS_FROM_MM } from '@/core/decide/fitness';
import { MOST_SCATTER, USUAL_SCATTER, type Scatter } from '@/core/decide/scatter';
import { USUAL_MADE } from '@/core/decide/study';
import type { Fitness } from '@/core/decide/fitness';
import { WORST_SIGMAS, type WorstOf } from '@/core/decide/worst';
import { CARD } from '@/core/ids';
import { setLever } from '@/core/proof/levers';
import { formatSaid } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import type { ToldShare, ToldStudy, ToldWorst } from '@/workers/protocol';
import { count, deg, mm } from '../common/asked';
import { Action } from '../common/Action';
import { NumberField } from '../common/Field';
import { PosedPicture } from '../common/PosedPicture';
import { ringPath } from '../build/ring-path';
import { nameOfFree, VERDICT_WORDS } from './choices';
import { Histogram } from './Histogram';
import { useJob } from './useJob';

const LENGTHS = [
  ['cutMm', 'Cutting'],
  ['scoreMm', 'Scoring'],
  ['glueMm', 'Gluing'],
] as const;
const ANGLES = [
  ['foldDeg', 'Folding'],
  ['glueDeg', 'Gluing, turned'],
] as const;
const MADE = count('made', 'Cards', 20, 5000);
const SEED = count('seed', 'Seed', 0, 1_000_000);

/** Cards made with scatter: how often they come out well, and which step matters. */
export function ScatterPane() {
  const design = useStudio((s) => s.design);
  const [scatter, setScatter] = useState<Scatter>(USUAL_SCATTER);
  const [made, setMade] = useState(USUAL_MADE);
  const [seed, setSeed] = useState(1);
  const job = useJob<ToldStudy>('scatter', (at, d, onMore) => at.study(d, { made, seed, scatter }, onMore));
  const field = (key: keyof Scatter, label: string, isAngle: boolean) => (
    <NumberField
      key={key}
      fine
      parameter={isAngle ? { ...deg(key, label), min: 0, max: MOST_SCATTER.deg } : mm(key, label, 0, MOST_SCATTER.mm)}
      value={scatter[key]}
      unit={design.units}
      onChange={(v) => setScatter({ ...scatter, [key]: v ?? 0 })}
    />
  );
  return (
    <Box data-testid="scatter">
      <chakra.p className="dim" m="0 0 6px" fontSize="12.5px">
        How far each step usually goes astray (standard deviation). These are common practice, no source: put your own.
      </chakra.p>
      <Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(210px, 1fr))" columnGap="14px">
        {LENGTHS.map(([key, label]) => field(key, label, false))}
        {ANGLES.map(([key, label]) => field(key, label, true))}
        <NumberField parameter={MADE} value={made} unit="mm" onChange={(v) => setMade(v ?? USUAL_MADE)} />
        <NumberField parameter={SEED} value={seed} unit="mm" onChange={(v) => setSeed(v ?? 1)} />
      </Box>
      <Box display="flex" gap="8px" alignItems="center" mb="8px">
        {job.busy ? (
          <>
            <chakra.progress
              value={job.found?.summary.made ?? 0}
              max={made}
              aria-label="Cards made so far"
              width="140px"
            />
            <Action small onClick={job.stop}>
              Give up
            </Action>
          </>
        ) : (
          <Action small strong onClick={job.start}>
            Make {made} cards
          </Action>
        )}
        {job.found && job.of !== design && <span className="dim">The card has changed since.</span>}
      </Box>
      {job.why && (
        <chakra.p role="alert" color="bad" m="0">
          {job.why}
        </chakra.p>
      )}
      {job.found && <Result study={job.found} />}
    </Box>
  );
}

function Result({ study }: { readonly study: ToldStudy }) {
  const { summary: s } = study;
  const units = useStudio((st) => st.design.units);
  const told = [
    ['come out well', s.goodPct],
    ['close', s.closesPct],
    ['bind on the way', s.bindsPct],
    ['poke out', s.pokesOutPct],
    ['show an edge', s.showsPct],
  ] as const;
  return (
    <Box role="status" data-testid="study" data-done={study.done}>
      <Box display="flex" flexWrap="wrap" gap="6px 18px" mb="8px">
        {told.map(([words, pct]) => (
          <span key={words}>
            <b className="num">{pct.toFixed(1)} %</b> {words}
          </span>
        ))}
      </Box>
      <Box display="grid" gridTemplateColumns="repeat(2, minmax(0, 1fr))" gap="14px">
        {study.overhangs.length > 0 && (
          <Histogram values={study.overhangs} title="Past the edge when closed" units={units} badFrom={0} />
        )}
        <Histogram values={study.gaps} title="What does not close" units={units} badFrom={BINDS_FROM_MM} />
        <Shares title="What decides how far it reaches" shares={study.overhangShares} />
        <Shares title="What decides whether it closes" shares={study.closingShares} />
      </Box>
      {study.worst.length > 0 && (
        <Box display="grid" gridTemplateColumns="repeat(2, minmax(0, 1fr))" gap="14px" mt="10px">
          {study.worst.map((w) => (
            <Worst key={w.of} worst={w} />
          ))}
        </Box>
      )}
      {study.done && <Remedies study={study} />}
    </Box>
  );
}

const MOST_SHARES = 6;
function Shares({ title, shares }: { readonly title: string; readonly shares: readonly ToldShare[] }) {
  if (shares.length === 0) return null;
  return (
    <Box>
      <chakra.h3 m="0 0 3px" fontSize="13.5px" fontWeight="700">
        {title}
      </chakra.h3>
      <chakra.table width="100%" fontSize="13px">
        <tbody>
          {shares.slice(0, MOST_SHARES).map(({ what, sharePct }) => (
            <tr key={what}>
              <td>{what}</td>
              <chakra.td width="45%">
                <Box
                  aria-hidden
                  height="9px"
                  bg="var(--accent)"
                  width={`${sharePct * 0.7}%`}
                  display="inline-block"
                  mr="6px"
                />
                <span className="num">{sharePct.toFixed(0)} %</span>
              </chakra.td>
            </tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}

function worstInWords(of: WorstOf, fitness: Fitness, say: (mm: number) => string): string {
  const { overhangMm, closedGapMm, wayGapMm, edgesMm } = fitness;
  if (of === 'closing') return `does not close by ${say(closedGapMm ?? 0)}`;
  if (of === 'binding') return `binds by ${say(wayGapMm)} on its way`;
  if (of === 'edges') return `edges lie ${say(edgesMm)} apart`;
  const past = overhangMm ?? 0;
  return `${say(Math.abs(past))} ${past > 0 ? 'past' : 'inside'} the edge`;
}

/** The worst card as it lies shut, seen from above, and as it stands on its way. */
function Worst({ worst: { of, fitness, rings, stood, astray } }: { readonly worst: ToldWorst }) {
  const units = useStudio((s) => s.design.units);
  const all = rings.flatMap((r) => r.ring);
  const [x0, x1] = [Math.min(...all.map((p) => p[0])), Math.max(...all.map((p) => p[0]))];
  const [y0, y1] = [Math.min(...all.map((p) => p[1])), Math.max(...all.map((p) => p[1]))];
  const largest = [...astray].sort((a, b) => Math.abs(b.by) - Math.abs(a.by)).slice(0, 3);
  return (
    <Box data-testid={`worst-${of}`}>
      <chakra.h3 m="0 0 3px" fontSize="13.5px" fontWeight="700">
        Worst within {WORST_SIGMAS} deviations: {worstInWords(of, fitness, (mm) => formatSaid(mm, units))}
      </chakra.h3>
      <svg
        viewBox={`${x0 - 4} ${-y1 - 4} ${x1 - x0 + 8} ${y1 - y0 + 8}`}
        width="100%"
        style={{ maxHeight: 150 }}
        role="img"
        aria-label="The worst card, shut, from above"
      >
        {rings.map(({ mechanism, ring }, k) => (
          <path
            key={k}
            d={ringPath([ring])}
            transform="scale(1 -1)"
            fill={mechanism === CARD ? 'var(--sheet)' : 'var(--accent-wash)'}
            fillOpacity="0.6"
            stroke="var(--ink-2)"
            strokeWidth="0.4"
          />
        ))}
      </svg>
      <Box display="grid" gridTemplateColumns={`repeat(${stood.length}, minmax(0, 1fr))`} gap="6px" my="6px">
        {stood.map(({ openDeg, picture }) => (
          <chakra.figure key={openDeg} m="0" fontSize="12.5px" textAlign="center">
            <PosedPicture picture={picture} height={74} label={`The worst card at ${openDeg.toFixed(0)}°`} />
            <figcaption className="dim num">{openDeg.toFixed(0)}°</figcaption>
          </chakra.figure>
        ))}
      </Box>
      <chakra.p className="dim" m="0" fontSize="12.5px">
        {largest
          .map(({ what, by, unit }) => `${what} ${unit === 'mm' ? formatSaid(by, units) : `${by.toFixed(2)}°`}`)
          .join(' · ')}
      </chakra.p>
    </Box>
  );
}

/** One number changed, so that fewer poke out; proved, and made again with the same scatter. */
function Remedies({ study }: { readonly study: ToldStudy }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  if (study.forgiving.length === 0) return null;
  return (
    <Box mt="10px">
      <chakra.h3 m="0 0 3px" fontSize="13.5px" fontWeight="700">
        More forgiving
      </chakra.h3>
      {study.forgiving.map(({ mechanism, parameter, value, goodPct, verdict }) => (
        <Box key={`${mechanism} ${parameter}`} display="flex" gap="10px" alignItems="center" py="2px">
          <Box flex="1">
            {nameOfFree(design, { mechanism, key: parameter })} to{' '}
            <b className="num">{formatSaid(value, design.units)}</b>: {goodPct.toFixed(0)} % come out well ·{' '}
            {VERDICT_WORDS[verdict]}
          </Box>
          <Action small onClick={() => edit('a more forgiving size', (d) => setLever(d, mechanism, parameter, value))}>
            Take it
          </Action>
        </Box>
      ))}
    </Box>
  );
}
