'use client';
import { chakra } from '@chakra-ui/react';
import { envelopesOf, formatsOf } from '@/core/document/post';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { Choice } from '../common/Field';
import { OwnPost } from './OwnPost';

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
