/** A card from a template of cut and fold lines. */
import { basename } from 'node:path';
import { withTemplate, type PieceStock } from '../core/build/bring';
import { buildAssembly } from '../core/build/build';
import { keptOf, sheetsNamed, templateLines } from '../core/build/template';
import { proposeJoins, roleChoices, settleJoins, type Proposal } from '../core/build/template-proposals';
import { waterfallIn, withWaterfall, type FoundWaterfall } from '../core/build/template-waterfall';
import { severingIn } from '../core/build/template-severing';
import { blankDesign, type Design } from '../core/document/design';
import { designText } from '../core/document/design-text';
import { checkDesign, readJoins } from '../core/document/schema';
import type { Template } from '../core/document/template';
import { readTemplate } from '../core/formats/template-read';
import { findFaults, isCrease } from '../core/pattern/mending';
import { TEMPLATE_ROLES, type TemplateRole } from '../core/pattern/pattern';
import { insidePoint } from '../core/plane/polygon';
import type { Vec2 } from '../core/plane/vec2';
import { readArguments, readNumber, readStock, readText, UsageError, writeFile, type Verb } from './arguments';

export const bring: Verb = (args) => {
  const {
    files: [from, out, ...more],
    options,
    many,
    flags,
  } = readArguments(args, {
    ...{ scale: 'one', role: 'many', gutter: 'one', mend: 'flag', joins: 'one', folds: 'one' },
    ...{ name: 'many', piece: 'many', as: 'one' },
  });
  if (more.length > 0 || out === undefined)
    throw new UsageError('bring FROM.svg|FROM.dxf OUT writes a card from a template; give both files');
  const read = readTemplate(readText(from, 'an SVG or DXF file'), from);
  const chosen = new Map(
    many.role.map((pair) => {
      const [key, role] = [pair.slice(0, pair.lastIndexOf('=')), pair.slice(pair.lastIndexOf('=') + 1)];
      if (!(TEMPLATE_ROLES as readonly string[]).includes(role))
        throw new UsageError(
          `--role ${pair.slice(0, 40)}: it must be LAYER=ROLE or ID=ROLE with a role of ${TEMPLATE_ROLES.join(', ')}`,
        );
      if (!read.groups.some((g) => g.key === key || g.layer === key) && !read.lines.some((l) => l.id === key))
        throw new UsageError(
          `--role ${pair.slice(0, 40)}: there is no layer or line "${key}"; layers are ` +
            `${[...new Set(read.groups.map((g) => g.layer))].join(', ')}`,
        );
      return [key, role as TemplateRole] as const;
    }),
  );
  const plain: Template = {
    name:
      basename(from)
        .replace(/\.\w+$/, '')
        .slice(0, 100) || 'Template',
    scale: readNumber(options.scale, 'scale', 0.001, 1000, 1),
    mended: flags.has('mend'),
    lead: options.gutter ?? null,
    lines: read.lines,
    groups: read.groups.map(({ key, layer, colour, dashed, role }) => ({
      key,
      layer,
      colour,
      dashed,
      role: chosen.get(key) ?? chosen.get(layer) ?? role,
    })),
    picked: Object.fromEntries(read.lines.flatMap((l) => (chosen.has(l.id) ? [[l.id, chosen.get(l.id)!]] : []))),
  };
  checkFolds(plain);
  const roles = roleChoices(plain);
  const folded = withFolds(plain, roles, options.folds);
  const offered = proposeJoins(folded);
  const template = withNames(withJoins(folded, offered, options.joins), many.name);
  const blank = blankDesign(template.name);
  const stocks = stocksAsked(blank, template, many.piece);
  const waterfall = waterfallIn(template);
  const design =
    options.as === undefined
      ? withTemplate(blank, template, stocks)
      : withWaterfall(blank, template, askedFor(options.as, waterfall), stocks);
  const checked = checkDesign(design);
  if (!checked.ok) throw new UsageError(checked.why);
  const assembly = buildAssembly(design);
  writeFile(out, designText(design));
  return {
    result: {
      file: out,
      groups: read.groups.map((g) => ({
        layer: g.layer,
        colour: g.colour,
        dashed: g.dashed,
        lines: g.count,
        role: chosen.get(g.key) ?? chosen.get(g.layer) ?? g.role,
      })),
      left_out: read.leftOut,
      pieces: assembly.pieces.map((p) => p.id),
      named: assembly.pieces.map(({ id, title, stock }) => ({ piece: id, name: title, stock })),
      creases: [...assembly.hosts.keys()],
      severing: severingIn(template, templateLines(template)).map((s) => ({
        lines: s.lines,
        long_mm: s.longMm,
        may_fold: s.mayFold,
      })),
      faults: findFaults(templateLines({ ...template, mended: false })),
      faults_left: findFaults(templateLines(template)).length,
      joins: template.joins ?? [],
      kept: keptOf(template).map(({ line, what, acrossMm }) => ({ line, what, across_mm: acrossMm })),
      offered: { joins: offered, folds: roles, waterfall },
    },
  };
};

/** What the pieces are parts of, where that is what was asked for. Throws UsageError. */
function askedFor(kind: string, found: FoundWaterfall | null): FoundWaterfall {
  if (kind !== 'waterfall') throw new UsageError(`--as ${kind.slice(0, 40)}: pieces can be made a waterfall`);
  if (!found)
    throw new UsageError('--as waterfall: it has two or more panels of one size, and a belt with even folds across it');
  return found;
}

/** A drawing without a fold, whose folds may be among its cuts: told by their ids. Throws UsageError. */
function checkFolds(t: Template): void {
  const lines = templateLines(t);
  const severing = lines.some(isCrease) ? [] : severingIn(t, lines).filter((s) => s.mayFold);
  if (severing.length === 0) return;
  const ids = severing.map((s) => s.lines.slice(0, MOST_TOLD).join(', ')).slice(0, MOST_TOLD);
  throw new UsageError(
    `there is nothing to open: no line is a fold, and these run from edge to edge, so that they would cut a piece in ` +
      `two: ${ids.join('; ')}; ` +
      'say what they are by --role ID=valley, ID=mountain or ID=cut',
  );
}
const MOST_TOLD = 12;

/** A piece of a template that an option names, and what it says of it. Throws UsageError. */
function ofPiece(t: Template, option: string, text: string): { readonly at: Vec2; readonly said: string } {
  const at = text.indexOf('=');
  const sheets = sheetsNamed({ ...t, scale: 1 });
  const found = sheets.find(({ id }) => id === text.slice(0, at));
  if (!found || at + 1 === text.length)
    throw new UsageError(
      `--${option} is "${text.slice(0, 60)}"; it must be PIECE=… of one of ${sheets.map((s) => s.id).join(', ')}`,
    );
  return { at: insidePoint(found.sheet.rest), said: text.slice(at + 1) };
}
const withNames = (t: Template, names: readonly string[]): Template => {
  const pieces = names.map((text) => ofPiece(t, 'name', text)).map(({ at, said }) => ({ at, name: said }));
  return pieces.length > 0 ? { ...t, pieces } : t;
};
const stocksAsked = (design: Design, t: Template, pieces: readonly string[]): PieceStock[] =>
  pieces
    .map((text) => ofPiece(t, 'piece', text))
    .map(({ at, said }) => ({ at, stock: readStock(design, said, 'piece') }));

/** One of the choices of roles that fold flat, counted from 1. */
function withFolds(t: Template, roles: ReturnType<typeof roleChoices>, asked: string | undefined): Template {
  if (asked === undefined) return t;
  const k = readNumber(asked, 'folds', 1, 1000, 1);
  if (!Number.isInteger(k) || !roles[k - 1])
    throw new UsageError(`--folds ${asked}: choices of roles that fold flat here are ${roles.length}`);
  return { ...t, picked: { ...t.picked, ...roles[k - 1] } };
}

/** Joins as a file has them, or all that is offered as far as the card then opens. */
function withJoins(t: Template, offered: readonly Proposal[], asked: string | undefined): Template {
  if (asked === undefined) return t;
  if (asked === 'all') return { ...t, joins: settleJoins(t, offered) };
  const read = readJoins(readText(asked, 'a list of joins, or the word all'));
  if (!read.ok) throw new UsageError(`${asked}: ${read.why}`);
  return { ...t, joins: read.joins };
}
