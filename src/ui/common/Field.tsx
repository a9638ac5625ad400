'use client';
import { Box, chakra, RadioGroup } from '@chakra-ui/react';
import { useId, type KeyboardEvent, type ReactNode } from 'react';
import type { Parameter, ParameterValue } from '@/core/kinds';
import { readValue } from '@/core/document/values';
import { Pick } from './Pick';
import { useTyped } from './useTyped';
import { exactLength, formatLength, MM_PER_INCH, trimNumber, type LengthUnit } from '@/core/units/length';

const Input = chakra('input');

/** What stands in the field while it is not being typed in, and what it starts from when it is. */
const shown = (p: Parameter, value: ParameterValue, unit: LengthUnit): string =>
  typeof value === 'string'
    ? value
    : typeof value !== 'number'
      ? ''
      : p.unit === 'mm'
        ? formatLength(value, unit)
        : trimNumber(value, 2);
const exact = (p: Parameter, value: ParameterValue, unit: LengthUnit): string =>
  typeof value === 'number' && p.unit === 'mm' ? exactLength(value, unit) : shown(p, value, unit);

/** A line of text as our fields have it, for what is neither a number with a room nor a choice. */
export function LineInput({ bad = false, ...rest }: { bad?: boolean } & React.ComponentProps<typeof Input>) {
  return (
    <Input
      autoComplete="off"
      spellCheck={false}
      height="26px"
      px="6px"
      bg="field"
      border="1px solid"
      borderColor={bad ? 'bad' : 'rule'}
      borderRadius="card"
      {...rest}
    />
  );
}

export interface NumberFieldProps {
  readonly parameter: Parameter;
  readonly value: ParameterValue;
  readonly unit: LengthUnit;
  readonly follows?: string;
  readonly bad?: boolean;
  /** Shown to the last digit, for small things such as calipers. */
  readonly fine?: boolean;
  readonly onChange: (value: number | null) => void;
  readonly children?: ReactNode;
}

/**
 * A number with its unit: exact entry in either system, arrows to step, Escape to take back. What is wrong is said
 * below it.
 */
export function NumberField({
  parameter: p,
  value,
  unit,
  follows,
  bad,
  fine = false,
  onChange,
  children,
}: NumberFieldProps) {
  const id = useId();
  const typed = useTyped((fine ? exact : shown)(p, value, unit), exact(p, value, unit), (text) => {
    const read = readValue(p, text, unit);
    if (!read.ok) return read.says;
    if (read.value !== value) onChange(read.value as number | null);
    return null;
  });
  const { why } = typed;
  const step = (event: KeyboardEvent): void => {
    const direction = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (direction === 0 || typeof value !== 'number') return;
    event.preventDefault();
    const one = p.unit === 'mm' && unit === 'in' ? MM_PER_INCH / 16 : 1;
    const next = value + direction * one * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1);
    typed.forget();
    onChange(Number(Math.min(p.max ?? Infinity, Math.max(p.min ?? -Infinity, next)).toFixed(6)));
  };
  const suffix = p.unit === 'deg' ? '°' : p.unit === 'mm' ? unit : '';
  return (
    <Box mb="10px">
      <Box display="flex" alignItems="center" gap="8px">
        <chakra.label htmlFor={id} flex="1" title={p.note}>
          {p.label}
        </chakra.label>
        <Box position="relative">
          <Input
            id={id}
            name={p.key}
            className="num"
            autoComplete="off"
            spellCheck={false}
            width="104px"
            height="28px"
            bg="field"
            border="1px solid"
            borderColor={why || bad ? 'bad' : 'rule'}
            borderRadius="card"
            pl="6px"
            pr={suffix ? '31px' : '8px'}
            value={typed.text}
            placeholder={value === null ? (follows ?? 'follows') : undefined}
            aria-invalid={why !== null || bad}
            aria-describedby={why ? `${id}-why` : undefined}
            onFocus={(e) => {
              typed.onFocus();
              const el = e.currentTarget;
              requestAnimationFrame(() => el.select());
            }}
            onChange={typed.onChange}
            onBlur={typed.onBlur}
            onKeyDown={(e) => {
              typed.onKeyDown(e);
              step(e);
            }}
          />
          {suffix && (
            <chakra.span className="dim" position="absolute" right="7px" top="5px" fontSize="13px" pointerEvents="none">
              {suffix}
            </chakra.span>
          )}
        </Box>
      </Box>
      {why && (
        <chakra.p id={`${id}-why`} role="alert" m="3px 0 0" color="bad" fontSize="12.5px">
          {why}
        </chakra.p>
      )}
      {children}
    </Box>
  );
}

export interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly choices: readonly { readonly id: string; readonly name: string }[];
  readonly note?: string;
  /** Always in a list, for choices that come and go. */
  readonly asList?: boolean;
  readonly onChange: (id: string) => void;
}

/** A few named choices: side by side up to three, in a list beyond. */
export function Choice({ label, value, choices, note, asList = false, onChange }: ChoiceProps) {
  const id = useId();
  const few = !asList && choices.length <= 3 && choices.every((c) => c.name.length < 12);
  return (
    <Box mb="10px" display="flex" alignItems="center" gap="8px" flexWrap="wrap">
      <chakra.label id={id} htmlFor={few ? undefined : `${id}-list`} flex="1" title={note}>
        {label}
      </chakra.label>
      {few ? (
        <RadioGroup.Root
          value={value}
          onValueChange={(e) => e.value && e.value !== value && onChange(e.value)}
          aria-labelledby={id}
          display="flex"
          border="1px solid var(--rule)"
          borderRadius="card"
          overflow="hidden"
        >
          {choices.map((c) => (
            <RadioGroup.Item
              key={c.id}
              value={c.id}
              px="9px"
              height="26px"
              cursor="pointer"
              bg={c.id === value ? 'ink' : 'field'}
              color={c.id === value ? 'sheet' : 'ink'}
              _focusWithin={{ outline: '2px solid var(--accent)', outlineOffset: '-2px' }}
            >
              <RadioGroup.ItemHiddenInput />
              <RadioGroup.ItemText fontWeight="400">{c.name}</RadioGroup.ItemText>
            </RadioGroup.Item>
          ))}
        </RadioGroup.Root>
      ) : (
        <Pick id={`${id}-list`} value={value} choices={choices} maxWidth="190px" onChange={onChange} />
      )}
    </Box>
  );
}

/** A choice of two. */
export const YesNo = ({
  label,
  value,
  yes = 'yes',
  onChange,
}: {
  readonly label: string;
  readonly value: boolean;
  /** What yes means, where that is more. */
  readonly yes?: string;
  readonly onChange: (value: boolean) => void;
}) => (
  <Choice
    label={label}
    value={value ? 'yes' : 'no'}
    choices={[
      { id: 'no', name: 'no' },
      { id: 'yes', name: yes },
    ]}
    onChange={(v) => onChange(v === 'yes')}
  />
);
