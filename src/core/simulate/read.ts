/** Any plotted file as strokes: by its ending, else by how it begins. */
import { readTemplate } from '../formats/template-read';
import { PASSES, type Pass } from '../paper/machine';
import type { TemplateRole } from '../pattern/pattern';
import { CutFileError, LARGEST_CUT_FILE, type CutFile, type Stroke } from './cut-file';
import { readGcode } from './read-gcode';
import { readHpgl } from './read-hpgl';

export type CutLanguage = 'svg' | 'dxf' | 'hpgl' | 'gcode';

const ENDINGS: readonly (readonly [RegExp, CutLanguage])[] = [
  [/\.svg$/i, 'svg'],
  [/\.dxf$/i, 'dxf'],
  [/\.(plt|hpgl|hpg)$/i, 'hpgl'],
  [/\.(gcode|nc|ngc|tap|cnc)$/i, 'gcode'],
];
export function languageOf(text: string, name: string): CutLanguage {
  const known = ENDINGS.find(([ending]) => ending.test(name))?.[1];
  if (known) return known;
  if (/^\s*</.test(text)) return 'svg';
  if (/^\s*(0|999)\r?\n/.test(text)) return 'dxf';
  if (/^\s*(IN|DF|SP|PU|PD|PA)\b/i.test(text) || /^\s*IN;/i.test(text)) return 'hpgl';
  if (/^\s*[(%;GMTN]/i.test(text)) return 'gcode';
  throw new CutFileError(`${name || 'the file'} is no SVG, DXF, HP-GL or G-code`);
}

/** Throws CutFileError or ShapeError with what is wrong and where. */
export function readCutFile(text: string, name: string): CutFile {
  if (text.length > LARGEST_CUT_FILE)
    throw new CutFileError(
      `the file has ${Math.round(text.length / 1e6)} MB; at most ${LARGEST_CUT_FILE / 1e6} MB are read`,
    );
  if (text.includes('\0')) throw new CutFileError('the file is binary; a cut file is text');
  const language = languageOf(text, name);
  if (language === 'hpgl') return strokesIn(readHpgl(text));
  if (language === 'gcode') return strokesIn(readGcode(text));
  return strokesIn(linesAsStrokes(text, language));
}

function strokesIn(file: CutFile): CutFile {
  if (file.strokes.length === 0) throw new CutFileError('the file has nothing in it that is worked');
  return file;
}

const PASS_OF: Readonly<Partial<Record<TemplateRole, Pass>>> = {
  mark: 'pen',
  valley: 'score',
  mountain: 'score',
  perforation: 'perforate',
  'perforation-mountain': 'perforate',
  window: 'inner',
};

/** A drawing is worked pass by pass, in the order of the file within each. */
function linesAsStrokes(text: string, language: 'svg' | 'dxf'): CutFile {
  const { lines, groups, leftOut } = readTemplate(text, `x.${language}`);
  const role = new Map(groups.map((g) => [g.key, g.role]));
  const all = lines.flatMap(({ group, points, closed }): Stroke[] => {
    const said = role.get(group)!;
    const pass = said === 'cut' ? (closed ? 'outline' : 'inner') : PASS_OF[said];
    if (!pass) return [];
    return [{ tool: PASSES.indexOf(pass) + 1, pass, points: closed ? [...points, points[0]] : points }];
  });
  const strokes = PASSES.flatMap((pass) => all.filter((s) => s.pass === pass));
  return { strokes, plain: true, skipped: leftOut };
}
