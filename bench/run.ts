/**
 * Figures as ratios measured side by side in one run: npm run bench. Times of a machine mean little by themselves; how
 * they grow, and how they stand to a 60 Hz frame or to another library in the same run, does.
 */
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import polygonClipping from 'polygon-clipping';
import { assembleCreasePattern, type CreasePattern } from '../src/core/assembly/crease-pattern';
import type { Assembly } from '../src/core/assembly/assembly';
import { poseAt, poseOpen } from '../src/core/assembly/pose';
import { restOf } from '../src/core/drives';
import { KINDS } from '../src/core/kinds';
import { jacobiSvd } from '../src/core/linkage/svd';
import { shelveFonts } from '../src/fonts/shelve';
import { holdFigure } from '../src/core/kinds/figures/struts';
import { standing } from '../src/core/shapes/outline';
import { mapRegion, offset, rectangle, unite, type Region, type Ring } from '../src/core/plane/polygon';
import { narrowestNeck, sheetOf } from '../src/core/plane/web';
import type { Vec2 } from '../src/core/plane/vec2';
import { buildAssembly } from '../src/core/build/build';
import { addMechanism, naturalMount } from '../src/core/document/standing';
import { blankDesign, type Design } from '../src/core/document/design';
import { gather, provingSteps } from '../src/core/proof/prove';
import { RULES, weightAt } from '../src/core/rules';
import { readDesign } from '../src/core/document/schema';
import { withTemplate } from '../src/core/build/bring';
import { readTemplate } from '../src/core/formats/template-read';
import { benchDecide } from './decide';
import { benchHand } from './hand';
import { benchPaper } from './paper';
import { parallelogramGrid, triangleGrid, waterbombGrid } from '../src/core/tests/patterns';

shelveFonts();
const FRAME_MS = 1000 / 60;
/** Median time of `work` in ms, after one run to warm up. */
function time(work: () => unknown, runs = 5): number {
  work();
  const times = Array.from({ length: runs }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  }).sort((a, b) => a - b);
  return times[Math.floor(runs / 2)];
}
/** Exponent of growth: slope of log time over log size, by least squares. */
function exponent(points: readonly (readonly [size: number, ms: number])[]): number {
  const xs = points.map(([n]) => Math.log(n));
  const ys = points.map(([, t]) => Math.log(t));
  const [mx, my] = [xs, ys].map((v) => v.reduce((a, b) => a + b) / v.length);
  return xs.reduce((s, x, i) => s + (x - mx) * (ys[i] - my), 0) / xs.reduce((s, x) => s + (x - mx) ** 2, 0);
}
const row = (name: string, ...cells: string[]): void =>
  console.log(`${name.padEnd(46)}${cells.map((c) => c.padStart(16)).join('')}`);

const steps = (count: number): Design =>
  Array.from({ length: count }, (_, i) => i).reduce(
    (d, i) =>
      addMechanism(d, 'step-fold', 'card.gutter', {
        depth: 20,
        height: 20,
        width: 3.6,
        offset: (i - (count - 1) / 2) * 5.9,
      }).design,
    blankDesign('steps', Math.min(2000, count * 6 + 20), 100),
  );

console.log('Poses and their growth (20 to 1,000 creases)');
const series = (
  name: string,
  sizes: readonly number[],
  prepare: (n: number) => { creases: number; pose: (deg: number) => void },
): void => {
  const points = sizes.map((n) => {
    const { creases, pose } = prepare(n);
    pose(90);
    let k = 0;
    const ms = time(() => pose(40 + 7 * (k++ % 12)), 7);
    row(
      `  ${name}, ${creases} creases`,
      `${(1000 / ms).toFixed(0)} poses/s`,
      `${(FRAME_MS / ms).toFixed(1)} per frame`,
    );
    return [creases, ms] as const;
  });
  row(`  ${name}: cost per pose grows as n^`, exponent(points).toFixed(2));
};
const patternPoses = (pattern: CreasePattern): { creases: number; pose: (deg: number) => void } => {
  const { assembly } = assembleCreasePattern(pattern);
  return { creases: assembly.creases.length, pose: (deg) => poseOpen(assembly, deg) };
};
series('sheet of steps', [6, 24, 80, 330], (n) => {
  const a = buildAssembly(steps(n));
  return { creases: a.creases.length, pose: (deg) => poseOpen(a, deg) };
});
series('folded grid', [4, 8, 14, 23], (n) => {
  return patternPoses(parallelogramGrid(n, n));
});

// Vertices of six creases: one block with many freedoms, settled by the stiffness of its creases.
series('waterbomb grid', [2, 3, 4], (n) => patternPoses(waterbombGrid(n, n)));
series('grid of triangles', [3, 6, 9, 17], (n) => patternPoses(triangleGrid(n, n)));

console.log('\nProofs');
const proofs = [3, 10, 33, 100].map((n) => {
  const design = steps(n);
  const proving = (): void => {
    // Up to the whole travel: remedies are a search of their own.
    for (const proof of provingSteps(design, 12)) if (proof.travel.length === 13) break;
  };
  const ms = time(proving, 3);
  row(`  proof of ${n} steps, without remedies`, `${(ms / 5000).toFixed(2)} of five seconds`);
  return [n, ms] as const;
});
row('  proof of a sheet of steps grows as n^', exponent(proofs).toFixed(2));
for (const file of readdirSync('examples').filter((f) => f.endsWith('.json'))) {
  const read = readDesign(readFileSync(`examples/${file}`, 'utf8'));
  if (!read.ok) throw new Error(read.why);
  const first = time(() => provingSteps(read.design).next(), 5);
  const whole = time(() => {
    for (const part of provingSteps(read.design)) void part;
  }, 1);
  row(`  ${file}`, `first ${(first / 100).toFixed(2)} of 100 ms`, `  whole ${(whole / first).toFixed(0)} x first`);
}

console.log('\nWhat is moved by hand');
const belongsBehind = (id: string): boolean => {
  const kind = KINDS.get(id);
  return kind?.mount === 'face' && kind.behindCover === true;
};
const onFace = (kind: string, count: number): Design =>
  Array.from({ length: count }, (_, k) => k).reduce(
    (d, k) =>
      addMechanism(d, kind, {
        ...(belongsBehind(kind) ? naturalMount(d, kind) : { on: 'leafB' }),
        mount: {
          side: belongsBehind(kind) ? 'inside' : 'outside',
          x: 0,
          y: 130 * (k - (count - 1) / 2),
          turnDeg: 0,
        },
      }).design,
    blankDesign(kind, 140 * count, 140),
  );
const scrubbed = (assembly: Assembly, drive: number, at: number): unknown => {
  const { id, from, to } = assembly.drives[drive];
  return poseAt(assembly, { ...restOf(assembly.drives), open: 97, [id]: from + (to - from) * at });
};
for (const kind of [...KINDS.values()].filter((k) => k.mount === 'face')) {
  const assembly = buildAssembly(onFace(kind.id, 1));
  let at = 0;
  const ms = time(() => {
    for (let k = 0; k < 20; k++) scrubbed(assembly, 1, (at = (at + 0.0137) % 1));
  });
  row(`  ${kind.id}: one frame of its drive`, `${(ms / 20 / FRAME_MS).toFixed(4)} frames`);
}
const byDrives = [1, 2, 4, 7].map((n) => {
  const design = onFace('lift-tab', n);
  const assembly = buildAssembly(design);
  let open = 10;
  const opening = time(() => {
    for (let k = 0; k < 20; k++) poseOpen(assembly, (open = 10 + ((open + 7.3) % 160)));
  });
  const proof = time(() => {
    const evidence = gather(design, 'travel', 12);
    return RULES.flatMap((r) => r.check(evidence));
  }, 1);
  row(
    `  ${n} drives: an opening, every rule`,
    `${(opening / 20 / FRAME_MS).toFixed(4)} frames`,
    `${(proof / 1000).toFixed(2)} s`,
  );
  return [n, proof] as const;
});
row('  every rule, by the number of drives: n^', exponent(byDrives).toFixed(2));

console.log('\nGlued and constructed');
{
  const train = { half: 44.45, arm: 101.6, train: { panel: 63.5, width: 50.8 } };
  const twist = addMechanism(blankDesign('twist', 300, 140), 'twist-fold', 'card.gutter', train).design;
  const bent = buildAssembly(twist);
  const ways = time(() => poseOpen(buildAssembly(twist), 90), 3);
  let open = 20;
  const ms = time(() => poseOpen(bent, (open = 20 + ((open + 13.7) % 140))));
  row(
    '  a train that bends: a pose, its first',
    `${(ms / FRAME_MS).toFixed(2)} frames`,
    `${(ways / ms).toFixed(0)} x that`,
  );
  const plain = blankDesign('easel');
  const easel: Design = { ...plain, card: { ...plain.card, construction: 'easel', parameters: {} } };
  const contact = time(() => buildAssembly(easel));
  row('  an easel built, with its contact', `${(contact / FRAME_MS).toFixed(2)} frames`);
  const leaves = addMechanism(blankDesign('leaves', 200, 140), 'leaf-bundle', 'card.gutter', { count: 12 }).design;
  const fan = buildAssembly(leaves);
  const spread = time(() => poseOpen(fan, (open = 20 + ((open + 13.7) % 140))));
  row('  a bundle of 12 leaves: a pose', `${(spread / FRAME_MS).toFixed(2)} frames`);
  const strips = { tiers: [{ p: 30, q: null, from: -50, to: 50 }], bow: { p: 40, length: 90, from: -50, to: 50 } };
  const bowed = addMechanism(blankDesign('bow', 200, 140), 'step-strips', 'card.gutter', strips).design;
  const flat = addMechanism(blankDesign('bow', 200, 140), 'step-strips', 'card.gutter', { tiers: strips.tiers }).design;
  const [front, plainTiers] = [bowed, flat].map((d) => {
    const built = buildAssembly(d);
    return time(() => poseOpen(built, (open = 20 + ((open + 13.7) % 140))));
  });
  row(
    '  a bowed front: a pose with its curve',
    `${(front / FRAME_MS).toFixed(3)} frames`,
    `${(front / plainTiers).toFixed(1)} x without`,
  );
  const evidence = gather(leaves, 'closed', 0, fan);
  const pose = poseOpen(fan, 90);
  row('  its centre of mass', `${(time(() => weightAt(evidence, pose)) / FRAME_MS).toFixed(4)} frames`);
}

console.log('\nShapes by the size of their outline');
const coast = (n: number): Region => [
  {
    outer: Array.from({ length: n }, (_, i): Vec2 => {
      const t = (2 * Math.PI * i) / n;
      const r = 40 + 6 * Math.sin(5 * t) + 2 * Math.sin(31 * t) + 0.4 * Math.sin(151 * t);
      return [r * Math.cos(t), r * Math.sin(t)];
    }),
    holes: [],
  },
];
const grown = (
  name: string,
  sizes: readonly number[],
  work: (n: number) => () => unknown,
  note: (ms: number) => string,
): void => {
  const points = sizes.map((n) => {
    const ms = time(work(n), 3);
    row(`  ${name}, ${n} points`, note(ms));
    return [n, ms] as const;
  });
  row(`  ${name} grows as n^`, exponent(points).toFixed(2));
};
grown(
  'strut search',
  [100, 500, 2000, 5000],
  (n) => {
    const silhouette = standing(coast(n), 80);
    return () => holdFigure(silhouette, { depth: 20, strutMin: 4, footMin: 8, struts: 'auto', feet: 'auto' });
  },
  (ms) => `${(ms / 500).toFixed(2)} of half a second`,
);
grown(
  'union of two',
  [100, 500, 2000, 5000],
  (n) => {
    const a = coast(n);
    const b = mapRegion(a, ([x, y]): Vec2 => [x + 25, y]);
    return () => unite([...a], b);
  },
  (ms) => `${(ms / FRAME_MS).toFixed(2)} frames`,
);
grown(
  'narrowest neck round a figure',
  [100, 500, 2000, 5000],
  (n) => {
    const [{ outer }] = coast(n);
    const sheet = sheetOf(
      { outer: rectangle(-70, -70, 70, 70), holes: [] },
      outer.slice(1).map((b, i) => ({ a: outer[i], b })),
    );
    return () => narrowestNeck(sheet, 3.2);
  },
  (ms) => `${(ms / 1000).toFixed(2)} of a second`,
);

grown(
  'drawing of a polygon with one valley',
  [1000, 4000, 20_000],
  (n) => {
    const [{ outer }] = coast(n);
    const cut = `<path stroke="#000" d="M${outer.map(([x, y]) => `${x.toFixed(4)} ${y.toFixed(4)}`).join('L')}Z"/>`;
    const fold = '<path stroke="#00f" stroke-dasharray="4 2" d="M-60 1.234H60"/>';
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="140mm" height="140mm" viewBox="-70 -70 140 140" fill="none">' +
      `<g id="Cut">${cut}</g><g id="Valley">${fold}</g></svg>`;
    return () => {
      const drawing = readTemplate(svg, 'a.svg');
      const template = { name: 'a', scale: 1, mended: true, picked: {}, lead: null, ...drawing };
      return buildAssembly(withTemplate(blankDesign('polygon'), template));
    };
  },
  (ms) => `${(ms / 3000).toFixed(2)} of three seconds`,
);

console.log('\nAgainst other libraries, in this run');
const blob = (n: number, dx: number): Ring =>
  Array.from({ length: n }, (_, i): Vec2 => [
    dx + (40 + 6 * Math.sin(9 * i)) * Math.cos((2 * Math.PI * i) / n),
    (40 + 6 * Math.sin(9 * i)) * Math.sin((2 * Math.PI * i) / n),
  ]);
for (const n of [100, 1000]) {
  const [a, b] = [blob(n, 0), blob(n, 25)];
  const ours = time(() => unite([{ outer: a, holes: [] }], [{ outer: b, holes: [] }]));
  const theirs = time(() =>
    polygonClipping.union(
      [a.map((p): [number, number] => [p[0], p[1]])],
      [b.map((p): [number, number] => [p[0], p[1]])],
    ),
  );
  row(`  union of two outlines of ${n} points`, `${(theirs / ours).toFixed(1)} x second lib`);
  row(`  offset of it`, `${(time(() => offset([{ outer: a, holes: [] }], -2)) / ours).toFixed(1)} x a union`);
}
const columns = [0, 1, 2].map((c) => Float64Array.from({ length: 6 }, (_, r) => Math.sin(3 * r + 7 * c + 1)));
const matrix = Matrix.columnVector([...columns[0]])
  .addColumn(1, [...columns[1]])
  .addColumn(2, [...columns[2]]);
const many = (f: () => unknown) => () => {
  for (let i = 0; i < 2000; i++) f();
};
const library = time(many(() => new SingularValueDecomposition(matrix)));
const ours = time(many(() => jacobiSvd(columns)));
row('  6 x 3 singular values, our Jacobi', `${(library / ours).toFixed(1)} x ml-matrix`);

console.log('\nFirst load');
const chunks = '.next/static/chunks';
if (existsSync('.next/build-manifest.json')) {
  const size = (files: readonly string[]): number =>
    files
      .filter((f) => f.endsWith('.js') || f.endsWith('.css'))
      .reduce((s, f) => s + gzipSync(readFileSync(`.next/${f}`)).length, 0);
  const manifest = JSON.parse(readFileSync('.next/build-manifest.json', 'utf8')) as {
    rootMainFiles: string[];
    polyfillFiles: string[];
  };
  const all = readdirSync(chunks)
    .filter((f) => /\.(js|css)$/.test(f))
    .map((f) => `static/chunks/${f}`);
  row('  framework, gzipped', `${(size(manifest.rootMainFiles) / 1024).toFixed(0)} kB`);
  row('  whole application with its workers, gzipped', `${(size(all) / 1024).toFixed(0)} kB`);
} else console.log('  build first (npm run build) to see the size');

benchDecide({ row, time });
void benchPaper({ row, time }).then(() => benchHand({ row }));
