'use client';
import { memo } from 'react';
import type { Side } from '@/core/kinds';
import type { Scene, SceneArt } from '@/workers/protocol';
import { pictureUrl } from '../dress/picture-in';
import { ringPath } from './ring-path';

/** What is printed on a side of a piece, clipped to what carries it. The drawing's y runs up. */
export const FlatArt = memo(function FlatArt({ scene, piece, side }: { scene: Scene; piece: string; side: Side }) {
  const own = scene.artwork.filter((a) => a.side === side && scene.facets[a.facet].piece === piece);
  return (
    <g pointerEvents="none">
      {own.map((a) => (
        <g key={a.id} data-printed={a.id}>
          <clipPath id={`clip-${a.id}-${side}`}>
            <path d={ringPath(a.clip)} clipRule="evenodd" />
          </clipPath>
          <g clipPath={`url(#clip-${a.id}-${side})`}>
            <Printed art={a} scene={scene} />
          </g>
        </g>
      ))}
    </g>
  );
});

function Printed({ art, scene: { design } }: { art: SceneArt; scene: Scene }) {
  if ('ink' in art) return <path d={ringPath(art.ink)} fillRule="evenodd" fill={art.colour} />;
  const picture = design.pictures?.find((p) => p.id === art.picture);
  if (!picture) return null;
  const { origin: o, right: r, up: u } = art.frame;
  const matrix = [r[0], r[1], -u[0], -u[1], o[0] + u[0], o[1] + u[1]].join(' ');
  return (
    <image href={pictureUrl(picture)} width="1" height="1" preserveAspectRatio="none" transform={`matrix(${matrix})`} />
  );
}
