/** The core, behind a worker. One engine serves one purpose (see client.ts), so a proof never stands before a pose. */
import { expose } from 'comlink';
import type { Assembly } from '@/core/assembly/assembly';
import { allMeasures, foldDeg, poseAt } from '@/core/assembly/pose';
import { exportDesign } from '@/core/formats/export';
import { drawPicture } from '@/core/formats/picture';
import { ringsOf } from '@/core/plane/polygon';
import { buildAssembly } from '@/core/project/build';
import { stockOf, type Design } from '@/core/project/design';
import { gather, provingSteps } from '@/core/project/prove';
import { roomOf } from '@/core/project/room';
import { onlyWith, workSteps } from '@/core/project/steps';
import { whatIf } from '@/core/project/what-if';
import { thicknessMap } from '@/core/rules';
import { cutList } from '@/core/sheets/cutlist';
import { layOut } from '@/core/sheets/pack';
import type { Answer, Engine, Scene } from './protocol';

/** The newest design's assembly is kept: scrubbing asks for many poses of one design. */
let kept: { json: string; assembly: Assembly } | null = null;
function assemblyOf(design: Design): Assembly {
  const json = JSON.stringify(design);
  if (kept?.json !== json) kept = { json, assembly: buildAssembly(design) };
  return kept.assembly;
}

function answer<T>(work: () => T): Answer<T> {
  try {
    return { ok: true, value: work() };
  } catch (error) {
    return { ok: false, why: (error as Error).message };
  }
}

/** Lets messages in, so that a newer request can end an older one. */
const breathe = (): Promise<void> => new Promise((done) => setTimeout(done, 0));
const latest = { prove: 0, rooms: 0, whatIf: 0 };

const engine: Engine = {
  load: (design) => answer(() => sceneOf(design, assemblyOf(design))),

  pose: (design, openDeg) => answer(() => {
    const assembly = assemblyOf(design);
    const pose = poseAt(assembly, openDeg);
    const placed = new Float64Array(12 * pose.placed.length);
    pose.placed.forEach((m, i) => placed.set(m, 12 * i));
    const closed = poseAt(assembly, 0);
    return {
      design, openDeg: pose.openDeg, placed, foldDeg: Float64Array.from(assembly.creases, (c) => foldDeg(pose, c)),
      measures: allMeasures(assembly, pose, closed.stop ? null : closed), stopped: pose.stop !== undefined, flexMm: pose.flexMm,
    };
  }),

  async prove(design, steps, onPart) {
    const mine = ++latest.prove;
    try {
      const proving = provingSteps(design, steps);
      for (let shown = 0; ; ) {
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

  async rooms(design, mechanism, keys, onRoom) {
    const mine = ++latest.rooms;
    for (const key of keys) {
      await breathe();
      if (mine !== latest.rooms) return;
      const room = answer(() => roomOf(design, mechanism, key));
      if (room.ok && room.value && mine === latest.rooms) onRoom(room.value);
    }
  },

  async whatIf(design, mechanism, key, values, onPoint) {
    const mine = ++latest.whatIf;
    for (const value of values) {
      await breathe();
      if (mine !== latest.whatIf) return;
      const point = answer(() => whatIf(design, mechanism, key, value));
      if (point.ok && mine === latest.whatIf) onPoint(point.value);
    }
  },

  picture: (design, openDeg) => answer(() => {
    const assembly = assemblyOf(design);
    return drawPicture(design, assembly, poseAt(assembly, openDeg));
  }),
  frames: (design, angles) => answer(() => {
    const assembly = buildAssembly(design);
    return angles.map((a) => drawPicture(design, assembly, poseAt(assembly, a)));
  }),

  thickness: (design) => answer(() => {
    const evidence = gather(design, 'closed', 0, assemblyOf(design));
    return evidence.closed ? thicknessMap(evidence, evidence.closed) : null;
  }),
  layout: (design) => answer(() => {
    const assembly = assemblyOf(design);
    return { layout: layOut(design, assembly), cutList: cutList(design, assembly) };
  }),
  steps: (design) => answer(() => workSteps(design, assemblyOf(design)).map((step) => {
    const part = onlyWith(design, step.shown);
    const assembly = buildAssembly(part);
    return { step, picture: drawPicture(part, assembly, poseAt(assembly, step.openDeg)) };
  })),

  async export(design, choice) {
    try {
      return { ok: true, value: await exportDesign(design, choice, assemblyOf(design)) };
    } catch (error) {
      return { ok: false, why: (error as Error).message };
    }
  },
};

/** A facet glued on another lies a caliper above it; glued from behind, below it, which is up in its own turned frame. */
function liftOf(design: Design, assembly: Assembly, facet: Assembly['facets'][number]): number {
  const bond = assembly.bonds.find((b) => b.b.piece === facet.piece && b.b.facet === facet.id);
  if (!bond) return 0;
  const caliper = (piece: string): number => stockOf(design, assembly.pieces.find((p) => p.id === piece)!.stock).caliperMm;
  return bond.b.piece === 'card' ? -caliper(bond.a.piece) : caliper(facet.piece) + (bond.placement[10] < 0 ? caliper(bond.a.piece) : 0);
}

function sceneOf(design: Design, assembly: Assembly): Scene {
  return {
    design,
    pieces: assembly.pieces.map(({ id, title, mechanism, stock, outline }) => ({ id, title, mechanism, stock, rings: ringsOf(outline) })),
    facets: assembly.facets.map((f, i) => {
      const dressing = design.dressing.find((d) => d.facet === f.id);
      return {
        id: f.id, piece: f.piece, mechanism: f.mechanism, rings: ringsOf(f.polygon), liftMm: liftOf(design, assembly, f),
        ...(dressing?.colour ? { colour: dressing.colour } : {}),
        mats: assembly.layers.filter((l) => l.facet === i).map((l) => ({ id: l.id, rings: l.region.flatMap(ringsOf), foam: l.foam.flatMap(ringsOf), colour: l.colour ?? stockOf(design, l.stock).insideColour })),
      };
    }),
    creases: assembly.creases.map(({ id, role, mechanism, piece, segments }) => ({ id, role, mechanism, piece, segments })),
    cuts: assembly.pieces.flatMap((p) => p.lines.filter((l) => l.role === 'cut').map(({ a, b, mechanism }) => ({ piece: p.id, mechanism, a, b }))),
    glue: assembly.pieces.flatMap((p) => p.glue.map((g) => ({ id: g.id, mechanism: g.mechanism, piece: p.id, outline: g.outline }))),
    hosts: [...assembly.hosts.values()].map(({ crease, lengthMm, reachA, reachB }) => ({ crease, lengthMm, reachA, reachB })),
  };
}

expose(engine);
