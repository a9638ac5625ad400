'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { WearKind, WearPlace } from '@/core/decide/wear';
import { formatSaid } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { placePieces } from '../build/placed-pieces';
import { ringPath } from '../build/ring-path';

const KIND_WORDS: Readonly<Record<WearKind, string>> = {
  bends: 'bends by',
  narrow: 'is held by',
  rubs: 'come as near as',
  slides: 'slides by',
};

/** Where the paper bends, is held by little, rubs and slides: on the flat pieces, and as a list with numbers. */
export function WearPane() {
  const design = useStudio((s) => s.design);
  const scene = useStudio((s) => s.scene);
  const { light } = useActions();
  const [places, setPlaces] = useState<readonly WearPlace[] | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const [on, setOn] = useState<WearPlace | null>(null);
  useEffect(() => {
    let live = true;
    void engine('study')
      .wear(design)
      .then((answer) => {
        if (!live) return;
        setPlaces(answer.ok ? answer.value : []);
        setWhy(answer.ok ? null : answer.why);
      });
    return () => {
      live = false;
    };
  }, [design]);
  if (why) return <p role="alert">{why}</p>;
  if (!scene || !places) return <p className="dim">Looking…</p>;
  const { placed, width, height } = placePieces(scene.pieces);
  const said = ({ unit, measured }: WearPlace): string =>
    unit === 'mm' ? formatSaid(measured, design.units) : `${measured.toFixed(0)}°`;
  return (
    <Box data-testid="wear" display="grid" gridTemplateColumns="minmax(0, 1fr) minmax(0, 1fr)" gap="14px">
      <svg
        viewBox={`-2 -2 ${width + 4} ${height + 4}`}
        width="100%"
        style={{ maxHeight: 320 }}
        role="img"
        aria-label="Where it wears"
      >
        {placed.map(({ piece, dx, dy }) => (
          <g key={piece.id} transform={`translate(${dx} ${height - dy}) scale(1 -1)`}>
            <path
              d={ringPath(piece.rings)}
              fill="var(--sheet)"
              stroke="var(--ink-2)"
              strokeWidth="0.4"
              fillRule="evenodd"
            />
            {places
              .filter((p) => p.piece === piece.id)
              .map((p, k) => (
                <g key={k} stroke="var(--bad)" fill="none" opacity={on === p ? 1 : 0.25 + 0.65 * p.part}>
                  {p.lines.map(([a, b], i) => (
                    <path
                      key={i}
                      d={`M${a.join(' ')}L${b.join(' ')}`}
                      strokeWidth={on === p ? 3.4 : 0.6 + 2 * p.part}
                    />
                  ))}
                  {p.lines.length === 0 && <circle cx={p.at[0]} cy={p.at[1]} r={on === p ? 5 : 3} strokeWidth="1.4" />}
                </g>
              ))}
          </g>
        ))}
      </svg>
      <Box as="ul" listStyleType="none" m="0" p="0" fontSize="13.5px">
        {places.length === 0 && <li className="dim">Nothing of it bends far, is narrow, rubs or slides.</li>}
        {places.slice(0, 60).map((p, k) => (
          <chakra.li
            key={k}
            py="2px"
            borderBottom="1px solid var(--rule)"
            onPointerEnter={() => {
              setOn(p);
              light([p.mechanism]);
            }}
            onPointerLeave={() => {
              setOn(null);
              light([]);
            }}
          >
            {p.words} {KIND_WORDS[p.kind]} <b className="num">{said(p)}</b>
          </chakra.li>
        ))}
      </Box>
    </Box>
  );
}
