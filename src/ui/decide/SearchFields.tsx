'use client';
import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { Free } from '@/core/decide/target';
import { WANT_KINDS, type Want, type WantKind } from '@/core/decide/wants';
import { isAngle, isAngleMeasure } from '@/core/document/words';
import type { Design } from '@/core/document/design';
import type { Parameter } from '@/core/kinds';
import { useStudio } from '@/store/context';
import { mm } from '../common/asked';
import { Action } from '../common/Action';
import { NumberField } from '../common/Field';
import { Pick } from '../common/Pick';
import { freeOf, parted, valueNow, type Named } from './choices';
import { StateChoice } from './StateChoice';

const KIND_WORDS: Readonly<Record<WantKind, string>> = {
  equal: 'is',
  atLeast: 'is at least',
  atMost: 'is at most',
  most: 'as large as possible',
  least: 'as small as possible',
};
const hasValue = (is: WantKind): boolean => is !== 'most' && is !== 'least';
const VALUE = mm('want-value', 'Value', -5000, 5000);
const FROM = mm('free-from', 'from', -5000, 5000);
const TO = mm('free-to', 'to', -5000, 5000);

/** The field for an end of a range, in the unit of the number. */
const endOf = (design: Design, { mechanism, key }: Free, end: Parameter): Parameter =>
  isAngle(design, mechanism, key) ? { ...end, unit: 'deg' } : end;

/** Named for those who are read to, and set in a row that may go on below. */
function Row({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  return (
    <Box
      role="group"
      aria-label={name}
      display="flex"
      flexWrap="wrap"
      gap="6px 10px"
      alignItems="center"
      css={{ '& > div': { marginBottom: 0 } }}
    >
      {children}
    </Box>
  );
}

/** What the card should be like: a measure, what it must be, and in which state. */
export function Wish({
  name,
  want: w,
  wantable,
  onChange,
  onLeave,
}: {
  readonly name: string;
  readonly want: Want;
  readonly wantable: readonly Named[];
  readonly onChange: (want: Want) => void;
  readonly onLeave?: () => void;
}) {
  const design = useStudio((s) => s.design);
  const proof = useStudio((s) => s.proof);
  return (
    <Row name={name}>
      <Pick
        label="Measure"
        value={`${w.mechanism} ${w.measure}`}
        choices={wantable}
        onChange={(id) => {
          const { mechanism, key } = parted(id);
          onChange({ ...w, mechanism, measure: key, value: valueNow(proof, mechanism, key) });
        }}
      />
      <Pick
        label="How it should be"
        value={w.is}
        choices={WANT_KINDS.map((id) => ({ id, name: KIND_WORDS[id] }))}
        onChange={(is) => onChange({ ...w, is: is as WantKind })}
      />
      {hasValue(w.is) && (
        <NumberField
          parameter={isAngleMeasure(w.measure) ? { ...VALUE, unit: 'deg' } : VALUE}
          value={w.value ?? 0}
          unit={design.units}
          onChange={(v) => onChange({ ...w, value: v ?? 0 })}
        />
      )}
      <StateChoice at={w} onChange={(at) => onChange({ ...w, drives: undefined, ...at })} />
      {onLeave && (
        <Action small aria-label={`Leave ${name.toLowerCase()} out`} onClick={onLeave}>
          ×
        </Action>
      )}
    </Row>
  );
}

/** A number that may be changed, and how far. */
export function FreeNumber({
  place,
  free: f,
  freeable,
  onChange,
  onHold,
}: {
  readonly place: number;
  readonly free: Free;
  readonly freeable: readonly Named[];
  readonly onChange: (free: Free) => void;
  readonly onHold?: () => void;
}) {
  const design = useStudio((s) => s.design);
  return (
    <Row name={`Free number ${place + 1}`}>
      <span>Free</span>
      <Pick
        label="Number that may change"
        testId={`free-${place}`}
        value={`${f.mechanism} ${f.key}`}
        choices={freeable}
        onChange={(id) => {
          const next = freeOf(design, id);
          if (next) onChange(next);
        }}
      />
      <NumberField
        parameter={endOf(design, f, FROM)}
        value={f.from}
        unit={design.units}
        onChange={(v) => onChange({ ...f, from: v ?? f.from })}
      />
      <NumberField
        parameter={endOf(design, f, TO)}
        value={f.to}
        unit={design.units}
        onChange={(v) => onChange({ ...f, to: v ?? f.to })}
      />
      {onHold && (
        <Action small aria-label={`Hold number ${place + 1}`} onClick={onHold}>
          ×
        </Action>
      )}
    </Row>
  );
}
