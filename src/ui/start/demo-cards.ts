/** Cards of the Quillmoor Observatory, as project files. */
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

/** Newest first. */
export const DEMO_CARDS: readonly unknown[] = [
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
