'use client';
import { chakra } from '@chakra-ui/react';

/** One of many, in a list; named by a label of its own, or by one that is for its id. */
export function Pick({
  id,
  label,
  value,
  choices,
  testId,
  maxWidth = '260px',
  onChange,
}: {
  readonly id?: string;
  readonly label?: string;
  readonly value: string;
  readonly choices: readonly { readonly id: string; readonly name: string }[];
  readonly testId?: string;
  readonly maxWidth?: string;
  readonly onChange: (id: string) => void;
}) {
  return (
    <chakra.select
      id={id}
      aria-label={label}
      data-testid={testId}
      value={value}
      onChange={(e) => onChange(e.currentTarget.value)}
      maxWidth={maxWidth}
      minWidth="0"
      height="28px"
      bg="field"
      border="1px solid var(--rule)"
      borderRadius="card"
      px="5px"
    >
      {choices.map((c) => (
        <option key={c.id} value={c.id}>
          {c.name}
        </option>
      ))}
    </chakra.select>
  );
}
