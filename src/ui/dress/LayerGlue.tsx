'use client';
import { setLayer } from '@/core/build/placing';
import { sideOf, type Layer } from '@/core/document/design';
import { layerId } from '@/core/ids';
import { boxOf, type Box2 } from '@/core/plane/polygon';
import type { Vec2 } from '@/core/plane/vec2';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { FlatSlider, type Slid } from '../build/FlatSlider';
import { FREE, NOTHING_FREE, type FreeSide } from './free-sides';

/** Less than this stays stuck between two sides that are left free, mm. */
const LEAST_STUCK_MM = 0.5;

/** Where the picked layer is stuck, on the piece that carries it: each side of its glue, dragged off its edge. */
export function LayerGlue({ scene, piece }: { readonly scene: Scene; readonly piece: string }) {
  const stage = useStudio((s) => s.stage);
  const picked = useStudio((s) => s.layers);
  const up = useStudio((s) => s.sideUp);
  const layer = useStudio((s) => s.design.layers.find((l) => l.id === picked[0]));
  if (stage !== 'dress' || picked.length !== 1 || layer?.as !== 'layer' || sideOf(layer) !== up) return null;
  const facets = scene.facets.filter((f) => f.piece === piece);
  const drawn = facets.flatMap((f) => f.mats).find((m) => m.id === layerId(layer.id));
  if (!drawn) return null;
  const box = boxOf(drawn.rings.flat());
  return (
    <>
      {(Object.keys(FREE) as FreeSide[]).map((side) => (
        <FlatSlider key={side} slid={slidOf(layer, side, box)} />
      ))}
    </>
  );
}

/** From which side of the box, as that is seen, which way: the outside is the mirror image of the inside. */
const INTO: Readonly<Record<FreeSide, Vec2>> = { left: [1, 0], right: [-1, 0], top: [0, -1], bottom: [0, 1] };
const ACROSS: Readonly<Record<FreeSide, FreeSide>> = { left: 'right', right: 'left', top: 'bottom', bottom: 'top' };

function slidOf(layer: Layer, side: FreeSide, { min, max }: Box2): Slid {
  const free = layer.glued?.free ?? NOTHING_FREE;
  const mirrored = sideOf(layer) === 'outside' ? -1 : 1;
  const way: Vec2 = [INTO[side][0] * mirrored, INTO[side][1]];
  const axis = way[0] !== 0 ? 0 : 1;
  const long = max[axis] - min[axis];
  const from = way[axis] > 0 ? min[axis] : max[axis];
  const at: [number, number] = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  at[axis] = from + way[axis] * free[side];
  return {
    label: FREE[side].label,
    value: free[side],
    field: { ...FREE[side], max: Math.max(0, long - free[ACROSS[side]] - LEAST_STUCK_MM) },
    at,
    way,
    put: (d, value) => setLayer(d, layer.id, { glued: { ...layer.glued, free: { ...free, [side]: value } } }),
  };
}
