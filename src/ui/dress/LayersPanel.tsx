'use client';
import { Box, chakra } from '@chakra-ui/react';
import { boxOf, type Box2 } from '@/core/plane/polygon';
import { sideOf, type Layer } from '@/core/document/design';
import { moveLayers } from '@/core/build/placing';
import { nameOfFace, nameOfPart } from '@/core/document/words';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { LayerFields } from './LayerFields';
import { useBoxes } from './useBoxes';

/** Every layer of the card; those that are picked move together. */
export function LayersPanel() {
  const design = useStudio((s) => s.design);
  const picked = useStudio((s) => s.layers);
  const { pickLayers, edit, selectFacet, turnUp } = useActions();
  const one = picked.length === 1 ? design.layers.find((l) => l.id === picked[0]) : undefined;
  const toggle = (l: Layer, more: boolean): void => {
    pickLayers(more ? (picked.includes(l.id) ? picked.filter((i) => i !== l.id) : [...picked, l.id]) : [l.id]);
    selectFacet(l.facet);
    turnUp(sideOf(l));
  };
  return (
    <>
      {design.layers.length === 0 && (
        <chakra.p className="dim">
          Nothing lies on the facets yet. Open a shape and choose “Layer on…” or “Window in…”.
        </chakra.p>
      )}
      <ul style={{ listStyle: 'none', margin: '0 0 10px', padding: 0 }}>
        {design.layers.map((l) => (
          <li key={l.id}>
            <chakra.button
              type="button"
              data-layer-row={l.id}
              aria-pressed={picked.includes(l.id)}
              onClick={(e) => toggle(l, e.shiftKey || e.ctrlKey || e.metaKey)}
              display="flex"
              width="100%"
              gap="8px"
              textAlign="left"
              px="8px"
              py="5px"
              borderRadius="card"
              cursor="pointer"
              bg={picked.includes(l.id) ? 'accentWash' : 'transparent'}
            >
              <chakra.span flex="1" fontWeight={picked.includes(l.id) ? 700 : 400}>
                {l.name}
              </chakra.span>
              <span className="dim">
                {l.as === 'layer' ? (l.foamMm > 0 ? 'on foam' : 'layer') : l.as} ·{' '}
                {nameOfFace(design, l.facet, sideOf(l))}
              </span>
            </chakra.button>
          </li>
        ))}
      </ul>
      {picked.length > 0 && (
        <Box display="flex" gap="6px" flexWrap="wrap" mb="10px">
          <LineUp />
          <Action
            small
            danger
            onClick={() => {
              edit(picked.length === 1 ? `remove ${one?.name ?? 'layer'}` : `remove ${picked.length} layers`, (d) => ({
                ...d,
                layers: d.layers.filter((l) => !picked.includes(l.id)),
              }));
              pickLayers([]);
            }}
          >
            Remove
          </Action>
        </Box>
      )}
      {picked.length > 1 && (
        <chakra.p className="dim" fontSize="13px">
          {picked.length} picked: drag one, or use the arrow keys, and all move.
        </chakra.p>
      )}
      {one && <LayerFields layer={one} />}
    </>
  );
}

/** Line the picked ones up with the gutter, a crease, the facet or the first of them. */
function LineUp() {
  const scene = useStudio((s) => s.scene);
  const design = useStudio((s) => s.design);
  const picked = useStudio((s) => s.layers);
  const { edit } = useActions();
  const boxes = useBoxes();
  const facet = scene?.facets.find((f) => f.id === design.layers.find((l) => l.id === picked[0])?.facet);
  const creases = (scene?.creases ?? []).filter((c) => c.piece === facet?.piece);
  const to = (axis: 0 | 1, at: (box: Box2) => number, name: string): void =>
    edit(`line up with ${name}`, (d) =>
      picked.reduce((all, id) => {
        const box = boxes.get(id);
        const by = box ? at(box) : 0;
        return moveLayers(all, [id], axis === 0 ? by : 0, axis === 1 ? by : 0);
      }, d),
    );
  const middle = (b: Box2, axis: 0 | 1): number => (b.min[axis] + b.max[axis]) / 2;
  const go = (value: string): void => {
    const [what, id] = value.split('|');
    const f = facet && boxOf(facet.rings[0]);
    const first = boxes.get(picked[0]);
    if (what === 'fx' && f)
      to(0, (b) => middle(f, 0) - middle(b, 0), `the middle of the ${nameOfPart(design, facet.id)}`);
    if (what === 'fy' && f)
      to(1, (b) => middle(f, 1) - middle(b, 1), `the middle of the ${nameOfPart(design, facet.id)}`);
    if (what === 'sx' && first) to(0, (b) => middle(first, 0) - middle(b, 0), 'the first, upright');
    if (what === 'sy' && first) to(1, (b) => middle(first, 1) - middle(b, 1), 'the first, level');
    const crease = creases.find((c) => c.id === id);
    if (!crease) return;
    const { a, b } = crease.segments[0];
    const level = Math.abs(a[1] - b[1]) < Math.abs(a[0] - b[0]);
    const line = level ? a[1] : a[0];
    const axis = level ? 1 : 0;
    if (what === 'on') to(axis, (box) => line - middle(box, axis), nameOfPart(design, id));
    if (what === 'foot') to(axis, (box) => line - box.min[axis], nameOfPart(design, id));
  };
  return (
    <chakra.select
      aria-label="Line up"
      value=""
      onChange={(e) => go(e.currentTarget.value)}
      height="26px"
      maxWidth="190px"
      bg="field"
      border="1px solid var(--rule)"
      borderRadius="card"
      px="5px"
    >
      <option value="">Line up with…</option>
      <option value="fx">middle of the facet, across</option>
      <option value="fy">middle of the facet, up</option>
      {picked.length > 1 && <option value="sx">the first, one above the other</option>}
      {picked.length > 1 && <option value="sy">the first, side by side</option>}
      {[...new Set(creases.map((c) => c.id))].flatMap((c) => [
        <option key={`on${c}`} value={`on|${c}`}>
          middle on {c}
        </option>,
        <option key={`foot${c}`} value={`foot|${c}`}>
          foot on {c}
        </option>,
      ])}
    </chakra.select>
  );
}
