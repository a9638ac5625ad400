'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useId } from 'react';
import type { LengthUnit } from '@/core/units/length';
import { exactSize, formatSize, parseSize, type Size } from '@/core/units/size';
import { LineInput } from './Field';
import { useTyped } from './useTyped';

/** Width and height in one field, as a person says them: 5 3/8 × 4 1/8. `onSize` says why it cannot be had. */
export function SizeField({
  label,
  size,
  unit,
  onSize,
}: {
  readonly label: string;
  readonly size: Size;
  readonly unit: LengthUnit;
  readonly onSize: (size: Size) => string | null;
}) {
  const id = useId();
  const typed = useTyped(formatSize(size, unit), exactSize(size, unit), (text) => {
    const read = parseSize(text, unit);
    return read.ok ? onSize(read.value) : read.why;
  });
  return (
    <Box mb="10px">
      <Box display="flex" alignItems="center" gap="8px">
        <chakra.label htmlFor={id} flex="1">
          {label}
        </chakra.label>
        <LineInput
          id={id}
          name="size"
          className="num"
          width="148px"
          bad={typed.why !== null}
          value={typed.text}
          aria-invalid={typed.why !== null}
          aria-describedby={typed.why ? `${id}-why` : undefined}
          onFocus={typed.onFocus}
          onChange={typed.onChange}
          onBlur={typed.onBlur}
          onKeyDown={typed.onKeyDown}
        />
        <chakra.span className="dim" fontSize="13px">
          {unit}
        </chakra.span>
      </Box>
      {typed.why && (
        <chakra.p id={`${id}-why`} role="alert" m="3px 0 0" color="bad" fontSize="12.5px">
          {typed.why}
        </chakra.p>
      )}
    </Box>
  );
}
