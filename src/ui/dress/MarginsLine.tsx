'use client';
import { chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import { carriedShare, marginsOf, type Margins } from '@/core/build/margins';
import { formatLength } from '@/core/units/length';
import { useStudio } from '@/store/context';

const SIDES = ['left', 'right', 'above', 'below'] as const;
/** Margins are told to this, mm. */
const TOLD_MM = 0.005;

/** How far a mat or a layer lies inside the edges of what it is stuck on, and how much of it its foam carries. */
export function MarginsLine({ of }: { readonly of: string }) {
  const unit = useStudio((s) => s.design.units);
  const facet = useStudio((s) => s.scene?.facets.find((f) => f.mats.some((m) => m.id === of)));
  const told = useMemo(() => {
    const own = facet?.mats.find((m) => m.id === of);
    if (!facet || !own || own.rings.length === 0) return null;
    return {
      margins: marginsOf(facet.rings, own.rings, own.side),
      carried: own.foam.length > 0 ? carriedShare(own.rings, own.foam) : null,
    };
  }, [facet, of]);
  if (!told) return null;
  const { margins, carried } = told;
  return (
    <chakra.p className="dim" m="2px 0 0" fontSize="13px" data-margins={of}>
      To the edge, {unit}: <ToEdges margins={margins} />
      {margins.least === null && ', past it'}
      {carried !== null && `. Foam under ${Math.round(carried * 100)} % of it.`}
    </chakra.p>
  );
}

/** Margins as one length where they are even, else side by side, with the least where a shape makes it less. */
export function ToEdges({ margins }: { readonly margins: Margins }) {
  const unit = useStudio((s) => s.design.units);
  const sides = SIDES.map((s) => margins[s]);
  const isEven = Math.max(...sides) - Math.min(...sides) < TOLD_MM;
  const said = isEven
    ? `${formatLength(sides[0], unit)} all round`
    : SIDES.map((s) => `${s} ${formatLength(margins[s], unit)}`).join(' · ');
  const isShaped = margins.least !== null && Math.abs(margins.least - Math.min(...sides)) >= TOLD_MM;
  return (
    <>
      <span className="num">{said}</span>
      {isShaped && `, at its nearest ${formatLength(margins.least!, unit)}`}
    </>
  );
}
