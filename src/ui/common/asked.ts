/** Fields the interface itself asks for: numbers with their unit and limits, as a mechanism's parameters have them. */
import type { Parameter } from '@/core/kinds';

type More = Partial<Pick<Parameter, 'default' | 'note' | 'unit'>>;
/** May be left empty. */
export const UNSET: More = { default: null };

export const mm = (key: string, label: string, min = -2000, max = 2000, more: More = {}): Parameter => ({
  key,
  label,
  unit: 'mm',
  default: 0,
  min,
  max,
  note: '',
  ...more,
});
export const deg = (key: string, label: string, more: More = {}): Parameter =>
  mm(key, label, -360, 360, { unit: 'deg', ...more });
export const count = (key: string, label: string, min: number, max: number, more: More = {}): Parameter =>
  mm(key, label, min, max, { unit: 'count', default: 1, ...more });
