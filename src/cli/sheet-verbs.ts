/** Verbs for the bench: layouts, what a cutter makes of a file, the booklet, everything in one archive. */
import type { Assembly } from '../core/assembly/assembly';
import { buildAssembly } from '../core/build/build';
import type { Design } from '../core/document/design';
import { lyingAcross } from '../core/document/grain';
import { checkDesign } from '../core/document/schema';
import { readProfile } from '../core/document/profile';
import { toBooklet } from '../core/formats/booklet';
import { toBundle } from '../core/formats/bundle';
import { DEFAULT_MACHINE, type MachineProfile } from '../core/paper/machine';
import { polygonArea } from '../core/plane/polygon';
import { layOnBeds } from '../core/sheets/beds';
import { layingOut } from '../core/sheets/lay-out';
import { paperOnSheet, type Layout, type PlacedPiece } from '../core/sheets/layout';
import { CutFileError } from '../core/simulate/cut-file';
import { readCutFile } from '../core/simulate/read';
import { simulate } from '../core/simulate/simulate';
import type { Spot } from '../core/simulate/report';
import { ShapeError } from '../core/shapes/shape';
import { readArguments, readDesignFile, readNumber, readText, UsageError, writeFile, type Verb } from './arguments';

/** A layout is searched for this long unless it is said otherwise, s. */
const SEARCH_S = 2;

export const sheets: Verb = (args) => {
  const { files, options, many } = readArguments(args, { seconds: 'one', seed: 'one', turn: 'many' });
  const seconds = readNumber(options.seconds, 'seconds', 0, 3600, SEARCH_S);
  const designs = readDesigns(files);
  const seed = options.seed === undefined ? undefined : readNumber(options.seed, 'seed', 1, 1e6, 1, true);
  const [first, ...guests] = designs.map((design) => seeded(design, seed));
  const cards = [turning(first, many.turn), ...guests].map((design) => ({ design, assembly: buildAssembly(design) }));
  // Whatever was put by hand and is locked stays; the rest is laid anew where there is time for it.
  const search = layingOut(cards, seconds > 0);
  const until = Date.now() + 1000 * seconds;
  let found = search.next().value as Layout;
  while (Date.now() < until) {
    const { value, done } = search.next();
    if (done) break;
    found = value;
  }
  checkTurned(found, many.turn);
  return { result: tellLayout(found, cards[0].design) };
};

/** One card, or several that share their sheets. */
const readDesigns = (files: readonly string[]): Design[] =>
  files.length > 1 ? files.map((file) => readDesignFile([file])) : [readDesignFile(files)];

const seeded = (design: Design, seed: number | undefined): Design =>
  seed === undefined ? design : { ...design, sheets: { ...design.sheets, seed } };

/** With pieces that may lie across the grain: the first card says so for its guests too. Throws UsageError. */
function turning(design: Design, pieces: readonly string[]): Design {
  const turned = pieces.reduce((d, piece) => lyingAcross(d, piece, true), design);
  const checked = checkDesign(turned);
  if (!checked.ok) throw new UsageError(`--turn: ${checked.why}`);
  return turned;
}

function checkTurned({ sheets: laid, unplaced }: Layout, pieces: readonly string[]): void {
  const known = new Set([...laid.flatMap((s) => s.placed), ...unplaced].map((p) => p.drawing.id));
  const missing = pieces.find((id) => !known.has(id));
  if (missing !== undefined)
    throw new UsageError(`--turn ${missing.slice(0, 60)}: no piece has that id; there are ${[...known].join(', ')}`);
}

function tellLayout(layout: Layout, { sheets: { bed } }: Design): object {
  const beds = bed && layOnBeds(layout, bed);
  const number = (slot: string): number => layout.sheets.findIndex((s) => s.slot === slot) + 1;
  return {
    rounds: layout.rounds,
    price: layout.price,
    sheets: layout.sheets.map((s, k) => ({
      sheet: k + 1,
      from: s.slot,
      stock: s.stock.name,
      colour: s.colour,
      offcut: s.offcut,
      price: s.price,
      width_mm: s.widthMm,
      height_mm: s.heightMm,
      used_pct: s.usePercent,
      left: { width_mm: s.left.widthMm, height_mm: s.left.heightMm },
      pieces: s.placed.map(tellPiece),
    })),
    refused_for_grain: layout.refused.map(({ drawing, offcut }) => ({
      piece: drawing.id,
      offcut: offcut.slot,
      width_mm: offcut.widthMm,
      height_mm: offcut.heightMm,
    })),
    unplaced: layout.unplaced.map(({ drawing, copy, why }) => ({ piece: drawing.id, copy, why })),
    ...(beds
      ? {
          beds: beds.beds.map((b) => ({
            width_mm: b.widthMm,
            height_mm: b.heightMm,
            sheets: b.sheets.map(({ sheet, x, y, turned = false }) => ({ sheet: number(sheet.slot), x, y, turned })),
          })),
          not_on_a_bed: beds.tooLarge.map((s) => number(s.slot)),
        }
      : {}),
  };
}

/** A piece of several parts has them all, the largest as its outline. */
function tellPiece(p: PlacedPiece): object {
  const parts = [...paperOnSheet(p)].sort((a, b) => polygonArea(b) - polygonArea(a));
  const told = parts.map(({ outer, holes }) => ({ outline: outer, holes }));
  return {
    piece: p.drawing.id,
    copy: p.copy,
    x: p.x,
    y: p.y,
    turn_deg: p.turnDeg,
    locked: p.locked,
    across_grain: p.acrossGrain,
    ...told[0],
    ...(told.length > 1 ? { parts: told } : {}),
  };
}

export const cut: Verb = (args) => {
  const { files, options } = readArguments(args, { profile: 'one', against: 'one' });
  if (files.length !== 1) throw new UsageError('cut PATH [--profile FILE] [--against DRAWING] reads one file to cut');
  const profile = readMachine(options.profile);
  const file = cutFile(files[0]);
  const against = options.against === undefined ? null : cutFile(options.against);
  const r = simulate(file, profile, against);
  const spots = (all: readonly Spot[]): object[] => all.map(({ at, mm }) => ({ at, mm }));
  return {
    result: {
      machine: profile.name,
      seconds: r.seconds,
      estimate_seconds: r.estimateS,
      length_mm: r.lengthMm,
      passes: r.passes.map(({ tool, pass, lengthMm, strokes }) => ({ tool, pass, length_mm: lengthMm, strokes })),
      freed: r.freed.map(({ outline, holes, areaMm2 }) => ({ outline, holes, area_mm2: areaMm2 })),
      left_uncut: spots(r.leftUncut),
      loose_early: spots(r.looseEarly),
      cut_twice: spots(r.cutTwice),
      unscored: spots(r.unscored),
      cut_through: spots(r.cutThrough),
      strayed: spots(r.strayed),
      tight_curves: r.tightCurves.map(({ at, radiusMm }) => ({ at, radius_mm: radiusMm })),
      skipped: r.skipped,
    },
  };
};

function cutFile(path: string) {
  try {
    return readCutFile(readText(path, 'a cut file'), path);
  } catch (error) {
    if (error instanceof CutFileError || error instanceof ShapeError) throw new UsageError(`${path}: ${error.message}`);
    throw error;
  }
}

/** The profile of a file, or that which cuts lines as they are drawn. */
export function readMachine(path: string | undefined): MachineProfile {
  if (path === undefined) return DEFAULT_MACHINE;
  const read = readProfile(readText(path, 'a machine profile'));
  if (!read.ok) throw new UsageError(`${path}: ${read.why}`);
  return read.profile;
}

export const booklet: Verb = async (args) =>
  written(args, 'booklet', 'X.pdf', (design, assembly, guests) => {
    if (guests.length > 0) throw new UsageError('a booklet is of one card; give one file');
    return toBooklet(design, assembly);
  });
export const bundle: Verb = async (args) => written(args, 'bundle', 'X.zip', toBundle);

async function written(
  args: readonly string[],
  verb: string,
  example: string,
  make: (design: Design, assembly: Assembly, guests: readonly Design[]) => Promise<Uint8Array>,
): Promise<{ result: unknown }> {
  const { files, options } = readArguments(args, { out: 'one' });
  if (options.out === undefined) throw new UsageError(`--out is missing; ${verb} FILE --out ${example} names the file`);
  const [design, ...guests] = readDesigns(files);
  const bytes = await make(design, buildAssembly(design), guests);
  writeFile(options.out, bytes);
  return { result: { file: options.out, bytes: bytes.length } };
}
