'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Parameter } from '@/core/kinds';
import { boxOf, type Ring } from '@/core/plane/polygon';
import { stockOf, type Mat } from '@/core/document/design';
import { DEFAULT_FOAM_INSET_MM } from '@/core/build/dressing';
import { cutterSize } from '@/core/units/length';
import type { Size } from '@/core/units/size';
import { useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { Choice, NumberField, YesNo } from '../common/Field';
import { SizeField } from '../common/SizeField';
import { MarginsLine } from './MarginsLine';

const INSET: Parameter = {
  key: 'inset',
  label: 'Inset',
  unit: 'mm',
  default: 3,
  min: 0,
  max: 500,
  note: 'Room left on every side; the next mat is inset from this one.',
};
const FOAM: Parameter = {
  key: 'mat-foam',
  label: 'Foam',
  unit: 'mm',
  default: 0,
  min: 0,
  max: 10,
  note: 'Thickness; 0 is bonded flat.',
};
const FOAM_INSET: Parameter = {
  key: 'mat-foam-inset',
  label: 'Foam inside by',
  unit: 'mm',
  default: 3,
  min: 0,
  max: 100,
  note: '',
};
const SIDES = ['left', 'right', 'top', 'bottom'] as const;

interface MatProps {
  readonly mat: Mat;
  /** From 1. */
  readonly number: number;
  readonly rings: readonly Ring[];
  /** Its id in the scene. */
  readonly id: string;
  readonly set: (change: Partial<Mat>) => void;
  readonly onRemove: () => void;
}

/** One mat of a facet: how far it is inset, its corners, its foam, its paper. */
export function MatFields({ mat: m, number, rings, id, set, onRemove }: MatProps) {
  const design = useStudio((s) => s.design);
  const unit = design.units;
  return (
    <Box border="1px solid var(--rule)" bg="sheet" p="9px 11px" mt="9px" borderRadius="card">
      <Box display="flex" mb="6px" fontWeight="700">
        <chakra.span flex="1">Mat {number}</chakra.span>
        <Action small aria-label={`Remove mat ${number}`} onClick={onRemove}>
          ×
        </Action>
      </Box>
      <InsetFields mat={m} set={set} />
      <MatSize mat={m} rings={rings} set={set} />
      <Choice
        label="Corners"
        value={m.corners ?? 'sharp'}
        choices={[
          { id: 'sharp', name: 'sharp' },
          { id: 'round', name: 'round' },
        ]}
        onChange={(v) => set({ corners: v as Mat['corners'] })}
      />
      <NumberField parameter={FOAM} value={m.foamMm ?? 0} unit={unit} onChange={(v) => set({ foamMm: v ?? 0 })} />
      {(m.foamMm ?? 0) > 0 && (
        <NumberField
          parameter={FOAM_INSET}
          value={m.foamInsetMm ?? DEFAULT_FOAM_INSET_MM}
          unit={unit}
          onChange={(v) => set({ foamInsetMm: v ?? 0 })}
        />
      )}
      <YesNo label="One more for inside" value={m.doubled === true} onChange={(doubled) => set({ doubled })} />
      <Box display="flex" alignItems="center" gap="8px" mb="10px">
        <chakra.label htmlFor={`mat-colour-${number - 1}`} flex="1">
          Colour
        </chakra.label>
        <input
          id={`mat-colour-${number - 1}`}
          type="color"
          value={m.colour ?? stockOf(design, m.stock).insideColour}
          onChange={(e) => set({ colour: e.currentTarget.value })}
        />
      </Box>
      <Choice
        asList
        label="From"
        value={m.stock}
        choices={design.stocks.map((s) => ({ id: s.id, name: s.name }))}
        onChange={(stock) => set({ stock })}
      />
      <SizeLine name={`Mat ${number}`} rings={rings} />
      <MarginsLine of={id} />
    </Box>
  );
}

/** Inset evenly, or by so much on each side. */
function InsetFields({ mat: { sides, insetMm }, set }: Pick<MatProps, 'mat' | 'set'>) {
  const unit = useStudio((s) => s.design.units);
  const even = { left: insetMm, right: insetMm, top: insetMm, bottom: insetMm };
  return (
    <>
      <Choice
        label="Inset"
        value={sides ? 'sides' : 'even'}
        choices={[
          { id: 'even', name: 'evenly' },
          { id: 'sides', name: 'by side' },
        ]}
        onChange={(v) => set({ sides: v === 'sides' ? even : undefined })}
      />
      {sides ? (
        SIDES.map((side) => (
          <NumberField
            key={side}
            parameter={{ ...INSET, key: `inset-${side}`, label: side }}
            value={sides[side]}
            unit={unit}
            onChange={(v) => v !== null && set({ sides: { ...sides, [side]: v } })}
          />
        ))
      ) : (
        <NumberField
          parameter={INSET}
          value={insetMm}
          unit={unit}
          onChange={(v) => v !== null && set({ insetMm: v })}
        />
      )}
    </>
  );
}

/** Its size, in its place of the facet: the inset of each side gives way alike. */
function MatSize({ mat: { sides, insetMm }, rings, set }: Pick<MatProps, 'mat' | 'rings' | 'set'>) {
  const unit = useStudio((s) => s.design.units);
  if (rings.length === 0) return null;
  const { min, max } = boxOf(rings.flat());
  const size = [max[0] - min[0], max[1] - min[1]] as const;
  const resize = ([wide, high]: Size): string | null => {
    const was = sides ?? { left: insetMm, right: insetMm, top: insetMm, bottom: insetMm };
    const [across, along] = [(size[0] - wide) / 2, (size[1] - high) / 2];
    const next = {
      left: tidy(was.left + across),
      right: tidy(was.right + across),
      top: tidy(was.top + along),
      bottom: tidy(was.bottom + along),
    };
    if (SIDES.some((side) => next[side] < 0)) return 'it would be larger than what it lies on; type a smaller size';
    const even = SIDES.every((side) => next[side] === next.left);
    set(even ? { insetMm: next.left, sides: undefined } : { sides: next });
    return null;
  };
  return <SizeField label="Size" size={size} unit={unit} onSize={resize} />;
}
const tidy = (mm: number): number => Number(mm.toFixed(6));

/** Size as a cutter reads it: mm, and inches as a fraction. */
export function SizeLine({ name, rings }: { readonly name: string; readonly rings: readonly Ring[] }) {
  if (rings.length === 0)
    return (
      <chakra.p color="bad" m="0" fontSize="13px">
        {name} is inset to nothing.
      </chakra.p>
    );
  const { min, max } = boxOf(rings.flat());
  const [w, h] = [max[0] - min[0], max[1] - min[1]];
  return (
    <chakra.p className="dim" m="0" fontSize="13px">
      {name}: {cutterSize(w, h)}
    </chakra.p>
  );
}
