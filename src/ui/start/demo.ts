/** The demo set: cards of the Quillmoor Observatory, as project files. */
import comet from '../../../examples/comet-watch.json';
import skyline from '../../../examples/dome-skyline.json';
import note from '../../../examples/dome-note.json';
import meteor from '../../../examples/meteor-night.json';
import moon from '../../../examples/moon-phases.json';
import ridge from '../../../examples/night-ridge.json';
import orrery from '../../../examples/orrery.json';
import boxed from '../../../examples/dome-in-a-box.json';
import passing from '../../../examples/comet-at-the-window.json';
import planet from '../../../examples/planet-on-its-axis.json';
import slit from '../../../examples/the-dome-opens.json';
import terraces from '../../../examples/terraces-in-tiers.json';
import season from '../../../examples/season-programme.json';
import shelf from '../../../examples/dome-on-the-shelf.json';
import stepped from '../../../examples/moon-before-the-dome.json';
import survey from '../../../examples/sky-survey.json';
import telescope from '../../../examples/refractor-evening.json';
import terrace from '../../../examples/terrace-night.json';
import type { Design } from '@/core/document/design';
import { checkDesign } from '@/core/document/schema';
import { claimOnce } from '@/store/database';
import { addProject } from '@/store/projects';

const CARDS: readonly unknown[] = [
  stepped,
  slit,
  terraces,
  planet,
  boxed,
  passing,
  shelf,
  season,
  orrery,
  meteor,
  moon,
  survey,
  telescope,
  terrace,
  note,
  comet,
  ridge,
  skyline,
];

export const demoDesigns = (): Design[] =>
  CARDS.map((card) => {
    const read = checkDesign(card);
    if (!read.ok) throw new Error(`A card of the demo set does not read: ${read.why}`);
    return read.design;
  });

/** Puts the demo set among the projects, each card under an id of its own. */
export async function bringDemo(): Promise<void> {
  let updated = Date.now() - CARDS.length;
  for (const design of demoDesigns()) await addProject(design, updated++);
}

/** Once for each browser, so that a removed demo card stays removed. */
export async function bringDemoOnce(): Promise<void> {
  if (await claimOnce('demo')) await bringDemo();
}
