/** Exact basic outlines, centred on the origin unless said otherwise. mm, y up. */
import { mapRegion, rectangle, regionBox, unite, type Region, type Ring } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { arcPoints, ellipse } from './curve';
import { ROUNDING_MM } from '../tolerance';

const alone = (outer: Ring): Region => [{ outer, holes: [] }];

export const circleShape = (diameter: number): Region => alone(ellipse(diameter / 2, diameter / 2));
export const ellipseShape = (width: number, height: number): Region => alone(ellipse(width / 2, height / 2));

/** Corners are rounded by at most half the shorter side. */
export function rectShape(width: number, height: number, corner = 0): Region {
  const [w, h] = [width / 2, height / 2];
  const r = Math.min(corner, w, h);
  if (r <= 0) return alone(rectangle(-w, -h, w, h));
  const turn = Math.PI / 2;
  return alone(
    distinct(
      [
        [w - r, h - r, 0],
        [r - w, h - r, 1],
        [r - w, r - h, 2],
        [w - r, r - h, 3],
      ].flatMap(([x, y, k]) => arcPoints([x, y], r, r, k * turn, turn)),
    ),
  );
}

export const regularShape = (sides: number, diameter: number): Region =>
  alone(Array.from({ length: sides }, (_, k): Vec2 => polar(diameter / 2, Math.PI / 2 + (2 * Math.PI * k) / sides)));

/** `outer` and `inner` are diameters of the points and of the notches between them. */
export const starShape = (points: number, outer: number, inner: number): Region =>
  alone(
    Array.from({ length: 2 * points }, (_, k): Vec2 =>
      polar((k % 2 === 0 ? outer : inner) / 2, Math.PI / 2 + (Math.PI * k) / points),
    ),
  );

/** Part of a ring with straight ends; a full turn is a ring with a hole. */
export function arcShape(radius: number, width: number, fromDeg: number, toDeg: number): Region {
  const [inner, outer] = [Math.max(0, radius - width / 2), radius + width / 2];
  const from = (fromDeg * Math.PI) / 180;
  const turn =
    (((toDeg - fromDeg) % 360) + 360) % 360 === 0
      ? 2 * Math.PI
      : ((((toDeg - fromDeg) % 360) + 360) % 360) * (Math.PI / 180);
  if (turn >= 2 * Math.PI - 1e-12)
    return [{ outer: ellipse(outer, outer), holes: inner > 0 ? [[...ellipse(inner, inner)].reverse()] : [] }];
  const back: Vec2[] = inner > 0 ? arcPoints([0, 0], inner, inner, from + turn, -turn) : [[0, 0]];
  return alone([...arcPoints([0, 0], outer, outer, from, turn), ...back]);
}

/** Foot at y = 0; the half round is an ellipse where the height is less than half the width. */
export function archShape(width: number, height: number): Region {
  const r = width / 2;
  const rise = Math.min(r, height);
  return alone(distinct([[-r, 0], [r, 0], ...arcPoints([0, height - rise], r, rise, 0, Math.PI)]));
}

/** Round bumps along an ellipse, so that the whole is as wide and as high as asked. */
export function cloudShape(width: number, height: number, bumps: number): Region {
  const share = Math.PI / bumps;
  // A bump reaches half its chord past the ellipse that carries the bumps.
  const bump = (Math.min(width, height) / 2) * (Math.sin(share) / (1 + Math.sin(share)));
  const [rx, ry] = [width / 2 - bump, height / 2 - bump];
  const along = Array.from({ length: bumps }, (_, k) => (2 * Math.PI * k) / bumps);
  const round = along.map((t): Region =>
    alone(ellipse(bump * 1.15, bump * 1.15, [rx * Math.cos(t), ry * Math.sin(t)])),
  );
  const drawn = round.reduce<Region>((all, r) => unite(all, r), alone(ellipse(rx, ry)));
  return asLargeAs(drawn, width, height);
}

/** A region whose box is of a size exactly, its middle on the origin. */
function asLargeAs(region: Region, width: number, height: number): Region {
  const { min, max } = regionBox(region);
  const [cx, cy] = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  const [sx, sy] = [width / (max[0] - min[0]), height / (max[1] - min[1])];
  return mapRegion(region, ([x, y]): Vec2 => [(x - cx) * sx, (y - cy) * sy]);
}

const polar = (r: number, t: number): Vec2 => [r * Math.cos(t), r * Math.sin(t)];
const distinct = (ring: readonly Vec2[]): Ring =>
  ring.filter(
    (p, i) => Math.hypot(p[0] - ring[(i + 1) % ring.length][0], p[1] - ring[(i + 1) % ring.length][1]) > ROUNDING_MM,
  );
