/** A shape that is put into a field brings its size along: width, height and the height beside it are one truth. */
import { lastKey } from '../ids';
import { regionBox } from '../plane/polygon';
import { outlineOf } from '../shapes/outline';
import { ShapeError, type Shape } from '../shapes/shape';
import type { ListItem, Parameter, ParameterValue, ParameterValues } from '../kinds';
import { SIZE_ROUNDING_MM } from '../tolerance';
import { shelfOf, type Design } from './design';
import { kindIn, parametersOf, setParameter } from './fields';

/** Height of a shape as it is drawn, mm; null where it cannot be drawn here. */
function drawnHeight(shape: Shape, design: Design): number | null {
  try {
    const { min, max } = regionBox(outlineOf(shape, shelfOf(design)));
    const mm = Math.round((max[1] - min[1]) / SIZE_ROUNDING_MM) * SIZE_ROUNDING_MM;
    return Number(mm.toFixed(4));
  } catch (error) {
    if (error instanceof ShapeError) return null;
    throw error;
  }
}

/**
 * A shape that was typed or brought in goes into a field: the number that is its height becomes what it is drawn, and a
 * width that would stretch it goes.
 * @param path of the field, as `planes[0].shape`
 */
export function putShape(design: Design, mechanism: string, path: string, shape: Shape): Design {
  const beside = path.slice(0, path.length - lastKey(path).length);
  const field = fieldAt(parametersOf(kindIn(design, mechanism) ?? ''), path);
  let next = setParameter(design, mechanism, path, shape);
  const height = field?.highAs && drawnHeight(shape, design);
  if (field?.highAs && height) next = setParameter(next, mechanism, `${beside}${field.highAs}`, height);
  return field?.wideAs ? setParameter(next, mechanism, `${beside}${field.wideAs}`, null) : next;
}

/** One chosen from the shelf is scaled to the numbers there are; one whose own numbers were typed brings them along. */
export const chooseShape = (design: Design, mechanism: string, path: string, shape: Shape | null): Design =>
  shape === null || 'asset' in shape
    ? setParameter(design, mechanism, path, shape)
    : putShape(design, mechanism, path, shape);

function fieldAt(parameters: readonly Parameter[], path: string): Parameter | undefined {
  const [, list] = /^(\w+)\[/.exec(path) ?? [];
  const among = list === undefined ? parameters : parameters.find((p) => p.key === list)?.fields;
  return among?.find((p) => p.key === lastKey(path));
}

/** Values as they were given, and with each shape that has a size of its own the height nobody gave. */
export function withHeights(parameters: readonly Parameter[], given: ParameterValues, design: Design): ParameterValues {
  const highs = parameters.flatMap(({ key, highAs, unit, fields }): [string, ParameterValue][] => {
    const value = given[key];
    if (unit === 'list' && fields && Array.isArray(value))
      return [[key, value.map((item) => withHeights(fields, item as ListItem, design) as ListItem)]];
    const isTold = !highAs || given[highAs] !== undefined || typeof value !== 'object' || value === null;
    const height = isTold ? null : drawnHeight(value as Shape, design);
    return height === null ? [] : [[highAs!, height]];
  });
  return highs.length === 0 ? given : { ...given, ...Object.fromEntries(highs) };
}
