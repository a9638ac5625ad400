'use client';
import { Box, chakra } from '@chakra-ui/react';
import { openOf } from '@/core/drives';
import type { TravelPoint } from '@/core/proof/prove';
import type { Finding } from '@/core/rules';
import { formatFine, formatLength } from '@/core/units/length';
import { useStudio } from '@/store/context';

/** The few numbers a maker asks for first. */
export function CardNumbers() {
  const proof = useStudio((s) => s.proof);
  const design = useStudio((s) => s.design);
  const pose = useStudio((s) => s.pose);
  const proving = useStudio((s) => s.proving);
  const { closed, travel, findings, verdict } = proof ?? {};
  const show = (x: number): string => `${formatLength(x, design.units)} ${design.units}`;
  const apart = travel
    ?.filter((t) => t.clearance_mm !== null && t.open > 4 && t.open < 176)
    .reduce<TravelPoint | null>((a, t) => (!a || t.clearance_mm! < a.clearance_mm! ? t : a), null);
  const lift = travel?.reduce<TravelPoint | null>((a, t) => (!a || t.lift_mm > a.lift_mm ? t : a), null);
  const rows: [string, string, boolean][] = [];
  if (closed) {
    rows.push([
      'Closed',
      `${show(closed.height_mm)} × ${show(closed.width_mm)}`,
      has(findings, 'overhang') || has(findings, 'post-size'),
    ]);
    rows.push([
      'Closed stack',
      `${formatFine(closed.thickness_mm, design.units)} · ${closed.layers} layers`,
      has(findings, 'thickness'),
    ]);
  } else if (proof) rows.push(['Closed', 'does not close', true]);
  if (apart)
    rows.push([
      'Least clearance',
      `${show(apart.clearance_mm!)} at ${apart.open.toFixed(0)}°`,
      has(findings, 'collision'),
    ]);
  if (lift && lift.lift_mm > 0)
    rows.push(['Stands highest', `${show(lift.lift_mm)} at ${lift.open.toFixed(0)}°`, false]);
  if (pose)
    rows.push([
      'This pose',
      pose.stopped
        ? `stops at ${openOf(pose.state).toFixed(1)}°`
        : pose.flexMm > 0
          ? `bends ${formatFine(pose.flexMm, design.units)}`
          : 'rigid',
      pose.stopped,
    ]);
  return (
    <Box as="section" aria-label="Numbers of the card" p="11px 14px" fontSize="13.5px">
      <Box
        display="flex"
        justifyContent="space-between"
        fontWeight="700"
        mb="5px"
        color={verdict === 'blocked' ? 'bad' : proving ? 'ink2' : verdict === 'risk' ? 'warn' : 'good'}
        data-testid="verdict"
      >
        <span>
          {verdict === 'blocked'
            ? 'Do not cut yet'
            : proving || !verdict
              ? 'Proving…'
              : verdict === 'risk'
                ? 'Can be cut, with risks'
                : 'Ready to cut'}
        </span>
      </Box>
      {rows.map(([name, text, bad]) => (
        <Box key={name} display="flex" justifyContent="space-between" gap="10px" lineHeight="1.55">
          <span>{name}</span>
          <chakra.span className="num" fontWeight={bad ? '700' : '400'} color={bad ? 'bad' : undefined}>
            {text}
          </chakra.span>
        </Box>
      ))}
    </Box>
  );
}
const has = (findings: readonly Finding[] | undefined, rule: string): boolean =>
  findings?.some((f) => f.rule === rule && f.severity !== 'note') ?? false;
