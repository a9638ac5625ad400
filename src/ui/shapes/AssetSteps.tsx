'use client';
import { Box, chakra } from '@chakra-ui/react';
import { freeAssetId } from '@/core/build/workshop';
import type { Parameter } from '@/core/kinds';
import type { Shape, ShapeAsset, ShapeStep } from '@/core/shapes/shape';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { Choice, NumberField } from '../common/Field';
import { STEP_INFO, stepInfo } from './stepInfo';

/** Changes the kept shape; `label` says how. */
export type ChangeAsset = (label: string, change: (a: ShapeAsset) => ShapeAsset) => void;
const named = (step: ShapeStep): string => stepInfo(step.do).name.toLowerCase();
export const withStep =
  (k: number, step: ShapeStep) =>
  (a: ShapeAsset): ShapeAsset => ({ ...a, steps: a.steps.map((s, i) => (i === k ? step : s)) });

interface StepListProps {
  readonly asset: ShapeAsset;
  readonly put: ChangeAsset;
  /** The shape is looked at after so many steps; null: after all. */
  readonly upTo: number | null;
  readonly onUpTo: (steps: number | null) => void;
}

/** What is done to the shape, in its order. */
export function StepList({ asset, put, upTo, onUpTo }: StepListProps) {
  const moveUp = (k: number): void =>
    put('order of steps', (a) => ({
      ...a,
      steps: a.steps.map((s, i) => (i === k - 1 ? a.steps[k] : i === k ? a.steps[k - 1] : s)),
    }));
  const remove = (k: number): void =>
    put(`without ${named(asset.steps[k])}`, (a) => ({ ...a, steps: a.steps.filter((_, i) => i !== k) }));
  return (
    <ol style={{ listStyle: 'none', margin: 0, padding: 0 }}>
      {asset.steps.map((step, k) => (
        <Box
          as="li"
          key={k}
          border="1px solid var(--rule)"
          bg={upTo === k + 1 ? 'accentWash' : 'sheet'}
          borderRadius="card"
          p="8px 10px"
          mb="7px"
          data-step={step.do}
        >
          <Box display="flex" alignItems="center" mb="4px" gap="4px">
            <chakra.button
              type="button"
              className="plain"
              flex="1"
              fontWeight="700"
              title="Look at the shape after this step"
              onClick={() => onUpTo(upTo === k + 1 ? null : k + 1)}
            >
              {k + 1}. {stepInfo(step.do).name}
            </chakra.button>
            <Action small aria-label={`Move step ${k + 1} up`} disabled={k === 0} onClick={() => moveUp(k)}>
              ↑
            </Action>
            <Action small aria-label={`Remove step ${k + 1}`} onClick={() => remove(k)}>
              ×
            </Action>
          </Box>
          <StepFields step={step} own={asset.id} onChange={(s) => put(named(step), withStep(k, s))} />
        </Box>
      ))}
    </ol>
  );
}

/** A further step, or all of them turned into plain lines. */
export function AddStep({
  onAdd,
  onFlatten,
}: {
  readonly onAdd: (info: (typeof STEP_INFO)[number]) => void;
  /** Absent where there is nothing to flatten. */
  readonly onFlatten?: () => void;
}) {
  return (
    <Box display="flex" gap="6px" alignItems="center" mb="10px">
      <chakra.select
        aria-label="Add a step"
        value=""
        onChange={(e) => {
          const info = STEP_INFO.find((s) => s.do === e.currentTarget.value);
          if (info) onAdd(info);
        }}
        flex="1"
        height="30px"
        bg="field"
        border="1px solid var(--rule)"
        borderRadius="card"
        px="5px"
      >
        <option value="">Add a step…</option>
        {STEP_INFO.map((s) => (
          <option key={s.do} value={s.do}>
            {s.name}
          </option>
        ))}
      </chakra.select>
      <Action small disabled={!onFlatten} title="Turn source and steps into plain lines" onClick={onFlatten}>
        Flatten
      </Action>
    </Box>
  );
}

function StepFields({ step, own, onChange }: { step: ShapeStep; own: string; onChange: (step: ShapeStep) => void }) {
  const design = useStudio((s) => s.design);
  const info = stepInfo(step.do);
  const values = step as unknown as Record<string, unknown>;
  const set = (p: Parameter, v: unknown): void => {
    const next = { ...values, [p.key]: v };
    // Of a count and a spacing, and of a width and a height that follow, one must be there.
    if (step.do === 'distribute' && p.key === 'count' && v !== null) next.spacing = null;
    if (step.do === 'distribute' && p.key === 'spacing' && v !== null) next.count = null;
    if (step.do === 'distribute' && next.count === null && next.spacing === null) return;
    if (step.do === 'size' && next.width === null && next.height === null) return;
    onChange(next as unknown as ShapeStep);
  };
  const shape = info.shape ? (values[info.shape] as Shape) : null;
  return (
    <>
      {shape && (
        <Choice
          asList
          label={info.shape === 'what' ? 'Copies of' : 'Shape'}
          value={'asset' in shape ? shape.asset : '-'}
          choices={[
            ...('asset' in shape ? [] : [{ id: '-', name: 'circle' in shape ? 'a circle' : 'a drawn shape' }]),
            ...design.shapes.filter((s) => s.id !== own).map((s) => ({ id: s.id, name: s.name })),
          ]}
          onChange={(id) => id !== '-' && onChange({ ...values, [info.shape!]: { asset: id } } as unknown as ShapeStep)}
        />
      )}
      {info.fields.map((p) =>
        p.unit === 'choice' ? (
          <Choice
            key={p.key}
            asList={p.choices!.length > 2}
            label={p.label}
            value={String(values[p.key] ?? p.default)}
            choices={p.choices!.map((c) => ({ id: c, name: c === 'true' ? 'yes' : c === 'false' ? 'no' : c }))}
            onChange={(c) => set(p, c === 'true' ? true : c === 'false' ? false : c)}
          />
        ) : (
          <NumberField
            key={p.key}
            parameter={p}
            value={values[p.key] as number | null}
            unit={design.units}
            follows="not set"
            onChange={(v) => set(p, v)}
          />
        ),
      )}
    </>
  );
}

/** A line or another shape parts it in two shapes of their own. */
export function SplitInTwo({ asset }: { asset: ShapeAsset }) {
  const { edit } = useActions();
  const last = asset.steps[asset.steps.length - 1];
  if (last?.do !== 'split' && last?.do !== 'subtract' && last?.do !== 'intersect') return null;
  const rest: ShapeStep =
    last.do === 'split'
      ? { ...last, keep: last.keep === 'left' ? 'right' : 'left' }
      : { ...last, do: last.do === 'subtract' ? 'intersect' : 'subtract' };
  return (
    <Action
      small
      onClick={() =>
        edit('keep the other part', (d) => ({
          ...d,
          shapes: [
            ...d.shapes,
            {
              ...asset,
              id: freeAssetId(d, `${asset.name} other part`),
              name: `${asset.name}, other part`.slice(0, 80),
              steps: [...asset.steps.slice(0, -1), rest],
            },
          ],
        }))
      }
    >
      Keep the other part as a shape too
    </Action>
  );
}
