/** What a card is turned into, and small pictures of it. */
import { poseAt } from '@/core/assembly/pose';
import { buildAssembly } from '@/core/build/build';
import { ownRoleChoices } from '@/core/build/own-roles';
import { turnedPlain } from '@/core/build/plain';
import { listedCard } from '@/core/document/listed';
import { statesOf } from '@/core/document/states';
import { betweenStates, openTo, restOf, stateIn } from '@/core/drives';
import { glanceOf, readGlance } from '@/core/formats/glance';
import { sentPicture } from '@/core/formats/cover';
import { drawPicture } from '@/core/formats/picture';
import { stopPictures } from '@/core/formats/stops';
import type { Engine } from '../protocol';
import { answer, assemblyOf, fontsFor, withFonts } from './at-hand';

type Jobs = 'check' | 'glance' | 'keptGlance' | 'plain' | 'ownRoles' | 'stops' | 'cover' | 'moving' | 'named';
export const editing: Pick<Engine, Jobs> = {
  check: (value) => answer(() => listedCard(value)),
  glance: (design, state) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      return glanceOf(design, assembly, poseAt(assembly, state));
    }),
  keptGlance: (text) => answer(() => readGlance(text)),
  plain: (design, id) => withFonts(design, () => turnedPlain(design, id)),
  ownRoles: (design, id) => withFonts(design, () => ownRoleChoices(design, id)),
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
  named: (design) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      return statesOf(design).map((named) => {
        const pose = poseAt(assembly, stateIn(assembly.drives, named));
        return { id: named.id, name: named.name, picture: drawPicture(design, assembly, pose) };
      });
    }),
};
