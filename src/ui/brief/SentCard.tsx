'use client';
import { useEffect, useState } from 'react';
import { envelopeOf, formatOf } from '@/core/document/post';
import { ENVELOPE_EASE_MM } from '@/core/paper/sizes';
import { asRead, gutterUpright } from '@/core/proof/closed-size';
import { stockOf, type Design } from '@/core/document/design';
import { formatFine, formatLength } from '@/core/units/length';
import type { Picture } from '@/core/formats/picture';
import { engine } from '@/workers/client';
import { PictureParts } from '../common/PosedPicture';
import { useStudio } from '@/store/context';

const SAME_WIDTH = { vectorEffect: 'non-scaling-stroke' } as const;
/** A rectangle about the middle. */
const about = (width: number, height: number) => ({ x: -width / 2, y: -height / 2, width, height });
type Size = readonly [width: number, height: number];

/** The card as it is sent in its envelope, and the largest the post takes. */
export function SentCard({ design }: { design: Design }) {
  const open = design.post.sent === 'open';
  const sent = useStudio((s) => (open ? s.proof?.sent : s.proof?.closed));
  const cover = useCover(design);
  const how = open ? 'open flat' : 'closed';
  const [w, h] = asRead(design, sent?.height_mm ?? 0, sent?.width_mm ?? 0);
  const envelope = envelopeOf(design);
  const post = formatOf(design);
  const fit = (s: { shortMm: number; longMm: number }): [number, number] =>
    w >= h ? [s.longMm, s.shortMm] : [s.shortMm, s.longMm];
  const env = envelope && fit(envelope);
  const most = post && fit(post.most);
  const [W, H] = [Math.max(w, env?.[0] ?? 0, most?.[0] ?? 0), Math.max(h, env?.[1] ?? 0, most?.[1] ?? 0)];
  const pad = Math.max(W, H) * 0.14;
  const text = Math.max(W, H) * 0.03;
  const stock = stockOf(design, design.card.stock);
  const show = (x: number): string => formatLength(x, design.units);
  return (
    <svg
      role="img"
      aria-label={`Card ${how} ${show(w)} by ${show(h)} ${design.units}`}
      width="100%"
      height="100%"
      style={{ minHeight: 240, maxHeight: '100%' }}
      viewBox={`${-W / 2 - pad} ${-H / 2 - pad} ${W + 2 * pad} ${H + 2 * pad}`}
    >
      {most && <Most name={post.name} size={most} text={text} />}
      {env && <Envelope name={envelope.name} size={env} card={[w, h]} text={text} />}
      <rect
        {...about(w, h)}
        fill={open ? 'none' : stock.outsideColour}
        stroke="var(--cut)"
        strokeWidth="1.4"
        style={SAME_WIDTH}
      />
      {cover && (
        <g
          data-testid="cover"
          transform={`translate(${-cover.box.x - cover.box.width / 2} ${-cover.box.y - cover.box.height / 2})`}
        >
          <PictureParts picture={cover} />
        </g>
      )}
      {!open && <Spine w={w} h={h} atSide={gutterUpright(design)} />}
      <text
        x="0"
        y={H / 2 + pad * 0.62}
        style={{ fontSize: text * 1.5, fontWeight: 700 }}
        textAnchor="middle"
        fill="var(--ink)"
      >
        {sent
          ? `${show(w)} × ${show(h)} ${design.units} ${how} · ${formatFine(sent.thickness_mm, design.units)} thick`
          : `It does not lie ${how}`}
      </text>
    </svg>
  );
}

/** The largest that its post takes. */
function Most({ name, size: [w, h], text }: { readonly name: string; readonly size: Size; readonly text: number }) {
  const units = useStudio((s) => s.design.units);
  return (
    <>
      <rect {...about(w, h)} fill="none" stroke="var(--ink-2)" strokeDasharray="6 5" style={SAME_WIDTH} />
      <text x={-w / 2} y={-h / 2 - text * 0.5} fill="var(--ink-2)" style={{ fontSize: text }}>
        {`largest for ${name}: ${formatLength(w, units)} × ${formatLength(h, units)}`}
      </text>
    </>
  );
}

/** Its envelope with the ease that a card needs in it, in red where the card needs more. */
function Envelope({
  name,
  size: [w, h],
  card,
  text,
}: {
  readonly name: string;
  readonly size: Size;
  readonly card: Size;
  readonly text: number;
}) {
  const units = useStudio((s) => s.design.units);
  const show = (v: number): string => formatLength(v, units);
  const [inW, inH] = [w - ENVELOPE_EASE_MM, h - ENVELOPE_EASE_MM];
  const tight = card[0] > inW + 1e-6 || card[1] > inH + 1e-6;
  return (
    <>
      <rect {...about(w, h)} fill="var(--board)" stroke="var(--ink-2)" style={SAME_WIDTH} />
      <path
        d={`M${-w / 2} ${-h / 2} L0 ${-h / 2 + h * 0.42} L${w / 2} ${-h / 2}`}
        fill="none"
        stroke="var(--board-2)"
        style={SAME_WIDTH}
      />
      <rect
        {...about(inW, inH)}
        fill="none"
        stroke={tight ? 'var(--bad)' : 'var(--good)'}
        strokeDasharray="3 3"
        style={SAME_WIDTH}
      />
      <text x={-w / 2} y={h / 2 + text * 1.3} fill={tight ? 'var(--bad)' : 'var(--ink-2)'} style={{ fontSize: text }}>
        {`${name} envelope ${show(w)} × ${show(h)}, ${show(ENVELOPE_EASE_MM)} ${units} ease inside`}
      </text>
    </>
  );
}

/** The gutter of the shut card. */
function Spine({ w, h, atSide }: { readonly w: number; readonly h: number; readonly atSide: boolean }) {
  const end = atSide ? { x2: -w / 2, y2: h / 2 } : { x2: w / 2, y2: -h / 2 };
  return <line x1={-w / 2} y1={-h / 2} {...end} stroke="var(--valley)" strokeWidth="4" style={SAME_WIDTH} />;
}

/** The card as it is sent; null until it is drawn, and where it does not lie so. */
function useCover(design: Design): Picture | null {
  const [cover, setCover] = useState<Picture | null>(null);
  useEffect(() => {
    let live = true;
    void engine('study')
      .cover(design)
      .then((a) => {
        if (live) setCover(a.ok ? a.value : null);
      });
    return () => {
      live = false;
    };
  }, [design]);
  return cover;
}
