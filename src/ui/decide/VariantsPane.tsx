'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Design, Variant } from '@/core/document/design';
import {
  bare,
  differencesOf,
  exchanged,
  keptVariant,
  MOST_VARIANTS,
  resolved,
  takenOver,
  variantsOf,
  withoutVariant,
} from '@/core/document/variants';
import type { State } from '@/core/drives';
import { formatSaid } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import type { Judged } from '@/workers/protocol';
import { Action } from '../common/Action';
import { LineInput } from '../common/Field';
import { PosedPicture } from '../common/PosedPicture';
import { ringPath } from '../build/ring-path';
import { TravelsTogether } from './TravelsTogether';

/** The card and its variants, told apart by colour throughout. */
export const HUES = ['var(--ink)', 'var(--accent)', 'var(--mountain)', 'var(--valley)', 'var(--warn)', 'var(--good)'];

/** Named variants of the card: kept, compared, exchanged, and taken over piece by piece. */
export function VariantsPane() {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const [name, setName] = useState('');
  const [open, setOpen] = useState<string | null>(null);
  const variants = variantsOf(design);
  const keep = (): void => {
    const said = name.trim().slice(0, 60);
    if (said === '') return;
    edit(`keep variant ${said}`, (d) => keptVariant(d, said));
    setName('');
  };
  return (
    <Box data-testid="variants">
      <Box as="form" display="flex" gap="6px" mb="8px" onSubmit={(e) => (e.preventDefault(), keep())}>
        <LineInput
          aria-label="Name of the variant"
          placeholder="Name, such as Taller"
          value={name}
          maxLength={60}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <Action small strong type="submit" disabled={name.trim() === '' || variants.length >= MOST_VARIANTS}>
          Keep the card as a variant
        </Action>
      </Box>
      {variants.length === 0 && (
        <chakra.p className="dim" m="0">
          Keep the card as it is under a name, go on with it, and compare: drawings, poses, numbers and verdicts.
        </chakra.p>
      )}
      {variants.map((v, k) => (
        <Box key={v.id} borderTop="1px solid var(--rule)" py="4px" data-variant={v.name}>
          <Box display="flex" gap="6px" alignItems="center">
            <Box aria-hidden width="14px" height="3px" bg={HUES[(k + 1) % HUES.length]} />
            <Box flex="1" fontWeight="600">
              {v.name}
            </Box>
            <Action small aria-expanded={open === v.id} onClick={() => setOpen(open === v.id ? null : v.id)}>
              Differences
            </Action>
            <Action small onClick={() => edit(`go to variant ${v.name}`, (d) => exchanged(d, v.id))}>
              Exchange with the card
            </Action>
            <Action small danger onClick={() => edit(`forget variant ${v.name}`, (d) => withoutVariant(d, v.id))}>
              Forget
            </Action>
          </Box>
          {open === v.id && <Differences variant={v} />}
        </Box>
      ))}
      {variants.length > 0 && <Comparison />}
    </Box>
  );
}

function Differences({ variant }: { readonly variant: Variant }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const list = differencesOf(design, variant);
  if (list.length === 0) return <p className="dim">It is as the card is now.</p>;
  return (
    <chakra.table width="100%" fontSize="13px" mt="4px">
      <thead>
        <tr>
          <th scope="col">What</th>
          <th scope="col">Card</th>
          <th scope="col">{variant.name}</th>
          <th scope="col">
            <span className="dim">take over</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {list.map((d) => (
          <tr key={d.path.join(' ')}>
            <td>{d.words}</td>
            <td className="num">{d.card}</td>
            <td className="num">{d.variant}</td>
            <td>
              <Action
                small
                aria-label={`Take over ${d.words}`}
                onClick={() => edit(`${d.words} of ${variant.name}`, (x) => takenOver(x, variant, d.path))}
              >
                Take
              </Action>
            </td>
          </tr>
        ))}
      </tbody>
    </chakra.table>
  );
}

interface Compared {
  readonly name: string;
  readonly hue: string;
  readonly judged: Judged | null;
  readonly why: string | null;
}

/** The card and every variant, proved and posed in the state that the card stands in. */
function useCompared(design: Design, state: State): readonly Compared[] {
  const [found, setFound] = useState<Readonly<Record<string, Judged | string>>>({});
  const all = [
    { name: 'The card', of: bare(design) },
    ...variantsOf(design).map((v) => ({ name: v.name, of: resolved(design, v) })),
  ];
  const key = JSON.stringify([all, state]);
  useEffect(() => {
    let live = true;
    const list = (JSON.parse(key) as [{ name: string; of: Design }[], State])[0];
    void (async () => {
      for (const { name, of } of list) {
        if (!live) return;
        const answer = await engine('compare').judge(of, state);
        if (live) setFound((f) => ({ ...f, [name]: answer.ok ? answer.value : answer.why }));
      }
    })();
    return () => {
      live = false;
    };
    // The key holds all that the comparison is made of.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return all.map(({ name }, k) => {
    const got = found[name];
    const hue = HUES[k % HUES.length];
    return {
      name,
      hue,
      judged: typeof got === 'object' ? got : null,
      why: typeof got === 'string' ? got : null,
    };
  });
}

function Comparison() {
  const design = useStudio((s) => s.design);
  const state = useStudio((s) => s.pose?.state ?? s.state);
  const all = useCompared(design, state);
  return (
    <Box mt="10px" data-testid="comparison">
      <Numbers all={all} />
      <Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(150px, 1fr))" gap="8px" my="8px">
        {all.map(({ name, hue, judged, why }) => (
          <Box key={name} borderTop="3px solid" borderColor={hue}>
            <Box fontSize="12.5px">{name}</Box>
            {judged?.picture && <PosedPicture picture={judged.picture} height={110} label={`${name}, posed`} />}
            {why && <chakra.span color="bad">{why}</chakra.span>}
          </Box>
        ))}
      </Box>
      <Box display="grid" gridTemplateColumns="repeat(2, minmax(0, 1fr))" gap="12px">
        <DrawingsTogether all={all} />
        <TravelsTogether
          all={all.flatMap(({ name, hue, judged }) => (judged ? [{ name, hue, travel: judged.proof.travel }] : []))}
          units={design.units}
        />
      </Box>
    </Box>
  );
}

const NUMBERS: readonly (readonly [string, (j: Judged) => number | null])[] = [
  ['Closed, across', (j) => j.proof.closed?.width_mm ?? null],
  ['Closed, along', (j) => j.proof.closed?.height_mm ?? null],
  ['Stack', (j) => j.proof.closed?.thickness_mm ?? null],
  ['Past the fore edge', (j) => j.proof.closed?.overhang.fore ?? null],
  ['Stands highest', (j) => Math.max(0, ...j.proof.travel.map((t) => t.lift_mm))],
  ['Least clearance', (j) => leastOf(j.proof.travel.filter((t) => t.open > 0).map((t) => t.clearance_mm))],
];
const leastOf = (list: readonly (number | null)[]): number | null => {
  const known = list.filter((v) => v !== null);
  return known.length > 0 ? Math.min(...known) : null;
};

/** Numbers side by side; those that differ are strong. */
function Numbers({ all }: { readonly all: readonly Compared[] }) {
  const units = useStudio((s) => s.design.units);
  const said = (v: number | null): string => (v === null ? '–' : formatSaid(v, units));
  return (
    <chakra.table width="100%" fontSize="13px">
      <thead>
        <tr>
          <th scope="col">
            <span className="dim">compared</span>
          </th>
          {all.map((c) => (
            <chakra.th key={c.name} scope="col" color={c.hue} textAlign="right">
              {c.name}
            </chakra.th>
          ))}
        </tr>
      </thead>
      <tbody>
        <tr>
          <chakra.th scope="row" textAlign="left" fontWeight="400">
            Verdict
          </chakra.th>
          {all.map((c) => (
            <chakra.td key={c.name} data-verdict-of={c.name} textAlign="right">
              {c.judged ? `${c.judged.proof.verdict}, ${c.judged.proof.findings.length} found` : '…'}
            </chakra.td>
          ))}
        </tr>
        {NUMBERS.map(([label, read]) => {
          const values = all.map((c) => (c.judged ? read(c.judged) : null));
          const differ = values.some((v) => Math.abs((v ?? NaN) - (values[0] ?? NaN)) > 0.005);
          return (
            <tr key={label}>
              <chakra.th scope="row" textAlign="left" fontWeight="400">
                {label}
              </chakra.th>
              {values.map((v, k) => (
                <chakra.td key={k} className="num" fontWeight={differ ? 700 : 400}>
                  {said(v)}
                </chakra.td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </chakra.table>
  );
}

/** The flat pieces of all over one another, each in its colour; pieces of one name lie on each other. */
function DrawingsTogether({ all }: { readonly all: readonly Compared[] }) {
  const ids = [...new Set(all.flatMap((c) => c.judged?.pieces.map((p) => p.id) ?? []))];
  const [piece, setPiece] = useState<string | null>(null);
  const shown = piece !== null && ids.includes(piece) ? piece : ids[0];
  const drawn = all.flatMap(
    (c) => c.judged?.pieces.filter((p) => p.id === shown).map((p) => ({ ...p, hue: c.hue })) ?? [],
  );
  const points = drawn.flatMap((p) => p.rings.flat());
  if (points.length === 0) return <Box />;
  const [x0, x1] = [Math.min(...points.map((p) => p[0])), Math.max(...points.map((p) => p[0]))];
  const [y0, y1] = [Math.min(...points.map((p) => p[1])), Math.max(...points.map((p) => p[1]))];
  const step = (by: number): void => setPiece(ids[(ids.indexOf(shown) + by + ids.length) % ids.length]);
  return (
    <Box>
      <svg
        viewBox={`${x0 - 3} ${-y1 - 3} ${x1 - x0 + 6} ${y1 - y0 + 6}`}
        width="100%"
        style={{ maxHeight: 220 }}
        role="img"
        aria-label="Flat drawings over one another"
      >
        {drawn.map((p, k) => (
          <g key={k} transform="scale(1 -1)" fill="none" stroke={p.hue} strokeWidth="0.7">
            <path d={ringPath(p.rings)} style={{ vectorEffect: 'non-scaling-stroke' }} strokeWidth="1.6" />
            {p.folds.map(({ a, b }, i) => (
              <path key={i} d={`M${a.join(' ')}L${b.join(' ')}`} strokeDasharray="3 2" />
            ))}
          </g>
        ))}
      </svg>
      {ids.length > 1 && (
        <Box display="flex" gap="6px" alignItems="center" fontSize="12.5px">
          <Action small aria-label="Piece before" onClick={() => step(-1)}>
            ‹
          </Action>
          piece {ids.indexOf(shown) + 1} of {ids.length}
          <Action small aria-label="Next piece" onClick={() => step(1)}>
            ›
          </Action>
        </Box>
      )}
    </Box>
  );
}
