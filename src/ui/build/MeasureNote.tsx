'use client';
import { formatSaid, type LengthUnit } from '@/core/units/length';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { Action } from '../common/Action';
import { HoldNoteAt } from './HoldNote';
import { endsOf, useMeasuring, type MeasureView } from './measure-store';
import { measureBetween, type MeasuredBetween } from './measuring';

/** Beside the pointer: what it is over, and what was measured. Each view says it for its own pointer. */
export function MeasureNote({ scene, view }: { readonly scene: Scene; readonly view: MeasureView }) {
  const pose = useStudio((s) => s.pose);
  const unit = useStudio((s) => s.design.units);
  const { ends, over } = useMeasuring();
  if (over?.view !== view) return null;
  const [a, b] = endsOf({ ends, over });
  const text = a && b ? wordsOf(measureBetween(scene, pose, a, b), unit) : over.picked.name;
  return <HoldNoteAt note={text ? { x: over.x, y: over.y, text, bad: false } : null} />;
}

export function MeasureSwitch() {
  const on = useMeasuring((s) => s.on);
  const toggle = useMeasuring((s) => s.toggle);
  return (
    <Action small on={on} aria-pressed={on} onClick={() => toggle(!on)}>
      Measure
    </Action>
  );
}

function wordsOf({ flatMm, trueMm, flatDeg, trueDeg }: MeasuredBetween, unit: LengthUnit): string {
  const said = [
    flatMm === null ? null : `${formatSaid(flatMm, unit)} on the paper`,
    trueMm === null ? null : `${formatSaid(trueMm, unit)} as it stands`,
    flatDeg === null ? null : `${flatDeg.toFixed(1)}° on the paper`,
    trueDeg === null ? null : `${trueDeg.toFixed(1)}° as it stands`,
  ];
  return said.filter(Boolean).join(' · ');
}
