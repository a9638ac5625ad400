'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Parameter } from '@/core/kinds';
import { boxOf } from '@/core/plane/polygon';
import { matId } from '@/core/ids';
import { dressingOf, stockOf, type Design, type Dressing, type Mat } from '@/core/document/design';
import { DEFAULT_FOAM_INSET_MM } from '@/core/build/dressing';
import { cutterSize } from '@/core/units/length';
import { nameOfPart } from '@/core/document/words';
import { canBeDressed } from '@/workers/protocol';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { Choice, NumberField } from '../common/Field';
import { SideChoice } from './SideChoice';

const INSET: Parameter = {
  key: 'inset',
  label: 'Inset',
  unit: 'mm',
  default: 3,
  min: 0,
  max: 500,
  note: 'Room left on every side; the next mat is inset from this one.',
};
const FOAM: Parameter = {
  key: 'mat-foam',
  label: 'Foam',
  unit: 'mm',
  default: 0,
  min: 0,
  max: 10,
  note: 'Thickness; 0 is bonded flat.',
};
const FOAM_INSET: Parameter = {
  key: 'mat-foam-inset',
  label: 'Foam inside by',
  unit: 'mm',
  default: 3,
  min: 0,
  max: 100,
  note: '',
};
const SIDES = ['left', 'right', 'top', 'bottom'] as const;

/** Colour and mats of one facet: click it in either view. */
export function FacetPanel() {
  const design = useStudio((s) => s.design);
  const facets = useStudio((s) => s.scene?.facets);
  const id = useStudio((s) => s.facet);
  const { edit, selectFacet, turnUp, light } = useActions();
  const facet = facets?.find((f) => f.id === id);
  const side = useStudio((s) => s.sideUp);
  const dressing = id === null ? undefined : dressingOf(design, id, side);
  const put = (label: string, change: (d: Dressing) => Dressing): void => {
    if (!id) return;
    edit(label, (d: Design) => {
      const now = dressingOf(d, id, side);
      const rest = d.dressing.filter((x) => x !== now);
      const next = change(now ?? { facet: id, ...(side === 'outside' ? { side } : {}), mats: [] });
      return { ...d, dressing: next.mats.length > 0 || next.colour ? [...rest, next] : rest };
    });
  };
  const setMat = (k: number, change: Partial<Mat>): void =>
    put('mat', (d) => ({ ...d, mats: d.mats.map((m, i) => (i === k ? without({ ...m, ...change }) : m)) }));
  return (
    <>
      <chakra.h2 className="heading" mb="10px !important">
        Facet
      </chakra.h2>
      <chakra.select
        aria-label="Facet"
        value={id ?? ''}
        onChange={(e) => selectFacet(e.currentTarget.value || null)}
        width="100%"
        height="30px"
        mb="12px"
        bg="field"
        border="1px solid var(--rule)"
        borderRadius="card"
        px="6px"
      >
        <option value="">Pick a facet…</option>
        {facets?.filter(canBeDressed).map((f) => (
          <option key={f.id} value={f.id}>
            {nameOfPart(design, f.id)}
            {design.dressing.some((d) => d.facet === f.id) ? ' ·' : ''}
          </option>
        ))}
      </chakra.select>
      {!facet && <chakra.p className="dim">Click a facet in the flat view, then give it a colour or a mat.</chakra.p>}
      {facet && (
        <>
          <SideChoice side={side} onChange={turnUp} />
          <Box display="flex" alignItems="center" gap="8px" mb="12px">
            <chakra.label htmlFor="facet-colour" flex="1">
              Colour
            </chakra.label>
            <input
              id="facet-colour"
              type="color"
              value={dressing?.colour ?? '#c9d3e6'}
              onChange={(e) => {
                const colour = e.currentTarget.value;
                put('colour', (d) => ({ ...d, colour }));
              }}
            />
            {dressing?.colour && (
              <Action small onClick={() => put('no colour', ({ colour: _gone, ...rest }) => rest)}>
                None
              </Action>
            )}
          </Box>
          <Size name="Facet" rings={facet.rings} />
          {dressing?.mats.map((m, k) => (
            <Box key={k} border="1px solid var(--rule)" bg="sheet" p="9px 11px" mt="9px" borderRadius="card">
              <Box display="flex" mb="6px" fontWeight="700">
                <chakra.span flex="1">Mat {k + 1}</chakra.span>
                <Action
                  small
                  aria-label={`Remove mat ${k + 1}`}
                  onClick={() => put(`remove mat ${k + 1}`, (d) => ({ ...d, mats: d.mats.filter((_, i) => i !== k) }))}
                >
                  ×
                </Action>
              </Box>
              <Choice
                label="Inset"
                value={m.sides ? 'sides' : 'even'}
                choices={[
                  { id: 'even', name: 'evenly' },
                  { id: 'sides', name: 'by side' },
                ]}
                onChange={(v) =>
                  setMat(k, {
                    sides:
                      v === 'sides'
                        ? { left: m.insetMm, right: m.insetMm, top: m.insetMm, bottom: m.insetMm }
                        : undefined,
                  })
                }
              />
              {m.sides ? (
                SIDES.map((side) => (
                  <NumberField
                    key={side}
                    parameter={{ ...INSET, key: `inset-${side}`, label: side }}
                    value={m.sides![side]}
                    unit={design.units}
                    onChange={(v) => v !== null && setMat(k, { sides: { ...m.sides!, [side]: v } })}
                  />
                ))
              ) : (
                <NumberField
                  parameter={INSET}
                  value={m.insetMm}
                  unit={design.units}
                  onChange={(v) => v !== null && setMat(k, { insetMm: v })}
                />
              )}
              <Choice
                label="Corners"
                value={m.corners ?? 'sharp'}
                choices={[
                  { id: 'sharp', name: 'sharp' },
                  { id: 'round', name: 'round' },
                ]}
                onChange={(v) => setMat(k, { corners: v as Mat['corners'] })}
              />
              <NumberField
                parameter={FOAM}
                value={m.foamMm ?? 0}
                unit={design.units}
                onChange={(v) => setMat(k, { foamMm: v ?? 0 })}
              />
              {(m.foamMm ?? 0) > 0 && (
                <NumberField
                  parameter={FOAM_INSET}
                  value={m.foamInsetMm ?? DEFAULT_FOAM_INSET_MM}
                  unit={design.units}
                  onChange={(v) => setMat(k, { foamInsetMm: v ?? 0 })}
                />
              )}
              <Choice
                label="One more for inside"
                value={m.doubled ? 'yes' : 'no'}
                choices={[
                  { id: 'no', name: 'no' },
                  { id: 'yes', name: 'yes' },
                ]}
                onChange={(v) => setMat(k, { doubled: v === 'yes' })}
              />
              <Box display="flex" alignItems="center" gap="8px" mb="10px">
                <chakra.label htmlFor={`mat-colour-${k}`} flex="1">
                  Colour
                </chakra.label>
                <input
                  id={`mat-colour-${k}`}
                  type="color"
                  value={m.colour ?? stockOf(design, m.stock).insideColour}
                  onChange={(e) => setMat(k, { colour: e.currentTarget.value })}
                />
              </Box>
              <Choice
                asList
                label="From"
                value={m.stock}
                choices={design.stocks.map((s) => ({ id: s.id, name: s.name }))}
                onChange={(stock) => setMat(k, { stock })}
              />
              <Size
                name={`Mat ${k + 1}`}
                rings={facet.mats.find((x) => x.id === matId(facet.id, k + 1, side))?.rings ?? []}
              />
            </Box>
          ))}
          <Box mt="11px">
            <Action
              small
              onPointerEnter={() => light([facet.id])}
              onPointerLeave={() => light([])}
              onClick={() =>
                put('mat', (d) => ({
                  ...d,
                  mats: [
                    ...d.mats,
                    {
                      insetMm: d.mats.at(-1)?.insetMm ?? 3,
                      stock: d.mats.at(-1)?.stock ?? design.stocks[design.stocks.length - 1].id,
                    },
                  ],
                }))
              }
            >
              {dressing?.mats.length ? 'Inset another mat' : 'Add a mat'}
            </Action>
          </Box>
        </>
      )}
    </>
  );
}

/** Size as a cutter reads it: mm, and inches as a fraction. */
function Size({ name, rings }: { name: string; rings: readonly (readonly (readonly [number, number])[])[] }) {
  if (rings.length === 0)
    return (
      <chakra.p color="bad" m="0" fontSize="13px">
        {name} is inset to nothing.
      </chakra.p>
    );
  const { min, max } = boxOf(rings.flat());
  const [w, h] = [max[0] - min[0], max[1] - min[1]];
  return (
    <chakra.p className="dim" m="0" fontSize="13px">
      {name}: {cutterSize(w, h)}
    </chakra.p>
  );
}

/** Keys that are not set are left out: a file has no word for them. */
const without = (m: Mat): Mat =>
  Object.fromEntries(Object.entries(m).filter(([, v]) => v !== undefined)) as unknown as Mat;
