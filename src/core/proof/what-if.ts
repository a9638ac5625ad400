/** What a parameter does over its range: the same few numbers of a proof for each value. */
import { measuresOf, poseOpen } from '../assembly/pose';
import { closedStack, RULES } from '../rules';
import { buildAssembly } from '../build/build';
import type { Design } from '../document/design';
import { gather, setLever, travelPoint } from './prove';

export interface WhatIfPoint {
  readonly value: number;
  /** Past the fore edges when closed (mm, negative is room); null where it does not close. */
  readonly reachMm: number | null;
  /** Highest point with the card half open, mm. */
  readonly liftMm: number;
  readonly thicknessMm: number | null;
  /** What the mechanism, or the base, measures with the card half open. */
  readonly measures: Readonly<Record<string, number>>;
  readonly blocks: number;
  readonly risks: number;
}

export function whatIf(design: Design, mechanism: string, key: string, value: number): WhatIfPoint {
  const changed = setLever(design, mechanism, key, value);
  const assembly = buildAssembly(changed);
  const evidence = gather(changed, 'closed', 0, assembly);
  const halfOpen = poseOpen(assembly, 90);
  const placed = assembly.mechanisms.find((m) => m.id === mechanism);
  const findings = RULES.filter((r) => r.needs !== 'travel').flatMap((r) => r.check(evidence));
  return {
    value,
    reachMm: evidence.closed ? travelPoint(assembly, evidence.closed).reach_mm : null,
    liftMm: travelPoint(assembly, halfOpen).lift_mm,
    measures: placed ? measuresOf(assembly, halfOpen, evidence.closed, placed) : {},
    thicknessMm: closedStack(evidence)?.greatest.mm ?? null,
    blocks: findings.filter((f) => f.severity === 'blocks').length,
    risks: findings.filter((f) => f.severity === 'risk').length,
  };
}
