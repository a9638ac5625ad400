'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Parameter } from '@/core/kinds';
import type { Shape } from '@/core/shapes/shape';
import { useActions, useStudio } from '@/store/context';
import type { ShapeSlot } from '@/store/studio';
import { Action } from '../common/Action';
import { ShapeFields } from '../shapes/ShapeFields';
import { ShapeThumb } from '../shapes/ShapePicture';

/** The shape of something: one from the shelf, or its own with its numbers. */
export function ShapeField({
  parameter: p,
  slot,
  value,
  onChange,
}: {
  parameter: Parameter;
  slot: ShapeSlot;
  value: Shape | null;
  onChange: (shape: Shape | null) => void;
}) {
  const shapes = useStudio((s) => s.design.shapes);
  const unit = useStudio((s) => s.design.units);
  const { show } = useActions();
  const asset = value && 'asset' in value ? value.asset : null;
  return (
    <Box mb="12px" data-shape-field={p.key}>
      <Box display="flex" alignItems="center" gap="8px">
        <chakra.label htmlFor={`shape-${p.key}`} flex="1" title={p.note}>
          {p.label}
        </chakra.label>
        <chakra.select
          id={`shape-${p.key}`}
          value={asset ?? (value ? '-' : '')}
          onChange={(e) => {
            const id = e.currentTarget.value;
            if (id === '') onChange(null);
            else if (id !== '-') onChange({ asset: id });
          }}
          maxWidth="150px"
          height="28px"
          bg="field"
          border="1px solid var(--rule)"
          borderRadius="card"
          px="5px"
        >
          {p.default === null && <option value="">none</option>}
          {value && asset === null && <option value="-">its own</option>}
          {shapes.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </chakra.select>
      </Box>
      {value && (
        <Box display="flex" gap="8px" mt="6px" alignItems="center">
          <Box flex="0 0 92px" bg="sheet" border="1px solid var(--rule)" borderRadius="card" p="3px">
            <ShapeThumb shape={value} height={56} label={p.label} />
          </Box>
          <Box flex="1" display="flex" flexDirection="column" gap="5px" alignItems="flex-start">
            {asset && (
              <Action small onClick={() => show({ kind: 'workshop', asset })}>
                Work on it…
              </Action>
            )}
            <Action small onClick={() => show({ kind: 'bring', into: slot })}>
              Bring in a shape…
            </Action>
          </Box>
        </Box>
      )}
      {!value && (
        <Box mt="4px">
          <Action small onClick={() => show({ kind: 'bring', into: slot })}>
            Bring in a shape…
          </Action>
        </Box>
      )}
      {value && asset === null && (
        <Box mt="8px" pl="10px" borderLeft="2px solid var(--rule)">
          <ShapeFields shape={value} unit={unit} onChange={onChange} />
        </Box>
      )}
    </Box>
  );
}
