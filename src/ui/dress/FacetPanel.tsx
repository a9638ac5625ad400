'use client';
import { useState } from 'react';
import { Box, chakra } from '@chakra-ui/react';
import { CARD, matId } from '@/core/ids';
import { matsOnAll } from '@/core/document/mats';
import { dressingOf, type Design, type Dressing, type Mat } from '@/core/document/design';
import { named, nameOfPart, wordsOfOwnPart } from '@/core/document/words';
import { canBeDressed } from '@/workers/protocol';
import { useActions, useStudio } from '@/store/context';
import { mm } from '../common/asked';
import { Action } from '../common/Action';
import { NumberField } from '../common/Field';
import { MatFields, SizeLine } from './MatFields';
import { SideChoice } from './SideChoice';

/** Changes what a facet is dressed with; `label` says how. */
type PutDressing = (label: string, change: (d: Dressing) => Dressing) => void;

/** Colour and mats of one facet: click it in either view. */
export function FacetPanel() {
  const design = useStudio((s) => s.design);
  const facets = useStudio((s) => s.scene?.facets);
  const id = useStudio((s) => s.facet);
  const { edit, turnUp, light } = useActions();
  const facet = facets?.find((f) => f.id === id);
  const side = useStudio((s) => s.sideUp);
  const dressing = id === null ? undefined : dressingOf(design, id, side);
  const put: PutDressing = (label, change) => {
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
      <FacetChoice />
      {facet && <NameField key={facet.id} of={facet.id} />}
      {!facet && <chakra.p className="dim">Click a facet in the flat view, then give it a colour or a mat.</chakra.p>}
      {facet && (
        <>
          <SideChoice side={side} onChange={turnUp} />
          <ColourField colour={dressing?.colour} put={put} />
          <SizeLine name="Facet" rings={facet.rings} />
          {dressing?.mats.map((m, k) => (
            <MatFields
              key={k}
              mat={m}
              number={k + 1}
              id={matId(facet.id, k + 1, side)}
              rings={facet.mats.find((x) => x.id === matId(facet.id, k + 1, side))?.rings ?? []}
              set={(change) => setMat(k, change)}
              onRemove={() => put(`remove mat ${k + 1}`, (d) => ({ ...d, mats: d.mats.filter((_, i) => i !== k) }))}
            />
          ))}
          <Box mt="11px">
            <Action
              small
              onPointerEnter={() => light([facet.id])}
              onPointerLeave={() => light([])}
              onClick={() => put('mat', (d) => ({ ...d, mats: [...d.mats, anotherMat(design, d.mats)] }))}
            >
              {dressing?.mats.length ? 'Inset another mat' : 'Add a mat'}
            </Action>
          </Box>
        </>
      )}
      <EveryPanel />
    </>
  );
}

/** What a facet is called, in every list, step and finding. */
function NameField({ of }: { readonly of: string }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const own = design.names?.find((n) => n.of === of)?.name ?? '';
  return (
    <Box display="flex" alignItems="center" gap="8px" mb="12px">
      <chakra.label htmlFor="facet-name" flex="1">
        Called
      </chakra.label>
      <chakra.input
        id="facet-name"
        defaultValue={own}
        key={own}
        maxLength={40}
        placeholder={wordsOfOwnPart(named(design, of, ''), of)}
        width="150px"
        height="30px"
        px="8px"
        bg="field"
        border="1px solid var(--rule)"
        borderRadius="card"
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        onBlur={(e) => {
          const name = e.currentTarget.value.trim();
          if (name !== own) edit(`call it ${name || 'as before'}`, (d) => named(d, of, name));
        }}
      />
    </Box>
  );
}

const SMALLER = mm('mats-smaller', 'Smaller by', 0, 200, {
  note: 'Of width and of height: half of it inside every edge',
});
/** 1/8 in where inches are spoken, 3 mm elsewhere. */
const usualSmaller = ({ units }: Design): number => (units === 'in' ? 3.175 : 3);

/** One mat on every panel of the base. */
function EveryPanel() {
  const design = useStudio((s) => s.design);
  const facets = useStudio((s) => s.scene?.facets) ?? [];
  const side = useStudio((s) => s.sideUp);
  const { edit } = useActions();
  const [smaller, setSmaller] = useState<number | null>(null);
  const panels = facets.filter((f) => f.mechanism === CARD && canBeDressed(f)).map((f) => f.id);
  const by = smaller ?? usualSmaller(design);
  if (panels.length < 2) return null;
  return (
    <chakra.details mt="16px">
      <chakra.summary cursor="pointer" fontWeight="600" mb="6px">
        Mats on every panel
      </chakra.summary>
      <NumberField parameter={SMALLER} value={by} unit={design.units} onChange={(v) => setSmaller(v ?? 0)} />
      <Action
        small
        onClick={() =>
          edit('mats on every panel', (d) => matsOnAll(d, panels, side, by, d.stocks[d.stocks.length - 1].id))
        }
      >
        {`Mat all ${panels.length}, ${side === 'outside' ? 'outside' : 'inside'}`}
      </Action>
    </chakra.details>
  );
}

function FacetChoice() {
  const design = useStudio((s) => s.design);
  const facets = useStudio((s) => s.scene?.facets);
  const id = useStudio((s) => s.facet);
  const { selectFacet } = useActions();
  return (
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
          {design.dressing.some((d) => d.facet === f.id) ? ', dressed' : ''}
        </option>
      ))}
    </chakra.select>
  );
}

function ColourField({ colour, put }: { readonly colour: string | undefined; readonly put: PutDressing }) {
  return (
    <Box display="flex" alignItems="center" gap="8px" mb="12px">
      <chakra.label htmlFor="facet-colour" flex="1">
        Colour
      </chakra.label>
      <input
        id="facet-colour"
        type="color"
        value={colour ?? '#c9d3e6'}
        onChange={(e) => {
          const chosen = e.currentTarget.value;
          put('colour', (d) => ({ ...d, colour: chosen }));
        }}
      />
      {colour && (
        <Action small onClick={() => put('no colour', ({ colour: _gone, ...rest }) => rest)}>
          None
        </Action>
      )}
    </Box>
  );
}

/** Inset from the last one by as much as that is, of the same paper. */
const anotherMat = (design: Design, mats: readonly Mat[]): Mat => ({
  insetMm: mats.at(-1)?.insetMm ?? 3,
  stock: mats.at(-1)?.stock ?? design.stocks[design.stocks.length - 1].id,
});

/** Keys that are not set are left out: a file has no word for them. */
const without = (m: Mat): Mat =>
  Object.fromEntries(Object.entries(m).filter(([, v]) => v !== undefined)) as unknown as Mat;
