'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Finding, Remedy } from '@/core/rules';
import { parametersOf, type Design } from '@/core/project/design';
import { leverValue, setLever } from '@/core/project/prove';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Field';

const TINT: Readonly<Record<Finding['severity'], string>> = { blocks: 'var(--bad)', risk: 'var(--warn)', note: 'var(--ink-2)' };
const WORD: Readonly<Record<Finding['severity'], string>> = { blocks: 'blocks', risk: 'risk', note: 'note' };

/** A finding and its remedies: each previewed on hover, applied by a click, undone like any change. */
export function FindingCard({ finding: f, wide = false }: { finding: Finding; wide?: boolean }) {
  const design = useStudio((s) => s.design);
  const proving = useStudio((s) => s.proving);
  const { edit, showPreview, light, scrub, select } = useActions();
  const apply = (r: Remedy): void => edit(remedyText(design, r), (d) => setLever(d, r.mechanism, r.parameter, r.value));
  return (
    <Box as="article" data-finding={f.rule} bg="field" borderWidth="1px" borderColor="rule" borderLeft="4px solid" borderLeftColor={TINT[f.severity]} p="9px 12px" mb="9px" borderRadius="2px" onPointerEnter={() => light(f.subjects)} onPointerLeave={() => light([])}>
      <Box display="flex" gap="8px" justifyContent="space-between" fontSize="12px" color={TINT[f.severity]} fontWeight="700" mb="2px"><span>{f.rule}</span><span>{WORD[f.severity]}</span></Box>
      <Box>{f.message}</Box>
      <Box display="flex" gap="6px" flexWrap="wrap" mt="7px">
        {f.remedies?.map((r) => (
          <Action key={`${r.mechanism}${r.parameter}`} small onClick={() => apply(r)} onPointerEnter={() => showPreview(setLever(design, r.mechanism, r.parameter, r.value))} onPointerLeave={() => showPreview(null)} onFocus={() => showPreview(setLever(design, r.mechanism, r.parameter, r.value))} onBlur={() => showPreview(null)}>{remedyText(design, r)}</Action>
        ))}
        {!f.remedies && f.levers.length > 0 && proving && <chakra.span className="dim" fontSize="12.5px">looking for remedies…</chakra.span>}
        {wide && <Action small onClick={() => { select(f.mechanism); scrub(f.drive.open); }}>Show at {f.drive.open.toFixed(0)}°</Action>}
      </Box>
    </Box>
  );
}

const STUCK_WORDS: Readonly<Record<string, string>> = { foamMm: 'foam', foamInsetMm: 'foam inside by', x: 'across', y: 'up' };

/** "Depth 18 → 13.8" */
function remedyText(design: Design, { mechanism, parameter, value }: Remedy): string {
  const m = design.mechanisms.find((x) => x.id === mechanism);
  const key = mechanism === 'card' && parameter === 'reach' ? 'reachA' : parameter;
  const p = parametersOf(m?.kind ?? 'fold-card').find((q) => q.key === key);
  const now = leverValue(design, mechanism, parameter) ?? 0;
  const show = (v: number): string => (p?.unit === 'deg' ? `${Number(v.toFixed(1))}°` : formatLength(v, design.units));
  const stuck = design.layers.find((l) => mechanism === `layer.${l.id}`)?.name ?? (/\.mat-\d+$/.test(mechanism) ? mechanism : null);
  if (stuck) return `${stuck}: ${STUCK_WORDS[parameter] ?? parameter} ${show(now)} → ${show(value)}`;
  const name = mechanism === 'card' && parameter === 'reach' ? 'Base reach' : (m ? '' : 'Base ') + (p?.key ?? parameter);
  return `${name.charAt(0).toUpperCase()}${name.slice(1)} ${show(now)} → ${show(value)}`;
}
