'use client';
import { Box, chakra } from '@chakra-ui/react';
import { MIRRORS, OWN_NAME, OWN_ROLES, type Amount, type Numbers, type OwnLine, type Spot } from '@/core/kinds';
import type { Design } from '@/core/document/design';
import { ownerOfId } from '@/core/ids';
import { nameOfPart } from '@/core/document/words';
import type { Shape } from '@/core/shapes/shape';
import { useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { Choice, LineInput } from '../common/Field';
import { useTyped } from '../common/useTyped';
import { AmountField } from './AmountField';
import { OWN_ROLE_WORDS, spotWords } from './own-words';
import { aroundNow, namedSpots, ownAxes } from './picking';

interface Props {
  readonly line: OwnLine;
  readonly lines: readonly OwnLine[];
  readonly piece: string;
  readonly numbers: Numbers;
  readonly onChange: (line: OwnLine) => void;
  readonly onRemove: () => void;
}

/** What one line is for and how it runs, each number to be typed. */
export function LineFields({ line, lines, piece, numbers, onChange, onRemove }: Props) {
  const unit = useStudio((s) => s.design.units);
  const amount = (label: string, value: Amount | undefined, put: (value: Amount) => OwnLine, plain = false) => (
    <AmountField
      label={label}
      value={value ?? 0}
      numbers={numbers}
      unit={unit}
      plain={plain}
      onChange={(v) => onChange(put(v))}
    />
  );
  const closed = 'shape' in line || ('corners' in line && line.closed === true);
  return (
    <Box display="grid" gap="7px" p="8px" bg="wash" borderRadius="card">
      <NameField line={line} lines={lines} onChange={onChange} />
      <Choice
        asList
        label="It is a"
        value={line.role}
        choices={OWN_ROLES.filter((r) => r !== 'window' || closed).map((r) => ({
          id: r,
          name: OWN_ROLE_WORDS[r].name,
        }))}
        onChange={(role) => onChange({ ...line, role: role as OwnLine['role'] })}
      />
      {'from' in line && (
        <>
          <SpotFields
            label="From"
            spot={line.from}
            {...{ lines, piece, numbers, line }}
            onChange={(from) => onChange({ ...line, from })}
          />
          <SpotFields
            label="To"
            spot={line.to}
            {...{ lines, piece, numbers, line }}
            onChange={(to) => onChange({ ...line, to })}
          />
        </>
      )}
      {'beside' in line && (
        <>
          <BesideChoice {...{ line, lines, piece }} onChange={(beside) => onChange({ ...line, beside })} />
          {amount('To its left by', line.mm, (mm) => ({ ...line, mm }))}
          {amount('Begins inside by', line.start, (start) => ({ ...line, start }))}
          {amount('Ends inside by', line.end, (end) => ({ ...line, end }))}
        </>
      )}
      {'facet' in line && (
        <>
          <FacetChoice piece={piece} value={line.facet} onChange={(facet) => onChange({ ...line, facet })} />
          <Choice
            label="It runs"
            value={line.way}
            choices={[
              { id: 'along', name: 'along' },
              { id: 'across', name: 'across' },
            ]}
            onChange={(way) => onChange({ ...line, way: way as 'along' | 'across' })}
          />
          {amount('At a part of it (0 to 1)', line.part, (part) => ({ ...line, part }), true)}
        </>
      )}
      {'shape' in line && (
        <>
          <ShapeChoice value={line.shape} onChange={(shape) => onChange({ ...line, shape })} />
          <SpotFields
            label="Middle at"
            spot={line.middle}
            {...{ lines, piece, numbers, line }}
            onChange={(middle) => onChange({ ...line, middle })}
          />
          {amount('Turned (°)', line.turnDeg, (turnDeg) => ({ ...line, turnDeg }), true)}
        </>
      )}
      {'corners' in line && (
        <chakra.p className="dim" m="0" fontSize="12.5px">
          {line.corners.length} corners{line.closed ? ', closed' : ''}
        </chakra.p>
      )}
      <Choice
        asList
        label="Mirrored"
        value={line.mirror ?? 'none'}
        choices={[
          { id: 'none', name: 'no' },
          { id: 'crease', name: 'about the crease' },
          { id: 'middle', name: 'about its middle' },
          { id: 'both', name: 'about both' },
        ]}
        onChange={(m) => {
          const { mirror: _, ...rest } = line;
          const found = MIRRORS.find((x) => x === m);
          onChange((found ? { ...rest, mirror: found } : rest) as OwnLine);
        }}
      />
      <RepeatFields line={line} numbers={numbers} onChange={onChange} />
      <Box>
        <Action small danger onClick={onRemove}>
          Remove this line
        </Action>
      </Box>
    </Box>
  );
}

function NameField({ line, lines, onChange }: Pick<Props, 'line' | 'lines' | 'onChange'>) {
  const typed = useTyped(line.name, line.name, (name) => {
    if (!OWN_NAME.test(name)) return 'Begin with a letter; letters, digits and hyphens.';
    if (lines.some((l) => l.name === name)) return `Another line is called ${name}.`;
    onChange({ ...line, name });
    return null;
  });
  const { why } = typed;
  return (
    <Box>
      <chakra.label display="flex" alignItems="center" gap="6px" fontSize="13px">
        <span style={{ flex: 1 }}>Name</span>
        <LineInput
          value={typed.text}
          maxLength={28}
          width="150px"
          bad={why !== null}
          onChange={typed.onChange}
          onBlur={typed.onBlur}
          onKeyDown={typed.onKeyDown}
        />
      </chakra.label>
      {why && (
        <chakra.p role="alert" m="2px 0 0" color="bad" fontSize="12.5px">
          {why}
        </chakra.p>
      )}
    </Box>
  );
}

/** What an end is measured from, and how far it lies from there. */
function SpotFields({
  label,
  spot,
  line,
  lines,
  piece,
  numbers,
  onChange,
}: Pick<Props, 'line' | 'lines' | 'piece' | 'numbers'> & {
  readonly label: string;
  readonly spot: Spot;
  readonly onChange: (spot: Spot) => void;
}) {
  const design = useStudio((s) => s.design);
  const scene = useStudio((s) => s.scene);
  const known = scene ? namedSpots(design, aroundNow(scene, piece), ownAxes(piece)) : [];
  // Its own creases and facets are there because of the lines: those are named by the lines.
  const id = useStudio((s) => s.selected);
  const own = lines
    .filter((l) => l.name !== line.name && l.piece === line.piece)
    .flatMap((l) => (['start', 'middle', 'end'] as const).map((at): Pick<Spot, 'of' | 'at'> => ({ of: l.name, at })));
  const choices = [{}, ...own, ...known.filter((k) => ownerOfId(k.of ?? '') !== id)];
  const keyOf = ({ of, at }: Pick<Spot, 'of' | 'at'>): string => JSON.stringify([of ?? null, at ?? null]);
  const now = keyOf(spot);
  const all = choices.some((c) => keyOf(c) === now) ? choices : [{ of: spot.of, at: spot.at }, ...choices];
  return (
    <Box display="grid" gap="4px">
      <Choice
        asList
        label={label}
        value={now}
        choices={all.map((c) => ({ id: keyOf(c), name: spotWords(design, lines, c) }))}
        onChange={(key) => {
          const [of, at] = JSON.parse(key) as [string | null, Spot['at'] | null];
          onChange({
            ...(of === null ? {} : { of }),
            ...(at === null ? {} : { at }),
            ...(spot.x === undefined ? {} : { x: spot.x }),
            ...(spot.y === undefined ? {} : { y: spot.y }),
          });
        }}
      />
      <AmountField
        label="along from there"
        value={spot.x ?? 0}
        numbers={numbers}
        unit={design.units}
        onChange={(x) => onChange({ ...spot, x })}
      />
      <AmountField
        label="across from there"
        value={spot.y ?? 0}
        numbers={numbers}
        unit={design.units}
        onChange={(y) => onChange({ ...spot, y })}
      />
    </Box>
  );
}

function BesideChoice({
  line,
  lines,
  piece,
  onChange,
}: Pick<Props, 'lines' | 'piece'> & {
  readonly line: OwnLine & { readonly beside: string };
  readonly onChange: (of: string) => void;
}) {
  const design = useStudio((s) => s.design);
  const whole = useStudio((s) => s.scene?.whole) ?? [];
  const id = useStudio((s) => s.selected);
  const choices = [
    ...lines.filter((l) => l.name !== line.name).map((l) => ({ id: l.name, name: l.name })),
    ...whole
      .filter((c) => c.piece === piece && ownerOfId(c.id) !== id)
      .map((c) => ({ id: c.id, name: nameOfPart(design, c.id) })),
  ];
  return (
    <Choice
      asList
      label="Beside"
      value={line.beside}
      choices={withNow(choices, line.beside, () => nameOfPart(design, line.beside))}
      onChange={onChange}
    />
  );
}

function FacetChoice({
  piece,
  value,
  onChange,
}: {
  readonly piece: string;
  readonly value: string;
  readonly onChange: (facet: string) => void;
}) {
  const design = useStudio((s) => s.design);
  const facets = useStudio((s) => s.scene?.facets) ?? [];
  const id = useStudio((s) => s.selected);
  const choices = facets
    .filter((f) => f.piece === piece && !f.bent && f.mechanism !== id)
    .map((f) => ({ id: f.id, name: nameOfPart(design, f.id) }));
  return (
    <Choice
      asList
      label="Across"
      value={value}
      choices={withNow(choices, value, () => nameOfPart(design, value))}
      onChange={onChange}
    />
  );
}

type Named = { readonly id: string; readonly name: string };
const withNow = (choices: readonly Named[], id: string, name: () => string): readonly Named[] =>
  choices.some((c) => c.id === id) ? choices : [{ id, name: name() }, ...choices];

const PLAIN_SHAPES: readonly (readonly [name: string, shape: Shape])[] = [
  ['Circle, 20 mm', { circle: 20 }],
  ['Circle, 40 mm', { circle: 40 }],
  ['Rectangle, 40 × 25 mm', { rect: { width: 40, height: 25 } }],
  ['Star, 40 mm', { star: { points: 5, outer: 40, inner: 18 } }],
];
/** A plain shape, or one of the card's own. */
function ShapeChoice({ value, onChange }: { readonly value: Shape; readonly onChange: (shape: Shape) => void }) {
  const shapes = useStudio((s) => s.design.shapes);
  const all: readonly (readonly [name: string, shape: Shape])[] = [
    ...PLAIN_SHAPES,
    ...shapes.map((a) => [a.name, { asset: a.id }] as const),
  ];
  const now = JSON.stringify(value);
  const choices = all.map(([name, shape]) => ({ id: JSON.stringify(shape), name }));
  return (
    <Choice
      asList
      label="Shape"
      value={now}
      choices={withNow(choices, now, () => 'as it is')}
      onChange={(text) => onChange(JSON.parse(text) as Shape)}
    />
  );
}

function RepeatFields({ line, numbers, onChange }: Pick<Props, 'line' | 'numbers' | 'onChange'>) {
  const unit = useStudio((s: { design: Design }) => s.design.units);
  const { repeat } = line;
  const times = repeat?.times ?? 1;
  return (
    <Box display="grid" gap="4px">
      <chakra.label display="flex" alignItems="center" gap="6px" fontSize="13px">
        <span style={{ flex: 1 }}>In a row, times</span>
        <LineInput
          type="number"
          className="num"
          min={1}
          max={60}
          value={times}
          width="64px"
          onChange={(e) => {
            const n = Math.min(60, Math.max(1, Math.round(Number(e.currentTarget.value) || 1)));
            const { repeat: _, ...rest } = line;
            const next = { times: n, x: repeat?.x ?? 10, y: repeat?.y ?? 0 };
            onChange((n > 1 ? { ...rest, repeat: next } : rest) as OwnLine);
          }}
        />
      </chakra.label>
      {repeat && (
        <>
          <AmountField
            label="each along by"
            value={repeat.x}
            numbers={numbers}
            unit={unit}
            onChange={(x) => onChange({ ...line, repeat: { ...repeat, x } })}
          />
          <AmountField
            label="each across by"
            value={repeat.y}
            numbers={numbers}
            unit={unit}
            onChange={(y) => onChange({ ...line, repeat: { ...repeat, y } })}
          />
        </>
      )}
    </Box>
  );
}
