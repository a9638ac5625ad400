/** Lines of one's own added to a design: to those of the mechanism that is selected, or as a new one. */
import { freeName, linesOf, OWN_LINES, type OwnLine, type OwnRole, type Spot } from '@/core/kinds';
import { setParameter, valuesOf } from '@/core/document/fields';
import { addMechanism } from '@/core/document/standing';
import { CENTRE, type Design } from '@/core/document/design';
import type { Scene, SceneFrame } from '@/workers/protocol';

/** What a new line stands on: own lines that are there, or a crease or facet for new ones. */
export interface Ground {
  /** Mechanism to add to; null for a new one. */
  readonly id: string | null;
  readonly on: { readonly crease: string } | { readonly facet: string };
  readonly frame: SceneFrame;
}

/** Where a line drawn on a piece goes: to the selected own lines there, else its first crease, else a facet. */
export function groundOn(scene: Scene, piece: string, selected: string): Ground | null {
  const m = scene.design.mechanisms.find((x) => x.id === selected && x.kind === OWN_LINES);
  const own = m && scene.frames[m.id];
  if (m && own?.piece === piece) return { id: m.id, on: m.mount ? { facet: m.on } : { crease: m.on }, frame: own };
  const host = scene.hosts.find((h) => h.piece === piece);
  if (host) {
    const frame = { piece, origin: host.origin, x: host.along, y: [-host.along[1], host.along[0]] as const };
    return { id: null, on: { crease: host.crease }, frame };
  }
  const face = scene.faces.find((f) => f.frame.piece === piece);
  return face ? { id: null, on: { facet: face.facet }, frame: face.frame } : null;
}

const STEMS: Readonly<Record<OwnRole, string>> = {
  cut: 'cut',
  valley: 'fold',
  mountain: 'fold',
  window: 'window',
  open: 'gap',
  mark: 'mark',
};

/** The design with one more line, and the mechanism that has it. */
export function withLine(
  design: Design,
  ground: Ground,
  role: OwnRole,
  way: { readonly from: Spot; readonly to: Spot } | { readonly corners: readonly Spot[]; readonly closed?: boolean },
): { readonly design: Design; readonly id: string } {
  const start =
    ground.id === null
      ? addMechanism(
          design,
          OWN_LINES,
          'crease' in ground.on ? { on: ground.on.crease } : { on: ground.on.facet, mount: CENTRE },
          { numbers: [], lines: [] },
        )
      : { design, id: ground.id };
  const m = start.design.mechanisms.find((x) => x.id === start.id)!;
  const lines = linesOf(valuesOf(m));
  const line: OwnLine = { name: freeName(lines, STEMS[role]), role, ...way };
  return { id: start.id, design: setParameter(start.design, start.id, 'lines', [...lines, line]) };
}
