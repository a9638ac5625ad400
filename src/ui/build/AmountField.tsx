'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useId } from 'react';
import { amountIn, type Amount, type Numbers } from '@/core/kinds';
import { exactLength, formatLength, parseLength, type LengthUnit } from '@/core/units/length';
import { LineInput } from '../common/Field';
import { useTyped } from '../common/useTyped';

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
  const shown = typeof value === 'string' ? value : plain ? String(value) : formatLength(value, unit);
  const exact = typeof value === 'number' && !plain ? exactLength(value, unit) : shown;
  const typed = useTyped(shown, exact, (text) => {
    const read = readAmount(text, numbers, unit, plain);
    if (typeof read === 'object') return read.why;
    if (read !== value) onChange(read);
    return null;
  });
  const { why } = typed;
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
          value={typed.text}
          aria-invalid={why !== null}
          aria-describedby={why ? `${id}-why` : undefined}
          onFocus={typed.onFocus}
          onChange={typed.onChange}
          onBlur={typed.onBlur}
          onKeyDown={typed.onKeyDown}
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
