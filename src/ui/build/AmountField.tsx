'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useId, useState } from 'react';
import { amountIn, type Amount, type Numbers } from '@/core/kinds';
import { exactLength, formatLength, parseLength, type LengthUnit } from '@/core/units/length';
import { LineInput } from '../common/Field';

/** A length, or a sum over named sizes such as `depth / 2 + 3`. */
export function AmountField({
  label,
  value,
  numbers,
  unit,
  plain = false,
  onChange,
}: {
  readonly label: string;
  readonly value: Amount;
  readonly numbers: Numbers;
  readonly unit: LengthUnit;
  /** A bare number: a part of something, degrees. */
  readonly plain?: boolean;
  readonly onChange: (value: Amount) => void;
}) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const shown = typeof value === 'string' ? value : plain ? String(value) : formatLength(value, unit);
  const exact = typeof value === 'number' && !plain ? exactLength(value, unit) : shown;
  const commit = (): void => {
    if (typed === null || typed.trim() === exact) return setTyped(null);
    const read = readAmount(typed.trim(), numbers, unit, plain);
    if (typeof read === 'object') return setWhy(read.why);
    setWhy(null);
    setTyped(null);
    if (read !== value) onChange(read);
  };
  return (
    <Box>
      <Box display="flex" alignItems="center" gap="6px">
        <chakra.label htmlFor={id} flex="1" fontSize="13px">
          {label}
        </chakra.label>
        <LineInput
          id={id}
          className="num"
          width="104px"
          bad={why !== null}
          value={typed ?? shown}
          aria-invalid={why !== null}
          aria-describedby={why ? `${id}-why` : undefined}
          onFocus={() => setTyped(exact)}
          onChange={(e) => setTyped(e.currentTarget.value)}
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key === 'Enter') commit();
            else if (e.key === 'Escape' && typed !== null) {
              e.stopPropagation();
              setTyped(null);
              setWhy(null);
            }
          }}
        />
      </Box>
      {why && (
        <chakra.p id={`${id}-why`} role="alert" m="2px 0 0" color="bad" fontSize="12.5px">
          {why}
        </chakra.p>
      )}
    </Box>
  );
}

function readAmount(
  text: string,
  numbers: Numbers,
  unit: LengthUnit,
  plain: boolean,
): Amount | { readonly why: string } {
  if (plain) {
    const number = Number(text.replace(',', '.'));
    if (text !== '' && Number.isFinite(number)) return number;
  } else {
    const length = parseLength(text, unit);
    if (length.ok) return length.value;
  }
  try {
    amountIn(text, numbers);
    return text;
  } catch (error) {
    return { why: (error as Error).message };
  }
}
