/** Numbers that a remedy may turn: parameters of mechanisms and of the base, and of what is stuck on facets. */
import { DEFAULT_FOAM_INSET_MM } from '../build/dressing';
import { fieldOf, parameterOf, setParameter } from '../document/fields';
import type { Design } from '../document/design';
import { idOfLayer, matOfId } from '../ids';

/** `reach` of the card stands for both leaves. */
const leverKeys = (mechanism: string, parameter: string): readonly string[] =>
  mechanism === 'card' && parameter === 'reach' ? ['reachA', 'reachB'] : [parameter];

export function leverValue(design: Design, mechanism: string, parameter: string): number | null {
  const stuck = stuckLever(design, mechanism, parameter);
  if (stuck) return stuck.value;
  const value = parameterOf(design, mechanism, leverKeys(mechanism, parameter)[0]);
  return typeof value === 'number' ? value : null;
}
export function setLever(design: Design, mechanism: string, parameter: string, value: number): Design {
  const stuck = stuckLever(design, mechanism, parameter);
  return stuck
    ? stuck.set(value)
    : leverKeys(mechanism, parameter).reduce((d, key) => setParameter(d, mechanism, key, value), design);
}

/** Numbers of what is stuck on facets that remedies may change, with their ranges (mm). */
const STUCK_RANGE: Readonly<Record<string, { min: number; max: number }>> = {
  foamMm: { min: 0, max: 10 },
  foamInsetMm: { min: 0, max: 100 },
  x: { min: -500, max: 500 },
  y: { min: -500, max: 500 },
  width: { min: 1, max: 1000 },
  height: { min: 1, max: 1000 },
};

/** A number of a layer (`layer.ID`) or a mat (`FACET.mat-K`); null for anything else. */
function stuckLever(
  design: Design,
  id: string,
  parameter: string,
): { value: number; set: (value: number) => Design } | null {
  if (!STUCK_RANGE[parameter]) return null;
  const ownId = idOfLayer(id);
  const layer = ownId === null ? undefined : design.layers.find((l) => l.id === ownId);
  const value = layer?.[parameter as 'foamMm' | 'foamInsetMm' | 'x' | 'y' | 'width' | 'height'];
  // A width or height that is left to the shape is no number to turn.
  if (layer)
    return value === null || value === undefined
      ? null
      : {
          value,
          set: (next) => ({
            ...design,
            layers: design.layers.map((l) => (l === layer ? { ...l, [parameter]: next } : l)),
          }),
        };
  const at = matOfId(id);
  const mat = at && design.dressing.find((d) => d.facet === at.facet)?.mats[at.k - 1];
  if (!mat || !parameter.startsWith('foam')) return null;
  return {
    value: (parameter === 'foamMm' ? mat.foamMm : (mat.foamInsetMm ?? DEFAULT_FOAM_INSET_MM)) ?? 0,
    set: (value) => ({
      ...design,
      dressing: design.dressing.map((d) =>
        d.facet === at!.facet ? { ...d, mats: d.mats.map((m) => (m === mat ? { ...m, [parameter]: value } : m)) } : d,
      ),
    }),
  };
}

export function leverRange(design: Design, mechanism: string, parameter: string): { min: number; max: number } | null {
  if (stuckLever(design, mechanism, parameter)) return STUCK_RANGE[parameter];
  const kind = mechanism === 'card' ? 'fold-card' : design.mechanisms.find((m) => m.id === mechanism)?.kind;
  const p = fieldOf(kind ?? '', leverKeys(mechanism, parameter)[0]);
  return p?.min === undefined || p.max === undefined ? null : { min: p.min, max: p.max };
}
