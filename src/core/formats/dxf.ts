/** DXF (ASCII) in millimetres: one layer per role, folds with their line types. */
import { DxfWriter, LWPolylineFlags, SplineFlags, Units, point2d, point3d, type vec3_t } from '@tarikjabiri/dxf';
import { TEMPLATE_ROLES } from '../pattern/pattern';
import { bezierOf, type Stroke } from '../plane/arcs';
import type { Vec2 } from '../plane/vec2';
import { WRITTEN_BY } from '../version';
import { ROLE_STYLE, walkPlate, type Plate } from '../sheets/plate';

export function toDxf(plate: Plate): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const role of TEMPLATE_ROLES) {
    const { dashMm, dxfColour } = ROLE_STYLE[role === 'perforation-mountain' ? 'perforation' : role];
    const lineType = dashMm.length > 0 ? role.toUpperCase() : 'Continuous';
    // Pen down is positive, pen up negative.
    if (dashMm.length > 0)
      dxf.addLType(
        lineType,
        role,
        dashMm.map((d, i) => (i % 2 === 0 ? d : -d)),
      );
    dxf.addLayer(role, dxfColour, lineType);
  }
  return walkPlate(plate, {
    line(role, { points, closed, strokes }, { fold }) {
      const layerName = fold === 'mountain' ? 'perforation-mountain' : role;
      if (strokes.length === 1 && strokes[0].kind === 'line') {
        dxf.addLine(point3d(...points[0]), point3d(...points[1]), { layerName });
        return;
      }
      if (strokes.some((s) => s.kind === 'cubic')) {
        dxf.addSpline(
          { ...splineOf(points[0], strokes), flags: closed ? CLOSED_SPLINE : SplineFlags.Planar },
          { layerName },
        );
        return;
      }
      // A vertex carries the bulge of the stroke that leaves it: the tangent of a quarter of the angle it sweeps.
      const corners = [points[0], ...strokes.map((s) => s.to)].slice(0, closed ? -1 : undefined);
      const bulges = strokes.map((s) => (s.kind === 'arc' ? Math.tan(s.sweepRad / 4) : undefined));
      dxf.addLWPolyline(
        corners.map(([x, y], k) => ({ point: point2d(x, y), ...(bulges[k] ? { bulge: bulges[k] } : {}) })),
        { layerName, flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None },
      );
    },
    // Group 999 is a comment, and may stand before everything else.
    finish: () => `999\n${WRITTEN_BY}\n${dxf.stringify()}`,
  });
}

const CLOSED_SPLINE = SplineFlags.Planar | SplineFlags.Closed;

/**
 * One cubic B-spline through Bézier curves laid end to end: every end is a knot three times over, which lets the curve
 * have a corner there. Straight strokes stay straight.
 */
function splineOf(from: Vec2, strokes: readonly Stroke[]): { controlPoints: vec3_t[]; knots: number[] } {
  const curves: (readonly Vec2[])[] = [];
  let at = from;
  for (const s of strokes) {
    curves.push(...bezierOf(at, s));
    at = s.to;
  }
  const ends = Array.from({ length: curves.length + 1 }, (_, k) => k);
  return {
    controlPoints: [from, ...curves.flat()].map(([x, y]) => point3d(x, y)),
    knots: [0, ...ends.flatMap((k) => [k, k, k]), curves.length],
  };
}
