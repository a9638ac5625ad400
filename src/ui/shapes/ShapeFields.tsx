'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Parameter } from '@/core/kinds';
import type { LengthUnit } from '@/core/units/length';
import { FONTS } from '@/core/shapes/fonts';
import type { Shape } from '@/core/shapes/shape';
import { count, deg, mm } from '../common/asked';
import { Choice, NumberField } from '../common/Field';

const size = (key: string, label: string, least = 0.1): Parameter => mm(key, label, least);

/** Basic shapes by name, each with the sizes it starts with and its fields. */
export const BASICS: readonly {
  readonly id: string;
  readonly name: string;
  readonly start: Shape;
  readonly fields: readonly Parameter[];
}[] = [
  {
    id: 'rect',
    name: 'Rectangle',
    start: { rect: { width: 60, height: 40, corner: 0 } },
    fields: [size('width', 'Width'), size('height', 'Height'), size('corner', 'Corner radius', 0)],
  },
  { id: 'circle', name: 'Circle', start: { circle: 50 }, fields: [size('circle', 'Diameter')] },
  {
    id: 'ellipse',
    name: 'Ellipse',
    start: { ellipse: { width: 70, height: 40 } },
    fields: [size('width', 'Width'), size('height', 'Height')],
  },
  {
    id: 'regular',
    name: 'Even-sided',
    start: { regular: { sides: 6, diameter: 50 } },
    fields: [count('sides', 'Sides', 3, 100), size('diameter', 'Across corners')],
  },
  {
    id: 'star',
    name: 'Star',
    start: { star: { points: 5, outer: 56, inner: 24 } },
    fields: [count('points', 'Points', 3, 100), size('outer', 'Across points'), size('inner', 'Across notches')],
  },
  {
    id: 'arc',
    name: 'Arc',
    start: { arc: { radius: 30, width: 10, from: 0, to: 180 } },
    fields: [size('radius', 'Radius of its middle'), size('width', 'Width'), deg('from', 'From'), deg('to', 'To')],
  },
  {
    id: 'arch',
    name: 'Arch',
    start: { arch: { width: 44, height: 60 } },
    fields: [size('width', 'Width'), size('height', 'Height')],
  },
  {
    id: 'cloud',
    name: 'Scallops',
    start: { cloud: { width: 70, height: 40, bumps: 9 } },
    fields: [size('width', 'Width'), size('height', 'Height'), count('bumps', 'Bumps', 4, 60)],
  },
];

/** Numbers of a basic shape, or the words of a lettered one. Others have none: their outline is their source. */
export function ShapeFields({
  shape,
  unit,
  onChange,
}: {
  shape: Shape;
  unit: LengthUnit;
  onChange: (shape: Shape) => void;
}) {
  const basic = BASICS.find((b) => b.id in shape);
  if (basic) {
    const inner = (shape as unknown as Record<string, unknown>)[basic.id];
    return (
      <>
        {basic.fields.map((p) => {
          const value = typeof inner === 'number' ? inner : ((inner as Record<string, number>)[p.key] ?? 0);
          return (
            <NumberField
              key={p.key}
              parameter={p}
              value={value}
              unit={unit}
              onChange={(v) =>
                v !== null &&
                onChange(
                  (typeof inner === 'number'
                    ? { [basic.id]: v }
                    : { [basic.id]: { ...(inner as object), [p.key]: v } }) as unknown as Shape,
                )
              }
            />
          );
        })}
      </>
    );
  }
  if ('text' in shape) {
    const { text } = shape;
    return (
      <>
        <chakra.label htmlFor="shape-letters" display="block" mb="3px">
          Letters
        </chakra.label>
        <chakra.textarea
          id="shape-letters"
          name="letters"
          value={text.string}
          maxLength={200}
          rows={2}
          onChange={(e) =>
            e.currentTarget.value !== '' && onChange({ text: { ...text, string: e.currentTarget.value } })
          }
          width="100%"
          bg="field"
          border="1px solid var(--rule)"
          borderRadius="card"
          p="5px 7px"
          mb="8px"
        />
        <Choice
          asList
          label="Font"
          value={text.font}
          choices={FONTS.map((f) => ({ id: f.id, name: `${f.name}${f.stencil ? ' (stencil)' : ''}` }))}
          onChange={(font) => onChange({ text: { ...text, font } })}
        />
        <NumberField
          parameter={mm('size', 'Size (em)', 1, 1000)}
          value={text.size}
          unit={unit}
          onChange={(v) => v !== null && onChange({ text: { ...text, size: v } })}
        />
        <NumberField
          parameter={mm('spacing', 'Further apart by', -20, 200)}
          value={text.spacing ?? 0}
          unit={unit}
          onChange={(v) => v !== null && onChange({ text: { ...text, spacing: v } })}
        />
      </>
    );
  }
  return (
    <Box className="dim" fontSize="13px" mb="8px">
      {'asset' in shape ? `Made from the shape “${shape.asset}”.` : 'A drawn outline; change it by the steps below.'}
    </Box>
  );
}
