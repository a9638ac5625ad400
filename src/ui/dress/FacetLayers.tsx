'use client';
import { nameOfPart } from '@/core/document/words';
import { idOfLayer } from '@/core/ids';
import { useState, type PointerEvent } from 'react';
import { boxOf, type Box2 } from '@/core/plane/polygon';
import { moveLayers, snapShift, type Guide, type Snap } from '@/core/build/placing';
import type { Design } from '@/core/document/design';
import type { Side } from '@/core/kinds';
import { useActions, useStudio } from '@/store/context';
import type { Scene, SceneFacet } from '@/workers/protocol';
import { pale } from '../common/files';

/** How near a drag must come to a guide to snap, mm. */
const SNAP_MM = 1.2;
const path = (rings: readonly (readonly (readonly [number, number])[])[]): string =>
  rings.map((r) => `M${r.map((p) => p.join(' ')).join('L')}Z`).join('');

/** Mats and layers on the side of a facet that lies up in the flat view. Layers snap to what they line up with. */
export function FacetLayers({ facet, scene, side }: { facet: SceneFacet; scene: Scene; side: Side }) {
  const design = useStudio((s) => s.design);
  const stage = useStudio((s) => s.stage);
  const picked = useStudio((s) => s.layers);
  const { edit, showPreview, pickLayers, selectFacet } = useActions();
  const [held, setHeld] = useState<{
    id: string;
    ids: readonly string[];
    x: number;
    y: number;
    box: Box2;
    start: Design;
    snap: Snap;
  } | null>(null);
  const at = (e: PointerEvent<SVGGraphicsElement>): [number, number] => {
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(
      (e.currentTarget.closest('[data-piece]') as SVGGraphicsElement).getScreenCTM()!.inverse(),
    );
    return [p.x, p.y];
  };
  const free = stage === 'dress';
  const grab = (e: PointerEvent<SVGGraphicsElement>, id: string, rings: SceneFacet['mats'][number]['rings']): void => {
    e.stopPropagation();
    e.currentTarget.setPointerCapture(e.pointerId);
    const own = idOfLayer(id)!;
    const ids = e.shiftKey ? [...new Set([...picked, own])] : picked.includes(own) ? picked : [own];
    pickLayers(ids);
    selectFacet(facet.id);
    const [x, y] = at(e);
    setHeld({ id, ids, x, y, box: boxOf(rings.flat()), start: design, snap: { dx: 0, dy: 0, names: [] } });
  };
  const drag = (e: PointerEvent<SVGGraphicsElement>): void => {
    if (!held) return;
    const [x, y] = at(e);
    const snap = e.altKey
      ? { dx: x - held.x, dy: y - held.y, names: [] }
      : snapShift(held.box, x - held.x, y - held.y, guidesFor(scene, facet, held.ids), SNAP_MM);
    setHeld({ ...held, snap });
    showPreview(moveLayers(held.start, held.ids, snap.dx, snap.dy));
  };
  const drop = (): void => {
    if (held && Math.hypot(held.snap.dx, held.snap.dy) > 0.02) {
      const next = moveLayers(held.start, held.ids, held.snap.dx, held.snap.dy);
      edit(`move ${nameOfLayers(design, held.ids)}`, () => next);
    }
    showPreview(null);
    setHeld(null);
  };
  return (
    <g>
      {facet.mats
        .filter((m) => m.side === side)
        .map((m) => {
          const layer = idOfLayer(m.id);
          const own = layer !== null;
          const on = own && picked.includes(layer);
          return (
            <g key={m.id}>
              <path
                d={path(m.rings)}
                fillRule="evenodd"
                fill={pale(m.colour)}
                stroke={on ? 'var(--accent)' : 'var(--ink-2)'}
                strokeWidth={on ? 1.8 : 0.6}
                style={{
                  vectorEffect: 'non-scaling-stroke',
                  cursor: own && free ? 'move' : undefined,
                  touchAction: 'none',
                }}
                pointerEvents={own && free ? 'auto' : 'none'}
                data-layer={layer ?? undefined}
                onPointerDown={own && free ? (e) => grab(e, m.id, m.rings) : undefined}
                onPointerMove={held?.id === m.id ? drag : undefined}
                onPointerUp={held?.id === m.id ? drop : undefined}
              />
              {m.glue.length > 0 && (
                <path
                  d={path(m.glue)}
                  data-glued={m.id}
                  className="line glue"
                  style={{ fill: 'url(#glue-hatch)' }}
                  fillRule="evenodd"
                />
              )}
              {m.foam.length > 0 && (
                <path
                  d={path(m.foam)}
                  className="line glue"
                  style={{ fill: 'url(#glue-hatch)', opacity: 0.7 }}
                  fillRule="evenodd"
                />
              )}
            </g>
          );
        })}
      {held && held.snap.names.length > 0 && (
        <text
          data-testid="snap-name"
          x={side === 'inside' ? held.box.max[0] + held.snap.dx + 2 : -(held.box.min[0] + held.snap.dx) + 2}
          y={-(held.box.max[1] + held.snap.dy)}
          transform={`scale(${side === 'inside' ? 1 : -1} -1)`}
          fill="var(--accent)"
          style={{ fontSize: 5, fontWeight: 700 }}
        >
          {held.snap.names.join(' · ')}
        </text>
      )}
    </g>
  );
}

/**
 * What a layer may line up with: the facet's middle and edges, the gutter, level and upright creases, its neighbours'
 * middles.
 */
function guidesFor(scene: Scene, facet: SceneFacet, moving: readonly string[]): Guide[] {
  const { min, max } = boxOf(facet.rings[0]);
  const called = `the ${nameOfPart(scene.design, facet.id)}`;
  const out: Guide[] = [
    { axis: 'x', at: (min[0] + max[0]) / 2, name: `the middle of ${called}` },
    { axis: 'y', at: (min[1] + max[1]) / 2, name: `the middle of ${called}` },
    { axis: 'x', at: min[0], name: `the edge of ${called}` },
    { axis: 'x', at: max[0], name: `the edge of ${called}` },
    { axis: 'y', at: min[1], name: `the edge of ${called}` },
    { axis: 'y', at: max[1], name: `the edge of ${called}` },
  ];
  for (const c of scene.creases) {
    if (c.piece !== facet.piece) continue;
    const { a, b } = c.segments[0];
    const name = `the ${nameOfPart(scene.design, c.id)}`;
    if (Math.abs(a[1] - b[1]) < 1e-6) out.push({ axis: 'y', at: a[1], name });
    if (Math.abs(a[0] - b[0]) < 1e-6) out.push({ axis: 'x', at: a[0], name });
  }
  for (const m of scene.facets.filter((f) => f.piece === facet.piece).flatMap((f) => f.mats)) {
    const layer = idOfLayer(m.id);
    if (layer === null || moving.includes(layer)) continue;
    const box = boxOf(m.rings.flat());
    out.push(
      { axis: 'x', at: (box.min[0] + box.max[0]) / 2, name: `the middle of ${nameOfPart(scene.design, m.id)}` },
      { axis: 'y', at: (box.min[1] + box.max[1]) / 2, name: `the middle of ${nameOfPart(scene.design, m.id)}` },
    );
  }
  return out;
}

const nameOfLayers = (design: Design, ids: readonly string[]): string =>
  ids.length === 1 ? (design.layers.find((l) => l.id === ids[0])?.name ?? 'layer') : `${ids.length} layers`;
