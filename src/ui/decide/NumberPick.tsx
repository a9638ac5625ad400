'use client';
import { chakra } from '@chakra-ui/react';
import type { Named } from './choices';

/** One of many, in a list. */
export function Pick({
  label,
  value,
  choices,
  testId,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly choices: readonly Named[];
  readonly testId?: string;
  readonly onChange: (id: string) => void;
}) {
  return (
    <chakra.select
      aria-label={label}
      data-testid={testId}
      value={value}
      onChange={(e) => onChange(e.currentTarget.value)}
      maxWidth="260px"
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
