'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { inSentence } from '@/core/document/words';
import { envelopeOf, envelopesOf, formatOf, formatsOf } from '@/core/document/post';
import { ENVELOPE_EASE_MM } from '@/core/paper/sizes';
import { CARD } from '@/core/ids';
import { BASES, type Parameter, type ParameterValue } from '@/core/kinds';
import { rebuiltAs } from '@/core/document/standing';
import { baseKindOf, cardValues, setParameter } from '@/core/document/fields';
import { stockOf, type Design } from '@/core/document/design';
import { formatFine, formatLength } from '@/core/units/length';
import type { Picture } from '@/core/formats/picture';
import { engine } from '@/workers/client';
import { PictureParts } from '../common/PosedPicture';
import { useActions, useStudio } from '@/store/context';
import { Choice, NumberField } from '../common/Field';
import { Hint } from '../common/Hint';
import { FindingCard } from '../prove/FindingCard';
import { StatesList } from './StatesList';
import { CardSizes } from './CardSizes';
import { OwnPost } from './OwnPost';
import { StockTable } from './StockTable';

/** What the card is: size, fold, post, stocks. On the right the closed card against its envelope, true proportions. */
export function BriefStage() {
  const design = useStudio((s) => s.design);
  const findings = useStudio((s) => s.proof?.findings)?.filter((f) => f.mechanism === CARD);
  const { edit } = useActions();
  const values = cardValues(design);
  const base = baseKindOf(design);
  const pageTitle = useStudio(
    (s) => s.scene?.pieces.find((p) => p.mechanism === CARD && p.id !== CARD && !design.card.template)?.title,
  );
  /** One field for numbers that are set together while they are equal; their own fields once they differ. */
  const fields = (keys: readonly string[]) => {
    const together = keys.every((key) => values[key] === values[keys[0]]);
    const shown = together ? keys.slice(0, 1) : keys;
    const set = (key: string, value: ParameterValue, words: string): void =>
      edit(words, (d) => (together ? keys : [key]).reduce((x, k) => setParameter(x, CARD, k, value), d));
    return shown.map((key) => (
      <BaseField key={key} parameter={base.parameters.find((p) => p.key === key)!} set={set} />
    ));
  };
  return (
    <Box display="grid" gridTemplateColumns="330px minmax(0, 1fr)" height="100%" minHeight="0">
      <Box bg="panel" p="14px 18px" overflowY="auto" borderRight="1px solid var(--rule)">
        <Hint />
        <chakra.h2 className="heading" mb="10px !important">
          Card
        </chakra.h2>
        <Choice
          label="Units"
          value={design.units}
          choices={[
            { id: 'mm', name: 'mm' },
            { id: 'in', name: 'inches' },
          ]}
          onChange={(u) => edit(`units ${u}`, (d) => ({ ...d, units: u as Design['units'] }))}
        />
        {!design.card.template && (
          <Choice
            asList
            label="Built as"
            value={base.id}
            choices={[...BASES.values()].map((b) => ({ id: b.id, name: b.title }))}
            onChange={(id) => edit(BASES.get(id)!.title.toLowerCase(), (d) => rebuiltAs(d, id))}
          />
        )}
        {!design.card.template && <CardSizes />}
        {!design.card.template && base.brief.map(fields)}
        <Choice
          asList
          label="Base from"
          value={design.card.stock}
          choices={design.stocks.map((s) => ({ id: s.id, name: s.name }))}
          onChange={(stock) => edit('base stock', (d) => ({ ...d, card: { ...d.card, stock } }))}
        />
        {pageTitle && (
          <Choice
            asList
            label={`${pageTitle} from`}
            value={design.card.pageStock}
            choices={design.stocks.map((s) => ({ id: s.id, name: s.name }))}
            onChange={(pageStock) => edit('liner stock', (d) => ({ ...d, card: { ...d.card, pageStock } }))}
          />
        )}
        <chakra.h2 className="heading" m="18px 0 10px !important">
          Post
        </chakra.h2>
        <Choice
          asList
          label="Envelope"
          value={design.post.envelope ?? ''}
          choices={[
            { id: '', name: 'none' },
            ...envelopesOf(design).map((e) => ({
              id: e.id,
              name: `${e.name} · ${formatLength(e.shortMm, design.units)} × ${formatLength(e.longMm, design.units)}`,
            })),
          ]}
          onChange={(e) =>
            edit(
              e === '' ? 'no envelope' : `envelope ${envelopesOf(design).find((x) => x.id === e)?.name ?? ''}`,
              (d) => ({
                ...d,
                post: { ...d.post, envelope: e || null },
              }),
            )
          }
        />
        <Choice
          asList
          label="Goes as"
          value={design.post.format ?? ''}
          choices={[{ id: '', name: 'not posted' }, ...formatsOf(design).map((p) => ({ id: p.id, name: p.name }))]}
          onChange={(f) =>
            edit(f === '' ? 'not posted' : `post ${formatsOf(design).find((x) => x.id === f)?.name ?? ''}`, (d) => ({
              ...d,
              post: { ...d.post, format: f || null },
            }))
          }
        />
        <OwnPost />
        <Choice
          label="Sent"
          value={design.post.sent ?? 'shut'}
          choices={[
            { id: 'shut', name: 'shut' },
            { id: 'open', name: 'open flat' },
          ]}
          onChange={(way) =>
            edit(way === 'open' ? 'sent open flat' : 'sent shut', (d) => {
              const { sent: _, ...post } = d.post;
              return { ...d, post: way === 'open' ? { ...post, sent: 'open' } : post };
            })
          }
        />
        <chakra.label display="flex" gap="8px" alignItems="center" my="10px">
          <input
            type="checkbox"
            checked={design.card.stayInside}
            onChange={(e) => {
              const stayInside = e.currentTarget.checked;
              edit(stayInside ? 'stay inside while opening' : 'free while opening', (d) => ({
                ...d,
                card: { ...d.card, stayInside },
              }));
            }}
          />
          Stays inside its outline while it opens
        </chakra.label>
        <StatesList />
        {findings?.map((f) => (
          <FindingCard key={`${f.rule}${f.aspect}`} finding={f} />
        ))}
      </Box>
      <Box minWidth="0" display="grid" gridTemplateRows="minmax(0, 1fr) auto" minHeight="0" overflowY="auto">
        <SentCard design={design} />
        <StockTable />
      </Box>
    </Box>
  );
}

/** A number or a choice of the base. */
function BaseField({
  parameter: p,
  set,
}: {
  parameter: Parameter;
  set: (key: string, value: ParameterValue, words: string) => void;
}) {
  const design = useStudio((s) => s.design);
  const value = cardValues(design)[p.key];
  if (p.unit === 'choice')
    return (
      <Choice
        label={p.label}
        value={String(value)}
        choices={p.choices!.map((id) => ({ id, name: id }))}
        onChange={(c) => set(p.key, c, `${inSentence(p.label)} ${c}`)}
      />
    );
  return (
    <NumberField
      parameter={p}
      value={value}
      unit={design.units}
      onChange={(v) => set(p.key, v, `${inSentence(p.label)} ${formatLength(v ?? 0, design.units)} ${design.units}`)}
    />
  );
}

/** The card as it is sent in its envelope, and the largest the post takes. */
function SentCard({ design }: { design: Design }) {
  const open = design.post.sent === 'open';
  const sent = useStudio((s) => (open ? s.proof?.sent : s.proof?.closed));
  const cover = useCover(design);
  const how = open ? 'open flat' : 'closed';
  const values = cardValues(design);
  const base = baseKindOf(design);
  const side = Math.abs(base.up(values, base.face(values, 'outside'), 'outside')[0]) > 0.5;
  const [along, away] = sent ? [sent.height_mm, sent.width_mm] : [0, 0];
  const [w, h] = side ? [away, along] : [along, away];
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
  const box = (bw: number, bh: number) => ({ x: -bw / 2, y: -bh / 2, width: bw, height: bh });
  const show = (x: number): string => formatLength(x, design.units);
  const tight = env && (w > env[0] - ENVELOPE_EASE_MM + 1e-6 || h > env[1] - ENVELOPE_EASE_MM + 1e-6);
  const label = (x: number, y: number, words: string, fill = 'var(--ink-2)', anchor: 'start' | 'middle' = 'start') => (
    <text x={x} y={y} style={{ fontSize: text }} fill={fill} textAnchor={anchor}>
      {words}
    </text>
  );
  return (
    <svg
      role="img"
      aria-label={`Card ${how} ${show(w)} by ${show(h)} ${design.units}`}
      width="100%"
      height="100%"
      style={{ minHeight: 240, maxHeight: '100%' }}
      viewBox={`${-W / 2 - pad} ${-H / 2 - pad} ${W + 2 * pad} ${H + 2 * pad}`}
    >
      {most && (
        <>
          <rect
            {...box(...most)}
            fill="none"
            stroke="var(--ink-2)"
            strokeDasharray="6 5"
            style={{ vectorEffect: 'non-scaling-stroke' }}
          />
          {label(
            -most[0] / 2,
            -most[1] / 2 - text * 0.5,
            `largest for ${post.name}: ${show(most[0])} × ${show(most[1])}`,
          )}
        </>
      )}
      {env && (
        <>
          <rect
            {...box(...env)}
            fill="var(--board)"
            stroke="var(--ink-2)"
            style={{ vectorEffect: 'non-scaling-stroke' }}
          />
          <path
            d={`M${-env[0] / 2} ${-env[1] / 2} L0 ${-env[1] / 2 + env[1] * 0.42} L${env[0] / 2} ${-env[1] / 2}`}
            fill="none"
            stroke="var(--board-2)"
            style={{ vectorEffect: 'non-scaling-stroke' }}
          />
          <rect
            {...box(env[0] - ENVELOPE_EASE_MM, env[1] - ENVELOPE_EASE_MM)}
            fill="none"
            stroke={tight ? 'var(--bad)' : 'var(--good)'}
            strokeDasharray="3 3"
            style={{ vectorEffect: 'non-scaling-stroke' }}
          />
          {label(
            -env[0] / 2,
            env[1] / 2 + text * 1.3,
            `${envelope.name} envelope ${show(env[0])} × ${show(env[1])}, ${ENVELOPE_EASE_MM} mm ease inside`,
            tight ? 'var(--bad)' : 'var(--ink-2)',
          )}
        </>
      )}
      <rect
        {...box(w, h)}
        fill={open ? 'none' : stock.outsideColour}
        stroke="var(--cut)"
        strokeWidth="1.4"
        style={{ vectorEffect: 'non-scaling-stroke' }}
      />
      {cover && (
        <g
          data-testid="cover"
          transform={`translate(${-cover.box.x - cover.box.width / 2} ${-cover.box.y - cover.box.height / 2})`}
        >
          <PictureParts picture={cover} />
        </g>
      )}
      {open ? null : side ? (
        <line
          x1={-w / 2}
          x2={-w / 2}
          y1={-h / 2}
          y2={h / 2}
          stroke="var(--valley)"
          strokeWidth="4"
          style={{ vectorEffect: 'non-scaling-stroke' }}
        />
      ) : (
        <line
          x1={-w / 2}
          x2={w / 2}
          y1={-h / 2}
          y2={-h / 2}
          stroke="var(--valley)"
          strokeWidth="4"
          style={{ vectorEffect: 'non-scaling-stroke' }}
        />
      )}
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
