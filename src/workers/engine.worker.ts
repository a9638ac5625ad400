/** The core, behind a worker. One engine serves one purpose (see client.ts), so a proof never stands before a pose. */
import { betweenStates, fromJoint, OPENING, openTo, restOf, stateIn, travelStates } from '@/core/drives';
import { expose, releaseProxy } from 'comlink';
import type { Assembly } from '@/core/assembly/assembly';
import { allMeasures, foldDeg, poseAt } from '@/core/assembly/pose';
import { exportDesign } from '@/core/formats/export';
import { sentPicture } from '@/core/formats/cover';
import { stopPictures } from '@/core/formats/stops';
import { drawPicture } from '@/core/formats/picture';
import { readTemplate } from '@/core/formats/template-read';
import { findFaults } from '@/core/pattern/mending';
import { applyRigid, unit3 } from '@/core/linkage';
import { regionBox, ringsOf, type Region } from '@/core/plane/polygon';
import { withTemplate } from '@/core/build/bring';
import { keptOf, templateLines } from '@/core/build/template';
import { proposeJoins, roleChoices, settleJoins } from '@/core/build/template-proposals';
import { sheetsOf } from '@/core/build/template-sheets';
import { measureOver, outlineFigures, planeOutlines, strutSheet, workedShape } from '@/core/build/workshop';
import { fontShelved, fontsNamed, provideFont } from '@/core/shapes/fonts';
import { standing } from '@/core/shapes/outline';
import { pathDataOf } from '@/core/shapes/path-data';
import { readSvg, shapeOfSvg } from '@/core/shapes/svg-read';
import { letters } from '@/core/shapes/text';
import { traceShape } from '@/core/shapes/trace';
import { dimensionsOf } from '@/core/build/dimensions';
import { gripsOf } from '@/core/build/grips';
import { gripLimits } from '@/core/proof/grip-limits';
import { ghostOf, posedGripsOf } from '@/core/build/posed-grips';
import { ownHoldOf } from '@/core/build/own-ends';
import { ownRoleChoices } from '@/core/build/own-roles';
import { turnedPlain } from '@/core/build/plain';
import { snapsOf } from '@/core/build/snaps';
import { buildAssembly } from '@/core/build/build';
import { blankDesign, type Design } from '@/core/document/design';
import { listedCard } from '@/core/document/listed';
import { checkTemplate } from '@/core/document/schema';
import { gather, provingSteps, seek } from '@/core/proof/prove';
import { roomOf } from '@/core/proof/room';
import { workOf } from '@/core/build/steps';
import { statesOf } from '@/core/document/states';
import { whatIf } from '@/core/proof/what-if';
import { searchSlabs, withValues } from '@/core/decide/target';
import { judged } from '@/core/decide/map';
import { wearOf } from '@/core/decide/wear';
import { closedStack } from '@/core/rules';
import { cutList } from '@/core/sheets/cutlist';
import { layOnBeds } from '@/core/sheets/beds';
import type { Layout } from '@/core/sheets/layout';
import { batchesOf, type CardOnSheets } from '@/core/sheets/slots';
import { STRIP_TEXT } from '@/core/sheets/test-strip';
import { toBooklet } from '@/core/formats/booklet';
import { toBundle } from '@/core/formats/bundle';
import { stepPicture } from '@/core/formats/step-picture';
import { beginCut, beginFile, cutOn } from './cutter';
import { judgeNow, makeMap, makeStudy } from './decide';
import { makeFilm, makeStill } from './film';
import { inHand, layoutNow, search, together, troublesOf } from './sheet-jobs';
import {
  UNKNOWN_REVISION,
  WITHOUT_DESIGN,
  type Answer,
  type Brought,
  type Engine,
  type Laid,
  type Sent,
} from './protocol';
import { HeldDesigns } from './revisions';
import { sceneOf } from './scene';

/** A walk that takes longer is given up where it is, and the pose says so. */
const LONGEST_WALK_MS = 60_000;
/** A walk tells how far it is this often, ms. */
const ON_WAY_EVERY_MS = 250;

/** The newest design's assembly is kept: scrubbing asks for many poses of one design. */
let kept: { design: Design; assembly: Assembly } | null = null;
async function assemblyOf(design: Design, onWay: (openDeg: number) => void = () => undefined): Promise<Assembly> {
  if (kept?.design !== design) {
    await fontsFor(design);
    kept = { design, assembly: buildAssembly(design) };
  }
  const { assembly } = kept;
  // Each question has its own time, counted from when it is asked.
  const began = performance.now();
  let said = began;
  assembly.travel.watch = (drive, lead) => {
    const now = performance.now();
    if (now - said > ON_WAY_EVERY_MS) {
      said = now;
      if (lead === 0) onWay(fromJoint(OPENING, drive));
    }
    return now - began < LONGEST_WALK_MS;
  };
  return assembly;
}

/** Fonts that a design or shape sets text in are fetched once each. */
async function fontsFor(value: unknown): Promise<void> {
  await Promise.all(
    fontsNamed(value)
      .filter((id) => !fontShelved(id))
      .map(async (id) => {
        const response = await fetch(`/fonts/${id}`);
        if (!response.ok) throw new Error(`Font ${id} could not be loaded.`);
        provideFont(id, await response.arrayBuffer());
      }),
  );
}

async function answer<T>(work: () => T | Promise<T>): Promise<Answer<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    return { ok: false, why: (error as Error).message };
  }
}

/** A part that is taken hold of is led along so many pieces of its way. */
const WAY_STEPS = 96;

/** Lets messages in, so that a newer request can end an older one. */
const breathe = (): Promise<void> => new Promise((done) => setTimeout(done, 0));
const latest = { prove: 0, rooms: 0, whatIf: 0, nest: 0 };

/** The card, put together, and those that share its sheets. */
async function onSheets(design: Design, guests: readonly Design[]): Promise<readonly CardOnSheets[]> {
  await fontsFor(guests);
  const key = keyOf(design, guests);
  if (shared?.key !== key) shared = { key, cards: together(design, await assemblyOf(design), guests) };
  return shared.cards;
}
let shared: { readonly key: string; readonly cards: readonly CardOnSheets[] } | null = null;
/** Designs stay the same objects while they are not changed; guests are told apart by what they are. */
const keyOf = (design: Design, guests: readonly Design[]): string => {
  if (!numbers.has(design)) numbers.set(design, ++counted);
  return `${numbers.get(design)} ${guests.map((g) => JSON.stringify(g)).join()}`;
};
const numbers = new WeakMap<Design, number>();
let counted = 0;

function laid(design: Design, layout: Layout): Laid {
  const { bed } = design.sheets;
  return { layout, beds: bed ? layOnBeds(layout, bed) : null, troubles: troublesOf(design, layout) };
}

/** Answers from the design alone, once its fonts are there. */
const withFonts = <T>(design: Design, work: () => T): Promise<Answer<T>> =>
  answer(async () => {
    await fontsFor(design);
    return work();
  });

const withFontsLater = <T>(design: Design, work: () => Promise<T>): Promise<Answer<T>> =>
  answer(async () => {
    await fontsFor(design);
    return work();
  });

const engine: Engine = {
  check: (value) => answer(() => listedCard(value)),
  load: (design) => answer(async () => sceneOf(design, await assemblyOf(design))),

  pose: (design, state, onWay) =>
    answer(async () => {
      const assembly = await assemblyOf(design, onWay);
      const pose = poseAt(assembly, state);
      const placed = new Float64Array(12 * pose.placed.length);
      pose.placed.forEach((m, i) => placed.set(m, 12 * i));
      const closed = poseAt(assembly, restOf(assembly.drives));
      return {
        state: pose.state,
        placed,
        foldDeg: Float64Array.from(assembly.creases, (c) => foldDeg(pose, c)),
        measures: allMeasures(assembly, pose, closed.stop ? null : closed),
        stopped: pose.stop !== undefined,
        flexMm: pose.flexMm,
      };
    }),

  way: (design, state, id, facet, at) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      const drive = assembly.drives.find((d) => d.id === id);
      if (!drive || !assembly.facets[facet]) return { values: [], places: [] };
      const poses = travelStates(drive, WAY_STEPS, state)
        .map((s) => poseAt(assembly, s))
        .filter((p) => !p.stop);
      return {
        values: poses.map((p) => p.state[id]),
        places: poses.map((p) => applyRigid(p.placed[facet], at)),
      };
    }),

  async prove(design, steps, onPart) {
    const mine = ++latest.prove;
    try {
      await fontsFor(design);
      const proving = provingSteps(design, steps);
      for (let shown = 0; ;) {
        const { value, done } = proving.next();
        if (mine !== latest.prove) return { ok: true, value: null };
        // Every part is whole; more than some ten a second would only keep the interface busy.
        if (done || performance.now() - shown > 80) {
          onPart(value, done === true);
          shown = performance.now();
        }
        if (done) return { ok: true, value };
        await breathe();
      }
    } catch (error) {
      return { ok: false, why: (error as Error).message };
    }
  },

  seek: (design, finding, known, steps) =>
    answer(async () => {
      await fontsFor(design);
      return seek(design, finding, known, steps);
    }),

  grips: (design, id) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      const grips = gripsOf(design, id, assembly);
      return { grips, own: ownHoldOf(design, id), dimensions: dimensionsOf(design, assembly, grips) };
    }),
  still: (design, state, choice, from) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      const look = from ? { from: unit3(from) } : {};
      return makeStill(drawPicture(design, assembly, poseAt(assembly, state), look), choice);
    }),
  film: (design, { view, ...choice }, onFrame) =>
    answer(async () => {
      const seen = view ? { view: unit3(view) } : {};
      return makeFilm(design, await assemblyOf(design), { ...choice, ...seen }, breathe, onFrame);
    }),
  posedGrips: (design, state, facet, at) =>
    answer(async () => posedGripsOf(design, await assemblyOf(design), state, facet, at)),
  ghost: (design, state, id) => answer(async () => ghostOf(await assemblyOf(design), state, id)),
  study: (design, ask, onMore) => withFontsLater(design, () => makeStudy(design, ask, breathe, onMore)),
  slabs: (design, ask, slabs, onPart) => withFonts(design, () => searchSlabs(design, ask, slabs, onPart)),
  map: (design, ask, onMore) => withFontsLater(design, () => makeMap(design, ask, breathe, onMore)),
  place: (design, { x, y, measure }, at) => withFonts(design, () => judged(withValues(design, [x, y], at), measure)),
  wear: (design) => withFonts(design, () => wearOf(design)),
  judge: (design, state) => withFonts(design, () => judgeNow(design, state)),
  limits: (design, grip) => withFonts(design, () => gripLimits(design, grip)),
  snaps: (design, grip, line) => answer(async () => snapsOf(design, await assemblyOf(design), grip, grip.lines[line])),
  plain: (design, id) => withFonts(design, () => turnedPlain(design, id)),
  ownRoles: (design, id) => withFonts(design, () => ownRoleChoices(design, id)),

  async rooms(design, mechanism, keys, onRoom) {
    const mine = ++latest.rooms;
    await fontsFor(design);
    for (const key of keys) {
      await breathe();
      if (mine !== latest.rooms) break;
      const room = await answer(() => roomOf(design, mechanism, key));
      if (room.ok && room.value && mine === latest.rooms) onRoom(room.value);
    }
    return { ok: true, value: null };
  },

  async whatIf(design, mechanism, key, values, onPoint) {
    const mine = ++latest.whatIf;
    await fontsFor(design);
    for (const value of values) {
      await breathe();
      if (mine !== latest.whatIf) break;
      const point = await answer(() => whatIf(design, mechanism, key, value));
      if (point.ok && mine === latest.whatIf) onPoint(point.value);
    }
    return { ok: true, value: null };
  },

  picture: (design, state, from) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      return drawPicture(design, assembly, poseAt(assembly, state), from && { from: unit3(from) });
    }),
  stops: (design, id) => answer(async () => stopPictures(design, await assemblyOf(design), id)),
  cover: (design) => answer(async () => sentPicture(design, await assemblyOf(design))),
  moving: (design, parts, openDeg) =>
    answer(async () => {
      await fontsFor(design);
      const assembly = buildAssembly(design);
      const [, ...hand] = assembly.drives;
      const from = { ...restOf(assembly.drives), ...(hand.length > 0 ? openTo(openDeg) : {}) };
      const moved = hand.length > 0 ? hand : assembly.drives;
      const to = { ...from, ...Object.fromEntries(moved.map((d) => [d.id, d.to])) };
      return parts.map((part) => drawPicture(design, assembly, poseAt(assembly, betweenStates(from, to, part))));
    }),

  thickness: (design) => answer(async () => closedStack(gather(design, 'closed', 0, await assemblyOf(design)))),
  layout: (design, guests) =>
    answer(async () => laid(design, layoutNow(keyOf(design, guests), await onSheets(design, guests)))),
  cutList: (design) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      const drawings = batchesOf([{ design, assembly }]).flatMap((b) => b.drawings);
      const outlines = Object.fromEntries(drawings.map((d) => [d.id, d.region.flatMap(ringsOf)]));
      return { rows: cutList(design, assembly), outlines };
    }),
  async nest(design, guests, seconds, onRound) {
    const mine = ++latest.nest;
    return answer(async () => {
      const cards = await onSheets(design, guests);
      const tell = (layout: Layout, part: number): void => {
        if (mine === latest.nest) onRound(laid(design, layout), part);
      };
      return laid(design, await search(cards, seconds, () => mine === latest.nest, breathe, tell));
    });
  },
  stopNest: () => {
    latest.nest++;
    return answer(() => null);
  },
  held: (design, guests, piece) =>
    answer(async () => inHand(keyOf(design, guests), await onSheets(design, guests), piece)),
  beginCut: (design, what, machine) =>
    answer(async () => {
      if (what.strip) await fontsFor(STRIP_TEXT);
      return beginCut(design, await assemblyOf(design), what, machine);
    }),
  beginFile: (text, name, machine) => answer(() => beginFile(text, name, machine)),
  cutOn: (seconds) => answer(() => cutOn(seconds)),
  named: (design) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      return statesOf(design).map((named) => {
        const pose = poseAt(assembly, stateIn(assembly.drives, named));
        return { id: named.id, name: named.name, picture: drawPicture(design, assembly, pose) };
      });
    }),
  steps: (design) =>
    answer(async () => {
      const { steps, rings } = workOf(design, await assemblyOf(design));
      return { steps: steps.map((step) => ({ step, ...stepPicture(design, step) })), rings };
    }),
  booklet: (design) => answer(async () => toBooklet(design, await assemblyOf(design))),
  bundle: (design, guests, onFile) =>
    answer(async () => {
      await fontsFor([STRIP_TEXT, guests]);
      let count = 0;
      return toBundle(design, await assemblyOf(design), guests, async (path) => {
        onFile(path, ++count);
        await breathe();
      });
    }),

  outline: (design, shape) =>
    answer(async () => {
      await fontsFor([shape, design.shapes]);
      return outlineFigures(design, shape);
    }),
  worked: (design, asset, steps) =>
    answer(async () => {
      await fontsFor([asset, design.shapes]);
      return workedShape(design, asset, steps);
    }),
  struts: (design, id) =>
    answer(async () => {
      await fontsFor(design);
      return strutSheet(design, id);
    }),
  planes: (design, id) =>
    answer(async () => {
      await fontsFor(design);
      return planeOutlines(design, id);
    }),
  over: (design, id, measure) => answer(async () => measureOver(await assemblyOf(design), id, measure)),
  bringSvg: (text) =>
    answer(() => {
      const drawing = readSvg(text);
      return brought(shapeOfSvg(drawing), drawing.leftOut);
    }),
  trace: (raster, wishes) => answer(() => brought(traceShape(raster, wishes), [])),
  letters: (text) =>
    answer(async () => {
      await fontsFor({ text });
      return letters(text).map(({ letter, region }) => {
        const { min, max } = regionBox(region);
        return { letter, path: pathDataOf(region), x: (min[0] + max[0]) / 2 };
      });
    }),
  template: (text, name) => answer(() => readTemplate(text, name)),
  bringTemplate: (design, template) =>
    answer(() => {
      const why = checkTemplate(template);
      if (why) throw new Error(`The template cannot be kept: ${why}`);
      return withTemplate(design, template);
    }),
  offers: (template) =>
    answer(() => ({
      sheets: sheetsOf(templateLines({ ...template, scale: 1 })).map((s) => s.outer),
      joins: proposeJoins(template),
      folds: roleChoices(template),
      kept: keptOf(template),
    })),
  settle: (template) => answer(() => settleJoins(template, proposeJoins(template))),
  faults: (template) =>
    answer(() => ({
      lines: templateLines(template),
      faults: findFaults(templateLines({ ...template, mended: false })),
    })),

  async export(design, choice) {
    try {
      if (choice.strip) await fontsFor(STRIP_TEXT);
      await fontsFor(choice.with ?? []);
      return { ok: true, value: await exportDesign(design, choice, await assemblyOf(design)) };
    } catch (error) {
      return { ok: false, why: (error as Error).message };
    }
  },
};

/** A region from elsewhere, centred on its foot: its middle on x = 0, its lowest point on y = 0. */
function brought(region: Region, leftOut: readonly string[]): Brought {
  const path = pathDataOf(standing(region, null));
  return { path, leftOut, outline: outlineFigures(blankDesign(''), { path, rule: 'nonzero' }) };
}

const designs = new HeldDesigns();
const without = new Set<string>(WITHOUT_DESIGN);

/** The job as it is asked for over the wire: its design by revision, its callbacks let go of when it is done. */
function wired(job: keyof Engine): (...args: unknown[]) => Promise<unknown> {
  const work = engine[job] as (...args: unknown[]) => Promise<unknown>;
  return async (...args) => {
    try {
      if (without.has(job)) return await work(...args);
      const design = designs.take(args[0] as Sent);
      if (!design) return { ok: false, why: UNKNOWN_REVISION };
      return await work(design, ...args.slice(1));
    } finally {
      for (const a of args) (a as { [releaseProxy]?: () => void } | null)?.[releaseProxy]?.();
    }
  };
}

expose({
  ...Object.fromEntries((Object.keys(engine) as (keyof Engine)[]).map((job) => [job, wired(job)])),
  hold: (lock: string) =>
    new Promise<boolean>((done) => {
      if (!navigator.locks) return done(false);
      void navigator.locks.request(lock, () => {
        done(true);
        return new Promise(() => undefined);
      });
    }),
});
