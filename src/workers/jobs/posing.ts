/** The card as it stands: its poses, and what of it can be taken hold of. */
import { allMeasures, foldDeg, poseAt } from '@/core/assembly/pose';
import { dimensionsOf } from '@/core/build/dimensions';
import { gripsOf } from '@/core/build/grips';
import { ownHoldOf } from '@/core/build/own-ends';
import { ghostOf, posedGripsOf } from '@/core/build/posed-grips';
import { snapsOf } from '@/core/build/snaps';
import { restOf, travelStates } from '@/core/drives';
import { drawPicture } from '@/core/formats/picture';
import { applyRigid, unit3 } from '@/core/linkage';
import type { Engine } from '../protocol';
import { sceneOf } from '../scene';
import { answer, assemblyOf } from './at-hand';

/** A part that is taken hold of is led along so many pieces of its way. */
const WAY_STEPS = 96;

export const posing: Pick<Engine, 'load' | 'pose' | 'way' | 'grips' | 'posedGrips' | 'ghost' | 'snaps' | 'picture'> = {
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
  grips: (design, id) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      const grips = gripsOf(design, id, assembly);
      return { grips, own: ownHoldOf(design, id), dimensions: dimensionsOf(design, assembly, grips) };
    }),
  posedGrips: (design, state, facet, at) =>
    answer(async () => posedGripsOf(design, await assemblyOf(design), state, facet, at)),
  ghost: (design, state, id) => answer(async () => ghostOf(await assemblyOf(design), state, id)),
  snaps: (design, grip, line) => answer(async () => snapsOf(design, await assemblyOf(design), grip, grip.lines[line])),
  picture: (design, state, from) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      return drawPicture(design, assembly, poseAt(assembly, state), from && { from: unit3(from) });
    }),
};
