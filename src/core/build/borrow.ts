/** Shapes of one card put on the shelf of another. */
import { assetsNamed, type ShapeAsset } from '../shapes/shape';
import type { Design } from '../document/design';
import { freeAssetId } from './workshop';

/**
 * `design` with a shape of another card on its shelf, still with its steps, and with every shape it is made of; and the
 * id it got. What is on the shelf already, alike in all but its id, is not put there twice. Throws Error where the
 * other card has no such shape.
 */
export function borrowShape(
  design: Design,
  from: Design,
  id: string,
): { readonly design: Design; readonly id: string } {
  const ids = new Map<string, string>();
  let next = design;
  const take = (wanted: string): string => {
    const known = ids.get(wanted);
    if (known) return known;
    const asset = from.shapes.find((s) => s.id === wanted);
    if (!asset) throw new Error(`${from.name} has no shape "${wanted}"`);
    // A shape that names itself is refused by the schema, so this ends.
    for (const part of assetsNamed(asset.source, asset.steps)) take(part);
    const { id: _own, ...rest } = renamed(asset, ids);
    const like = next.shapes.find(({ id: _other, ...other }) => JSON.stringify(other) === JSON.stringify(rest));
    const given = like?.id ?? freeAssetId(next, asset.name);
    ids.set(wanted, given);
    if (!like) next = { ...next, shapes: [...next.shapes, { id: given, ...rest }] };
    return given;
  };
  const given = take(id);
  return { design: next, id: given };
}

/** The asset with the shapes it names under their new ids. */
function renamed(asset: ShapeAsset, ids: ReadonlyMap<string, string>): ShapeAsset {
  return JSON.parse(JSON.stringify(asset), (key: string, value: unknown) =>
    key === 'asset' && typeof value === 'string' ? (ids.get(value) ?? value) : value,
  ) as ShapeAsset;
}
