'use client';
import { Box, Slider } from '@chakra-ui/react';
import type { Parameter } from '@/core/kinds';
import type { TraceWishes } from '@/core/shapes/trace';
import { useStudio } from '@/store/context';
import { Choice, NumberField } from '../common/Field';

const HEIGHT: Parameter = {
  key: 'trace-height',
  label: 'Height',
  unit: 'mm',
  default: 60,
  min: 1,
  max: 1000,
  note: 'Of the traced shape.',
};
/** How a picture is traced. */
export function TraceFields({
  wishes,
  onChange,
}: {
  readonly wishes: TraceWishes;
  readonly onChange: (wishes: TraceWishes) => void;
}) {
  const unit = useStudio((s) => s.design.units);
  const put = (change: Partial<TraceWishes>): void => onChange({ ...wishes, ...change });
  return (
    <>
      <Sliding
        label="Darker than"
        value={wishes.threshold}
        {...{ min: 0.02, max: 0.98, step: 0.01 }}
        says={`${Math.round(wishes.threshold * 100)} %`}
        onChange={(threshold) => put({ threshold })}
      />
      <Sliding
        label="Smoothing"
        value={wishes.smoothing}
        {...{ min: 0, max: 8, step: 0.5 }}
        says={`${wishes.smoothing} px`}
        onChange={(smoothing) => put({ smoothing })}
      />
      <Sliding
        label="Leave out specks below"
        value={wishes.specks}
        {...{ min: 0, max: 400, step: 4 }}
        says={`${wishes.specks} px²`}
        onChange={(specks) => put({ specks })}
      />
      <Choice
        label="Wanted"
        value={wishes.inverted ? 'light' : 'dark'}
        choices={[
          { id: 'dark', name: 'the dark' },
          { id: 'light', name: 'the light' },
        ]}
        onChange={(v) => put({ inverted: v === 'light' })}
      />
      <Choice
        label="Holes"
        value={wishes.keepHoles ? 'keep' : 'fill'}
        choices={[
          { id: 'keep', name: 'keep' },
          { id: 'fill', name: 'fill' },
        ]}
        onChange={(v) => put({ keepHoles: v === 'keep' })}
      />
      <NumberField
        parameter={HEIGHT}
        value={wishes.heightMm}
        unit={unit}
        onChange={(v) => v !== null && put({ heightMm: v })}
      />
    </>
  );
}

function Sliding({
  label,
  value,
  min,
  max,
  step,
  says,
  onChange,
}: {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly says: string;
  readonly onChange: (value: number) => void;
}) {
  return (
    <Slider.Root
      mb="10px"
      size="sm"
      min={min}
      max={max}
      step={step}
      value={[value]}
      onValueChange={(e) => onChange(e.value[0])}
    >
      <Box display="flex">
        <Slider.Label flex="1" fontWeight="400">
          {label}
        </Slider.Label>
        <span className="num">{says}</span>
      </Box>
      <Slider.Control>
        <Slider.Track bg="var(--rule)">
          <Slider.Range bg="var(--accent)" />
        </Slider.Track>
        <Slider.Thumb index={0} borderColor="var(--accent)" />
      </Slider.Control>
    </Slider.Root>
  );
}
