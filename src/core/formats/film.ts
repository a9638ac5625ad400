/** The travel as pictures one after another: there and back, every drive that is wanted, all in one frame. */
import type { Assembly } from '../assembly/assembly';
import { poseAt } from '../assembly/pose';
import { betweenStates, type State } from '../drives';
import type { Design } from '../document/design';
import type { Vec3 } from '../linkage';
import { drawPicture, type Picture } from './picture';

export interface FilmChoice {
  /** States that it goes between; all drives move together. */
  readonly from: State;
  readonly to: State;
  /** Pictures on the way there, both ends counted; it comes back by the same ones. */
  readonly frames: number;
  readonly view?: Vec3;
}
export const LEAST_FRAMES = 2;
export const MOST_FRAMES = 120;

/** States of the pictures in order: there and back, the ends once each. Slow at the ends, as a hand moves. */
export function filmStates({ from, to, frames }: Pick<FilmChoice, 'from' | 'to' | 'frames'>): State[] {
  const n = Math.min(MOST_FRAMES, Math.max(LEAST_FRAMES, Math.round(frames)));
  const there = Array.from({ length: n }, (_, k) => betweenStates(from, to, eased(k / (n - 1))));
  return [...there, ...there.slice(1, -1).reverse()];
}
const eased = (part: number): number => (1 - Math.cos(Math.PI * part)) / 2;

export interface FilmFrame {
  readonly state: State;
  readonly picture: Picture;
}
/** Pictures one by one: each may take its time. */
export function* filmFrames(design: Design, assembly: Assembly, choice: FilmChoice): Generator<FilmFrame> {
  const seen = new Map<string, FilmFrame>();
  for (const state of filmStates(choice)) {
    const key = JSON.stringify(state);
    let frame = seen.get(key);
    if (!frame) {
      const picture = drawPicture(design, assembly, poseAt(assembly, state), choice.view ? { from: choice.view } : {});
      seen.set(key, (frame = { state, picture }));
    }
    yield frame;
  }
}

/** The box that holds all of them, so that nothing jumps. */
export function frameOf(pictures: readonly Picture[]): Picture['box'] {
  const [x, y] = [Math.min(...pictures.map((p) => p.box.x)), Math.min(...pictures.map((p) => p.box.y))];
  const right = Math.max(...pictures.map((p) => p.box.x + p.box.width));
  const low = Math.max(...pictures.map((p) => p.box.y + p.box.height));
  return { x, y, width: right - x, height: low - y };
}
