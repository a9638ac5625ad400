'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Parameter, Path } from '@/core/kinds';
import { checkParameter } from '@/core/document/parameters';
import { useStudio } from '@/store/context';
import { Choice, NumberField } from '../common/Field';
import { useTyped } from '../common/useTyped';
import { ShapeField } from './ShapeField';

const WAYS = [
  { id: 'line', name: 'straight line' },
  { id: 'arc', name: 'arc' },
  { id: 'curve', name: 'drawn curve' },
  { id: 'ring', name: 'round a shape' },
] as const;
type Way = (typeof WAYS)[number]['id'];

/** What a way starts as when it is chosen. */
const FRESH: Readonly<Record<Way, Path>> = {
  line: { line: 60 },
  arc: { arc: 40, from: 30, to: 150 },
  curve: { curve: 'M 0 0 C 20 -30 50 30 70 0' },
  ring: { ring: { circle: 60 } },
};
const number = (key: string, label: string, unit: 'mm' | 'deg', note: string): Parameter => ({
  key,
  label,
  unit,
  default: 0,
  min: unit === 'mm' ? 0.1 : -3600,
  max: unit === 'mm' ? 5000 : 3600,
  note,
});
const LENGTH = number('line', 'Length', 'mm', 'From end to end.');
const RADIUS = number('arc', 'Radius', 'mm', 'Of the arc.');
const FROM = number('from', 'From', 'deg', 'Counter-clockwise from the right.');
const TO = number('to', 'To', 'deg', 'Counter-clockwise from the right.');

/** The way a token runs: its sort, and the numbers of it. */
export function PathField({
  id,
  parameter: p,
  value,
  onChange,
}: {
  id: string;
  parameter: Parameter;
  value: Path;
  onChange: (path: Path) => void;
}) {
  const unit = useStudio((s) => s.design.units);
  const way = WAYS.find((w) => w.id in value)!.id;
  return (
    <Box mb="4px" data-path={way}>
      <Choice
        asList
        label={p.label}
        note={p.note}
        value={way}
        choices={WAYS}
        onChange={(w) => onChange(FRESH[w as Way])}
      />
      {'line' in value && (
        <NumberField
          parameter={LENGTH}
          value={value.line}
          unit={unit}
          onChange={(v) => v !== null && onChange({ line: v })}
        />
      )}
      {'arc' in value &&
        [RADIUS, FROM, TO].map((f) => (
          <NumberField
            key={f.key}
            parameter={f}
            value={value[f.key as keyof typeof value]}
            unit={unit}
            onChange={(v) => v !== null && onChange({ ...value, [f.key]: v })}
          />
        ))}
      {'curve' in value && <CurveField parameter={p} value={value.curve} onChange={onChange} />}
      {'ring' in value && (
        <ShapeField
          parameter={{ ...p, key: `${p.key}.ring`, label: 'Outline', unit: 'shape' }}
          slot={{ mechanism: id, path: `${p.key}.ring` }}
          value={value.ring}
          onChange={(shape) => shape && onChange({ ring: shape })}
        />
      )}
    </Box>
  );
}

/** Path data as it is written in an SVG file. */
function CurveField({
  parameter: p,
  value,
  onChange,
}: {
  parameter: Parameter;
  value: string;
  onChange: (path: Path) => void;
}) {
  const typed = useTyped(value, value, (curve) => {
    const wrong = checkParameter(p, { curve });
    if (wrong === null) onChange({ curve });
    return wrong;
  });
  const { why } = typed;
  return (
    <Box mb="10px">
      <chakra.textarea
        aria-label="Curve as path data"
        aria-invalid={why !== null}
        rows={3}
        width="100%"
        bg="field"
        border="1px solid"
        borderColor={why ? 'bad' : 'rule'}
        borderRadius="card"
        p="5px 7px"
        fontSize="12.5px"
        value={typed.text}
        onChange={typed.onChange}
        onBlur={typed.onBlur}
      />
      {why && (
        <chakra.p role="alert" m="3px 0 0" color="bad" fontSize="12.5px">
          {why}
        </chakra.p>
      )}
    </Box>
  );
}
