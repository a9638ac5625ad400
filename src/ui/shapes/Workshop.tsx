'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { addMechanism } from '@/core/document/standing';
import { fittingParameters } from '@/core/document/fitting';
import { newLayer, type Design } from '@/core/document/design';
import { freeAssetId, usesOf } from '@/core/build/workshop';
import { KINDS, type Kind, type Parameter, type ShapeUse } from '@/core/kinds';
import type { Shape, ShapeAsset, ShapeStep } from '@/core/shapes/shape';
import { cutterSize } from '@/core/units/length';
import { nameOfFace } from '@/core/document/words';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { Action } from '../common/Action';
import { Choice, NumberField } from '../common/Field';
import { Sheet } from '../common/Sheet';
import { PointsView } from './PointsView';
import { ShapeFields } from './ShapeFields';
import { STEP_INFO, stepInfo } from './stepInfo';
import { useAsk } from './useAsk';

/** One kept shape: its source, what is done to it step by step, and what it is put to. Every number stays editable. */
export function Workshop() {
  const dialog = useStudio((s) => s.dialog);
  const asset = useStudio((s) =>
    dialog?.kind === 'workshop' ? (s.design.shapes.find((a) => a.id === dialog.asset) ?? null) : null,
  );
  const { show } = useActions();
  return (
    <Sheet title={asset ? asset.name : 'Shape'} shown={asset !== null} onClose={() => show(null)} width={1060}>
      {asset && <Bench key={asset.id} asset={asset} />}
    </Sheet>
  );
}

/** Changes one kept shape in the design. */
const changed = (d: Design, id: string, change: (a: ShapeAsset) => ShapeAsset): Design => ({
  ...d,
  shapes: d.shapes.map((a) => (a.id === id ? change(a) : a)),
});

function Bench({ asset }: { asset: ShapeAsset }) {
  const design = useStudio((s) => s.design);
  const unit = design.units;
  const { edit, undo } = useActions();
  const [upTo, setUpTo] = useState<number | null>(null);
  const steps = Math.min(upTo ?? asset.steps.length, asset.steps.length);
  const { value, why } = useAsk(JSON.stringify([asset, design.shapes, steps]), () =>
    engine('shape').worked(design, asset, steps),
  );
  const put = (label: string, change: (a: ShapeAsset) => ShapeAsset): void =>
    edit(label, (d) => changed(d, asset.id, change));
  const setStep = (k: number, step: ShapeStep): void =>
    put(stepInfo(step.do).name.toLowerCase(), (a) => ({ ...a, steps: a.steps.map((s, i) => (i === k ? step : s)) }));
  const addStep = (step: ShapeStep): void => {
    put(stepInfo(step.do).name.toLowerCase(), (a) => ({ ...a, steps: [...a.steps, step] }));
    setUpTo(null);
  };
  const other = (): Shape => {
    const candidate = design.shapes.find((s) => s.id !== asset.id);
    return candidate ? { asset: candidate.id } : { circle: 20 };
  };
  const flatten = async (): Promise<void> => {
    const answer = await engine('shape').worked(design, asset, asset.steps.length);
    if (!answer.ok) return;
    const path = answer.value.rings
      .map((r) => `M${r.map(([x, y]) => `${Number(x.toFixed(6))} ${Number((-y).toFixed(6))}`).join('L')}Z`)
      .join('');
    put('flatten', (a) => ({ ...a, source: { path }, steps: [] }));
  };
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr) 330px" gap="18px">
      <Box>
        <Box bg="sheet" border="1px solid var(--rule)" borderRadius="card" position="relative">
          {value && (
            <PointsView
              worked={value}
              height={430}
              onNudge={(ring, point, dx, dy) => addStep({ do: 'nudge', ring, point, dx, dy })}
              onTie={(island, turn) => {
                const k = asset.steps.length - 1;
                const last = asset.steps[k];
                if (last?.do === 'ties')
                  setStep(k, { ...last, moved: [...last.moved.filter((m) => m.island !== island), { island, turn }] });
              }}
            />
          )}
          {why && (
            <Box
              role="alert"
              position="absolute"
              left="0"
              right="0"
              bottom="0"
              bg="badWash"
              borderLeft="4px solid var(--bad)"
              p="8px 10px"
            >
              {why}.{' '}
              <chakra.button type="button" className="plain" textDecoration="underline" onClick={undo}>
                Take the last change back
              </chakra.button>
            </Box>
          )}
        </Box>
        {value && (
          <Box
            display="flex"
            gap="16px"
            mt="8px"
            fontSize="13px"
            className="dim"
            flexWrap="wrap"
            data-testid="shape-figures"
          >
            <span>{cutterSize(value.max[0] - value.min[0], value.max[1] - value.min[1])}</span>
            <span>{value.areaMm2.toFixed(1)} mm²</span>
            <span>{value.points} points</span>
            {value.deviationMm !== null && (
              <chakra.span color="ink">moves the outline by {value.deviationMm.toFixed(3)} mm at most</chakra.span>
            )}
            {value.islands > 0 && (
              <chakra.span color="warn">
                {value.islands} {value.islands === 1 ? 'island falls' : 'islands fall'} out of a window
              </chakra.span>
            )}
          </Box>
        )}
        {value && value.islands > 0 && (
          <Box mt="8px">
            <Action strong onClick={() => addStep(stepInfo('ties').start(other()))}>
              Make it safe to cut: tie every island
            </Action>
          </Box>
        )}
        <Uses asset={asset} />
      </Box>
      <Box maxHeight="66vh" overflowY="auto" pr="4px">
        <chakra.label htmlFor="shape-name" className="heading">
          Name
        </chakra.label>
        <chakra.input
          id="shape-name"
          defaultValue={asset.name}
          maxLength={80}
          onBlur={(e) => {
            const name = e.currentTarget.value.trim();
            if (name && name !== asset.name) put(`name ${name}`, (a) => ({ ...a, name }));
          }}
          width="100%"
          height="30px"
          bg="field"
          border="1px solid var(--rule)"
          borderRadius="card"
          px="7px"
          mb="10px"
        />
        <chakra.h3 className="heading" mb="6px !important">
          Source
        </chakra.h3>
        <ShapeFields shape={asset.source} unit={unit} onChange={(source) => put('source', (a) => ({ ...a, source }))} />
        <chakra.h3 className="heading" m="12px 0 6px !important">
          Steps
        </chakra.h3>
        <ol style={{ listStyle: 'none', margin: 0, padding: 0 }}>
          {asset.steps.map((step, k) => (
            <Box
              as="li"
              key={k}
              border="1px solid var(--rule)"
              bg={steps === k + 1 && upTo !== null ? 'accentWash' : 'sheet'}
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
                  onClick={() => setUpTo(upTo === k + 1 ? null : k + 1)}
                >
                  {k + 1}. {stepInfo(step.do).name}
                </chakra.button>
                <Action
                  small
                  aria-label={`Move step ${k + 1} up`}
                  disabled={k === 0}
                  onClick={() =>
                    put('order of steps', (a) => ({
                      ...a,
                      steps: a.steps.map((s, i) => (i === k - 1 ? a.steps[k] : i === k ? a.steps[k - 1] : s)),
                    }))
                  }
                >
                  ↑
                </Action>
                <Action
                  small
                  aria-label={`Remove step ${k + 1}`}
                  onClick={() =>
                    put(`without ${stepInfo(step.do).name.toLowerCase()}`, (a) => ({
                      ...a,
                      steps: a.steps.filter((_, i) => i !== k),
                    }))
                  }
                >
                  ×
                </Action>
              </Box>
              <StepFields step={step} own={asset.id} onChange={(s) => setStep(k, s)} />
            </Box>
          ))}
        </ol>
        <Box display="flex" gap="6px" alignItems="center" mb="10px">
          <chakra.select
            aria-label="Add a step"
            value=""
            onChange={(e) => {
              const info = STEP_INFO.find((s) => s.do === e.currentTarget.value);
              if (info) addStep(info.start(other()));
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
          <Action
            small
            disabled={asset.steps.length === 0}
            title="Turn source and steps into plain lines"
            onClick={() => void flatten()}
          >
            Flatten
          </Action>
        </Box>
        <SplitInTwo asset={asset} />
      </Box>
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
            value={String(values[p.key])}
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
function SplitInTwo({ asset }: { asset: ShapeAsset }) {
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

/** What the shape is put to: mechanisms on the gutter, a layer or window on the facet that is picked. */
function Uses({ asset }: { asset: ShapeAsset }) {
  const design = useStudio((s) => s.design);
  const scene = useStudio((s) => s.scene);
  const facet = useStudio((s) => s.facet) ?? 'leafA';
  const side = useStudio((s) => s.sideUp);
  const face = nameOfFace(design, facet, side);
  const { edit, select, show, go, selectFacet, pickLayers } = useActions();
  const uses = usesOf(design, asset.id);
  const host = scene?.hosts[0];
  const stand = ({ id: kind, title }: Kind, use: ShapeUse): void => {
    if (!host) return;
    let made = '';
    edit(`${asset.name} as ${title.toLowerCase()}`, (d) => {
      const height = Math.max(6, Math.round(Math.min(host.reachA, host.reachB) * 0.5));
      const own = { ...fittingParameters(kind, host), ...use.values({ asset: asset.id }, height) };
      const added = addMechanism(d, kind, host.crease, own);
      made = added.id;
      return {
        ...added.design,
        mechanisms: added.design.mechanisms.map((m) => (m.id === made ? { ...m, name: asset.name } : m)),
      };
    });
    show(null);
    select(made);
    go('build');
  };
  const lay = (as: 'layer' | 'window'): void => {
    let id = '';
    edit(`${asset.name} as ${as} on ${face}`, (d) => {
      id = freeLayerId(d, asset.id);
      return {
        ...d,
        layers: [
          ...d.layers,
          newLayer({
            id,
            name: asset.name,
            facet,
            ...(side === 'outside' ? { side } : {}),
            shape: { asset: asset.id },
            as,
            stock: d.stocks[d.stocks.length - 1].id,
          }),
        ],
      };
    });
    show(null);
    go('dress');
    selectFacet(facet);
    pickLayers([id]);
  };
  const letters = async ({ id: kind }: Kind, values: NonNullable<ShapeUse['letters']>['values']): Promise<void> => {
    if (!('text' in asset.source) || !host) return;
    const answer = await engine('shape').letters(asset.source.text);
    if (!answer.ok) return;
    const middle = (Math.min(...answer.value.map((l) => l.x)) + Math.max(...answer.value.map((l) => l.x))) / 2;
    edit(`${asset.name}, letter by letter`, (d) =>
      answer.value.reduce<Design>((all, l, i) => {
        // The reader's right is the low end of the gutter.
        const own = values({ path: l.path }, host, Math.round((middle - l.x) * 100) / 100);
        const added = addMechanism(all, kind, host.crease, own);
        return {
          ...added.design,
          mechanisms: added.design.mechanisms.map((m) =>
            m.id === added.id ? { ...m, name: `Letter ${l.letter} (${i + 1})` } : m,
          ),
        };
      }, d),
    );
    show(null);
    go('build');
  };
  return (
    <Box mt="14px" borderTop="1px solid var(--rule)" pt="10px">
      <chakra.h3 className="heading" mb="7px !important">
        Put it to use
      </chakra.h3>
      <Box display="flex" gap="6px" flexWrap="wrap">
        {[...KINDS.values()].map(
          (k) =>
            k.shapeUse && (
              <Action key={k.id} small data-use={k.id} onClick={() => stand(k, k.shapeUse!)}>
                {k.shapeUse.says}
              </Action>
            ),
        )}
        {'text' in asset.source &&
          [...KINDS.values()].map((k) => {
            const use = k.shapeUse?.letters;
            return (
              use && (
                <Action key={k.id} small onClick={() => void letters(k, use.values)}>
                  {use.says}
                </Action>
              )
            );
          })}
        <Action small data-use="layer" onClick={() => lay('layer')}>
          Layer on {face}
        </Action>
        <Action small data-use="window" onClick={() => lay('window')}>
          Window in {face}
        </Action>
        <Action
          small
          onClick={() =>
            edit(`card shaped as ${asset.name}`, (d) => ({
              ...d,
              card: { ...d.card, parameters: { ...d.card.parameters, shape: { asset: asset.id } } },
            }))
          }
        >
          Shape the card by it
        </Action>
        <Action
          small
          onClick={() => {
            let id = '';
            edit(`another ${asset.name}`, (d) => {
              id = freeAssetId(d, asset.name);
              return { ...d, shapes: [...d.shapes, { ...asset, id, name: `${asset.name} 2`.slice(0, 80) }] };
            });
            show({ kind: 'workshop', asset: id });
          }}
        >
          Duplicate
        </Action>
        <Action
          small
          danger
          disabled={uses.length > 0}
          title={uses.length > 0 ? `In use: ${uses.join(', ')}` : ''}
          onClick={() => {
            edit(`without ${asset.name}`, (d) => ({ ...d, shapes: d.shapes.filter((s) => s.id !== asset.id) }));
            show(null);
          }}
        >
          Remove
        </Action>
      </Box>
      {uses.length > 0 && (
        <chakra.p className="dim" fontSize="13px" m="7px 0 0">
          In use: {uses.join(', ')}.
        </chakra.p>
      )}
    </Box>
  );
}

export function freeLayerId(d: Design, base: string): string {
  const taken = new Set([...d.layers.map((l) => l.id), ...d.mechanisms.map((m) => m.id)]);
  let n = 1;
  while (taken.has(`${base.slice(0, 30)}-${n}`)) n++;
  return `${base.slice(0, 30)}-${n}`;
}
