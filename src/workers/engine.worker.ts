/**
 * The core, behind a worker. One engine serves one purpose (see client.ts), so a proof never stands before a pose. What
 * a job needs is loaded when it is first asked for: a worker that poses cards loads nothing of films and files.
 */
import { expose, releaseProxy } from 'comlink';
import { UNKNOWN_REVISION, WITHOUT_DESIGN, type Engine, type Sent } from './protocol';
import { HeldDesigns } from './revisions';
import { posing } from './jobs/posing';

const GROUPS = {
  posing: async () => posing,
  proving: () => import('./jobs/proving').then((m) => m.proving),
  deciding: () => import('./jobs/deciding').then((m) => m.deciding),
  editing: () => import('./jobs/editing').then((m) => m.editing),
  shaping: () => import('./jobs/shaping').then((m) => m.shaping),
  templating: () => import('./jobs/templating').then((m) => m.templating),
  laying: () => import('./jobs/laying').then((m) => m.laying),
  cutting: () => import('./jobs/cutting').then((m) => m.cutting),
  making: () => import('./jobs/making').then((m) => m.making),
} as const;
type Group = keyof typeof GROUPS;
type JobsOf<G extends Group> = Awaited<ReturnType<(typeof GROUPS)[G]>>;

/** Where each job is done. */
const WHERE: { readonly [J in keyof Engine]: { [G in Group]: J extends keyof JobsOf<G> ? G : never }[Group] } = {
  load: 'posing',
  pose: 'posing',
  way: 'posing',
  grips: 'posing',
  posedGrips: 'posing',
  ghost: 'posing',
  snaps: 'posing',
  picture: 'posing',
  prove: 'proving',
  seek: 'proving',
  rooms: 'proving',
  whatIf: 'proving',
  limits: 'proving',
  thickness: 'proving',
  study: 'deciding',
  slabs: 'deciding',
  map: 'deciding',
  place: 'deciding',
  wear: 'deciding',
  judge: 'deciding',
  check: 'editing',
  glance: 'editing',
  keptGlance: 'editing',
  plain: 'editing',
  ownRoles: 'editing',
  stops: 'editing',
  cover: 'editing',
  moving: 'editing',
  named: 'editing',
  outline: 'shaping',
  worked: 'shaping',
  struts: 'shaping',
  planes: 'shaping',
  letterLines: 'shaping',
  sweeps: 'shaping',
  over: 'shaping',
  bringSvg: 'shaping',
  trace: 'shaping',
  letters: 'shaping',
  template: 'templating',
  bringTemplate: 'templating',
  bringWaterfall: 'templating',
  offers: 'templating',
  settle: 'templating',
  faults: 'templating',
  layout: 'laying',
  cutList: 'laying',
  nest: 'laying',
  stopNest: 'laying',
  held: 'laying',
  beginCut: 'cutting',
  beginFile: 'cutting',
  cutOn: 'cutting',
  still: 'making',
  film: 'making',
  steps: 'making',
  booklet: 'making',
  bundle: 'making',
  export: 'making',
};

const designs = new HeldDesigns();
const without = new Set<string>(WITHOUT_DESIGN);

/** The job, with all it needs; why not, where that cannot be had. */
async function workOf(job: keyof Engine): Promise<((...args: unknown[]) => Promise<unknown>) | string> {
  try {
    const jobs: Partial<Engine> = await GROUPS[WHERE[job]]();
    return jobs[job] as (...args: unknown[]) => Promise<unknown>;
  } catch {
    return 'A part of Rhabdoplex could not be loaded: see that its server is still running, then try again';
  }
}

/** The job as it is asked for over the wire: its design by revision, its callbacks let go of when it is done. */
function wired(job: keyof Engine): (...args: unknown[]) => Promise<unknown> {
  return async (...args) => {
    try {
      // Before anything is waited for: the next message may go on from this revision.
      const given = without.has(job) ? args[0] : designs.take(args[0] as Sent);
      if (!given && !without.has(job)) return { ok: false, why: UNKNOWN_REVISION };
      const work = await workOf(job);
      return typeof work === 'string' ? { ok: false, why: work } : await work(given, ...args.slice(1));
    } finally {
      for (const a of args) (a as { [releaseProxy]?: () => void } | null)?.[releaseProxy]?.();
    }
  };
}

expose({
  ...Object.fromEntries((Object.keys(WHERE) as (keyof Engine)[]).map((job) => [job, wired(job)])),
  hold: (lock: string) =>
    new Promise<boolean>((done) => {
      if (!navigator.locks) return done(false);
      void navigator.locks.request(lock, () => {
        done(true);
        return new Promise(() => undefined);
      });
    }),
});
