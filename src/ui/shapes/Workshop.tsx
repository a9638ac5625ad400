'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Design } from '@/core/document/design';
import type { Shape, ShapeAsset, ShapeStep } from '@/core/shapes/shape';
import { cutterSize, formatArea, type LengthUnit } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { cutAs, type WorkedShape } from '@/core/build/workshop';
import { Action } from '../common/Action';
import { Sheet } from '../common/Sheet';
import { AddStep, SplitInTwo, StepList, withStep, type ChangeAsset } from './AssetSteps';
import { AssetUses } from './AssetUses';
import { PointsView } from './PointsView';
import { ShapeFields } from './ShapeFields';
import { stepInfo } from './stepInfo';
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

function Bench({ asset }: { readonly asset: ShapeAsset }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const [upTo, setUpTo] = useState<number | null>(null);
  const steps = Math.min(upTo ?? asset.steps.length, asset.steps.length);
  const { value, why } = useAsk(JSON.stringify([asset, design.shapes, steps]), () =>
    engine('shape').worked(design, asset, steps),
  );
  const put: ChangeAsset = (label, change) => edit(label, (d) => changed(d, asset.id, change));
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
        <Drawn asset={asset} value={value} why={why} put={put} onStep={addStep} />
        {value ? <Figures units={design.units} worked={value} /> : <FiguresPlace />}
        {value && <SafeToCut worked={value} cut={cutAs(design, asset.id)} onTie={addStep} />}
        <AssetUses asset={asset} parts={value?.parts ?? null} />
      </Box>
      <Box maxHeight="66vh" overflowY="auto" pr="4px">
        <NameField asset={asset} put={put} />
        <chakra.h3 className="heading" mb="6px !important">
          Source
        </chakra.h3>
        <ShapeFields
          shape={asset.source}
          unit={design.units}
          onChange={(source) => put('source', (a) => ({ ...a, source }))}
        />
        <chakra.h3 className="heading" m="12px 0 6px !important">
          Steps
        </chakra.h3>
        <StepList asset={asset} put={put} upTo={upTo} onUpTo={setUpTo} />
        <AddStep
          onAdd={(info) => addStep(info.start(other()))}
          {...(asset.steps.length > 0 ? { onFlatten: () => void flatten() } : {})}
        />
        <SplitInTwo asset={asset} />
      </Box>
    </Box>
  );
}

/** Ties for what falls out of a window, bridges for what hangs on nothing: each where the shape is cut so. */
function SafeToCut({
  worked: { islands, loose },
  cut,
  onTie,
}: {
  readonly worked: WorkedShape;
  readonly cut: ReturnType<typeof cutAs>;
  readonly onTie: (step: ShapeStep) => void;
}) {
  const ties = { do: 'ties', width: 2.5, count: 2, turn: null, moved: [] } as const;
  return (
    <Box mt="8px" display="flex" gap="8px" flexWrap="wrap">
      {islands > 0 && (cut.window || (!cut.paper && loose === 0)) && (
        <Action strong onClick={() => onTie({ ...ties, of: 'window' })}>
          Make it safe to cut: tie every island
        </Action>
      )}
      {loose > 0 && !cut.window && (
        <Action strong onClick={() => onTie({ ...ties, of: 'paper' })}>
          Make it safe to cut: bridge every loose part
        </Action>
      )}
    </Box>
  );
}

/** The shape as it is worked; its points are nudged and its ties moved by hand. */
function Drawn({
  asset,
  value,
  why,
  put,
  onStep,
}: {
  readonly asset: ShapeAsset;
  readonly value: WorkedShape | null;
  readonly why: string | null;
  readonly put: ChangeAsset;
  readonly onStep: (step: ShapeStep) => void;
}) {
  const { undo } = useActions();
  const tie = (island: number, turn: number): void => {
    const k = asset.steps.length - 1;
    const last = asset.steps[k];
    if (last?.do !== 'ties') return;
    const moved = [...last.moved.filter((m) => m.island !== island), { island, turn }];
    put(stepInfo('ties').name.toLowerCase(), withStep(k, { ...last, moved }));
  };
  return (
    <Box bg="sheet" border="1px solid var(--rule)" borderRadius="card" position="relative">
      {value && (
        <PointsView
          worked={value}
          height={430}
          onNudge={(ring, point, dx, dy) => onStep({ do: 'nudge', ring, point, dx, dy })}
          onTie={tie}
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
  );
}

/** Where the figures will stand: what is below them stays where it is when they come. */
const FiguresPlace = () => <Box mt="8px" height="1lh" fontSize="13px" aria-hidden="true" />;

const Figures = ({
  worked: { min, max, areaMm2, points, deviationMm, islands, loose },
  units,
}: {
  readonly worked: WorkedShape;
  readonly units: LengthUnit;
}) => (
  <Box display="flex" gap="16px" mt="8px" fontSize="13px" className="dim" flexWrap="wrap" data-testid="shape-figures">
    <span>{cutterSize(max[0] - min[0], max[1] - min[1])}</span>
    <span>{units === 'in' ? formatArea(areaMm2, units) : `${areaMm2.toFixed(1)} mm²`}</span>
    <span>{points} points</span>
    {deviationMm !== null && (
      <chakra.span color="ink">moves the outline by {deviationMm.toFixed(3)} mm at most</chakra.span>
    )}
    {islands > 0 && (
      <chakra.span color="warn">
        {islands} {islands === 1 ? 'island falls' : 'islands fall'} out of a window
      </chakra.span>
    )}
    {loose > 0 && (
      <chakra.span color="warn">
        {loose} {loose === 1 ? 'part hangs' : 'parts hang'} on nothing
      </chakra.span>
    )}
  </Box>
);

const NameField = ({ asset, put }: { readonly asset: ShapeAsset; readonly put: ChangeAsset }) => (
  <>
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
  </>
);
