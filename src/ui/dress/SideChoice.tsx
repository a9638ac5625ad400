'use client';
import { SIDES, type Side } from '@/core/kinds';
import { Choice } from '../common/Field';

/** The side of the paper that something lies on. */
export const SideChoice = ({ side, onChange }: { side: Side; onChange: (side: Side) => void }) => (
  <Choice
    label="Side"
    value={side}
    choices={SIDES.map((s) => ({ id: s, name: s }))}
    onChange={(s) => onChange(s as Side)}
  />
);
