'use client';
import { Box, chakra } from '@chakra-ui/react';
import { envelopesFor, envelopesOf, formatsOf } from '@/core/document/post';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { Choice } from '../common/Field';
import { OwnPost } from './OwnPost';

/** Most envelopes that are offered by one click; the list has them all. */
const MOST_OFFERED = 3;
/** Envelopes that take the card as it is sent, the smallest first. */
function Fitting() {
  const design = useStudio((s) => s.design);
  const sent = useStudio((s) => (s.design.post.sent === 'open' ? s.proof?.sent : s.proof?.closed));
  const { edit } = useActions();
  const fitting = sent ? envelopesFor(design, [sent.width_mm, sent.height_mm]) : [];
  const says = fitting.length > 0 ? 'It fits' : 'No envelope listed takes it.';
  // One row that is there before the proof is: nothing below it moves when that comes in.
  return (
    <Box
      display="flex"
      alignItems="center"
      gap="5px"
      height="28px"
      overflow="hidden"
      whiteSpace="nowrap"
      mb="10px"
      fontSize="13px"
      data-testid="envelopes"
    >
      <span className="dim">{sent && says}</span>
      {fitting.slice(0, MOST_OFFERED).map((e) => (
        <Action
          key={e.id}
          small
          on={design.post.envelope === e.id}
          onClick={() => edit(`envelope ${e.name}`, (d) => ({ ...d, post: { ...d.post, envelope: e.id } }))}
        >
          {e.name}
        </Action>
      ))}
    </Box>
  );
}

/** How the card is sent: its envelope, its post, shut or open. */
export function PostFields() {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  return (
    <>
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
      <Fitting />
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
    </>
  );
}
