/** What the proof finds, and how far every number may go. */
import { gripLimits } from '@/core/proof/grip-limits';
import { gather, provingSteps, seek } from '@/core/proof/prove';
import { roomOf } from '@/core/proof/room';
import { whatIf } from '@/core/proof/what-if';
import { closedStack } from '@/core/rules';
import type { Engine } from '../protocol';
import { answer, assemblyOf, breathe, fontsFor, withFonts } from './at-hand';

const latest = { prove: 0, rooms: 0, whatIf: 0 };

export const proving: Pick<Engine, 'prove' | 'seek' | 'rooms' | 'whatIf' | 'limits' | 'thickness'> = {
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
  limits: (design, grip) => withFonts(design, () => gripLimits(design, grip)),
  thickness: (design) => answer(async () => closedStack(gather(design, 'closed', 0, await assemblyOf(design)))),
};
