/** Numbers that a remedy may turn: parameters of mechanisms and of the base, and of what is stuck on facets. */
import { DEFAULT_FOAM_INSET_MM } from '../build/dressing';
import { baseKindOf, fieldOf, isBase, kindIn, mountKey, parameterOf, setParameter, valuesIn } from '../document/fields';
import { dressingOf, type Design } from '../document/design';
import { settingOf } from '../document/settings';
import { idOfLayer, matOfId } from '../ids';
import { kindById } from '../kinds';

/** One lever of a base may stand for several of its numbers. */
const leverKeys = (design: Design, mechanism: string, parameter: string): readonly string[] =>
  (isBase(mechanism) ? baseKindOf(design).levers?.[parameter] : undefined) ?? [parameter];

export function leverValue(design: Design, mechanism: string, parameter: string): number | null {
  const own = ownLever(design, mechanism, parameter);
  if (own) return own.value;
  const [key] = leverKeys(design, mechanism, parameter);
  const value = parameterOf(design, mechanism, key) ?? emptyValue(design, mechanism, key);
  return typeof value === 'number' ? value : null;
}
/** What a number of a mechanism comes to where it is left empty. */
function emptyValue(design: Design, mechanism: string, key: string): number | null {
  const values = valuesIn(design, mechanism);
  const kind = kindById(kindIn(design, mechanism) ?? '');
  return (values && kind?.empty?.(values, key)) ?? null;
}
export function setLever(design: Design, mechanism: string, parameter: string, value: number): Design {
  const own = ownLever(design, mechanism, parameter);
  return own
    ? own.set(value)
    : leverKeys(design, mechanism, parameter).reduce((d, key) => setParameter(d, mechanism, key, value), design);
}

/** So far to each side a place on a face is looked at. */
const MOUNT_SPAN_MM = 40;

/** The range of a number that is looked at round its present value; null where it has none, or no value of its own. */
export function rangeAround(
  design: Design,
  mechanism: string,
  key: string,
): { readonly now: number; readonly from: number; readonly to: number } | null {
  const field = fieldOf(kindIn(design, mechanism) ?? '', key);
  const now = leverValue(design, mechanism, key);
  if (now !== null && mountKey(key)) return { now, from: now - MOUNT_SPAN_MM, to: now + MOUNT_SPAN_MM };
  if (!field || now === null || field.min === undefined || field.max === undefined) return null;
  const { min, max } = field;
  const span = field.unit === 'deg' ? max - min : Math.max(20, 2 * Math.abs(now));
  return { now, from: Math.max(min, min < 0 ? now - span : min), to: Math.min(max, now + span) };
}

/** A number that is no parameter of a kind. */
interface OwnLever {
  readonly value: number;
  readonly range: Range;
  readonly set: (value: number) => Design;
}
interface Range {
  readonly min: number;
  readonly max: number;
}

/** Numbers of what is stuck on facets that remedies may change, with their ranges (mm). */
const STUCK_RANGE: Readonly<Record<string, Range>> = {
  foamMm: { min: 0, max: 10 },
  foamInsetMm: { min: 0, max: 100 },
  'at.x': { min: -500, max: 500 },
  'at.y': { min: -500, max: 500 },
  x: { min: -500, max: 500 },
  y: { min: -500, max: 500 },
  width: { min: 1, max: 1000 },
  height: { min: 1, max: 1000 },
};

/**
 * A number of a layer (`layer.ID`) or a mat (`FACET.mat-K`), a place on a face, or a setting of another stage; null for
 * anything else.
 */
function ownLever(design: Design, id: string, parameter: string): OwnLever | null {
  const elsewhere = settingOf(design, id, parameter) ?? mountLever(design, id, parameter);
  if (elsewhere) return elsewhere;
  const range = STUCK_RANGE[parameter];
  if (!range) return null;
  const ownId = idOfLayer(id);
  const layer = ownId === null ? undefined : design.layers.find((l) => l.id === ownId);
  const value = layer?.[parameter as 'foamMm' | 'foamInsetMm' | 'x' | 'y' | 'width' | 'height'];
  // A width or height that is left to the shape is no number to turn.
  if (layer)
    return value === null || value === undefined
      ? null
      : {
          value,
          range,
          set: (next) => ({
            ...design,
            layers: design.layers.map((l) => (l === layer ? { ...l, [parameter]: next } : l)),
          }),
        };
  const at = matOfId(id);
  const mat = at && dressingOf(design, at.facet, at.side)?.mats[at.k - 1];
  if (!mat || !parameter.startsWith('foam')) return null;
  return {
    value: (parameter === 'foamMm' ? mat.foamMm : (mat.foamInsetMm ?? DEFAULT_FOAM_INSET_MM)) ?? 0,
    range,
    set: (value) => ({
      ...design,
      dressing: design.dressing.map((d) =>
        d.mats.includes(mat) ? { ...d, mats: d.mats.map((m) => (m === mat ? { ...m, [parameter]: value } : m)) } : d,
      ),
    }),
  };
}

/** Where a mechanism is fixed on its face. */
function mountLever(design: Design, id: string, parameter: string): OwnLever | null {
  const axis = mountKey(parameter);
  const fixed = axis && design.mechanisms.find((m) => m.id === id);
  if (!axis || !fixed?.mount) return null;
  const { mount } = fixed;
  return {
    value: mount[axis],
    range: STUCK_RANGE[parameter],
    set: (value) => ({
      ...design,
      mechanisms: design.mechanisms.map((m) => (m === fixed ? { ...m, mount: { ...mount, [axis]: value } } : m)),
    }),
  };
}

export function leverRange(design: Design, mechanism: string, parameter: string): Range | null {
  const own = ownLever(design, mechanism, parameter);
  if (own) return own.range;
  const p = fieldOf(kindIn(design, mechanism) ?? '', leverKeys(design, mechanism, parameter)[0]);
  return p?.min === undefined || p.max === undefined ? null : { min: p.min, max: p.max };
}
