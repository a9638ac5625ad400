'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Proposal } from '@/core/build/template-proposals';
import { freeJoinId, type Template, type TemplateJoin } from '@/core/document/template';
import type { Offers } from '@/workers/protocol';
import { engine } from '@/workers/client';
import { Action } from '../common/Action';
import { reversed, turnedOver } from './joining';

const KIND_WORDS: Readonly<Record<TemplateJoin['kind'], string>> = {
  bond: 'glued',
  pivot: 'on a rivet',
  slide: 'slides in its slot',
};

/** How the pieces of a template are joined: what is, what is offered, and folds that are consistent. */
export function PiecesPane({
  template,
  offers,
  matching,
  onMatch,
  onJoins,
  onPicked,
}: {
  template: Template;
  offers: Offers;
  /** What is asked of the hand: nothing, the first edge, or the second. */
  matching: 0 | 1 | 2;
  onMatch: (on: boolean) => void;
  onJoins: (joins: readonly TemplateJoin[]) => void;
  onPicked: (roles: Template['picked']) => void;
}) {
  const [joining, setJoining] = useState(false);
  const joins = template.joins ?? [];
  const put = (id: string, next: TemplateJoin | null): void =>
    onJoins(next ? joins.map((j) => (j.id === id ? next : j)) : joins.filter((j) => j.id !== id));
  const open = offers.joins.filter((p) => !joins.some((j) => p.ways.some((w) => w.id === j.id)));
  const several = offers.pieces.length > 1;
  return (
    <>
      {several && (
        <>
          <chakra.h3 className="heading" mb="6px !important">
            Pieces joined
          </chakra.h3>
          <chakra.p className="dim" m="0 0 8px" fontSize="13px">
            {offers.pieces.length} pieces. Drag one onto another, match two edges, or take what is offered.
          </chakra.p>
          {joins.map((j) => (
            <Joined key={j.id} join={j} onChange={(next) => put(j.id, next)} />
          ))}
          <Box display="flex" gap="6px" flexWrap="wrap" mb="8px">
            <Action small on={matching > 0} onClick={() => onMatch(matching === 0)}>
              {matching === 2 ? 'Now click the edge it goes to' : matching === 1 ? 'Click an edge' : 'Match two edges'}
            </Action>
            {offers.joins.length > 0 && (
              <Action
                small
                disabled={joining}
                onClick={() => {
                  setJoining(true);
                  void engine('shape')
                    .settle(template)
                    .then((a) => {
                      setJoining(false);
                      if (a.ok) onJoins(a.value);
                    });
                }}
              >
                {joining ? 'Joining…' : 'Join what fits'}
              </Action>
            )}
          </Box>
          {open.map((p) => (
            <Offered
              key={p.lines.join(' ')}
              proposal={p}
              onTake={(join) => onJoins([...joins, { ...join, id: freeJoinId(joins, join.id) }])}
            />
          ))}
        </>
      )}
      {offers.folds.length > 0 && (
        <>
          <chakra.h3 className="heading" m="10px 0 6px !important">
            Folds that fold flat
          </chakra.h3>
          <Box
            display="flex"
            gap="6px"
            flexWrap="wrap"
            mb="8px"
            role="group"
            aria-label="Choices of mountains and valleys"
          >
            {offers.folds.map((folds, k) => (
              <Action
                key={k}
                small
                on={Object.entries(folds).every(([id, role]) => template.picked[id] === role)}
                onClick={() => onPicked({ ...template.picked, ...folds })}
              >
                {k + 1}: {countOf(folds, 'mountain')} up, {countOf(folds, 'valley')} down
              </Action>
            ))}
          </Box>
        </>
      )}
    </>
  );
}

const countOf = (folds: Offers['folds'][number], fold: 'mountain' | 'valley'): number =>
  Object.values(folds).filter((r) => (r === 'mountain' || r === 'perforation-mountain') === (fold === 'mountain'))
    .length;

function Joined({ join, onChange }: { join: TemplateJoin; onChange: (next: TemplateJoin | null) => void }) {
  return (
    <Box border="1px solid var(--rule)" borderRadius="card" p="6px 9px" mb="6px" data-join={join.id}>
      <Box display="flex" alignItems="center" mb="4px">
        <chakra.span flex="1">
          {join.id} <span className="dim">· {KIND_WORDS[join.kind]}</span>
        </chakra.span>
        <Action small aria-label={`Take ${join.id} away`} onClick={() => onChange(null)}>
          ×
        </Action>
      </Box>
      {join.kind === 'bond' && (
        <Box display="flex" gap="6px">
          <Action small on={join.turned} onClick={() => onChange(turnedOver(join))}>
            Turned over
          </Action>
          <Action small onClick={() => onChange(reversed(join))}>
            Other way round
          </Action>
        </Box>
      )}
    </Box>
  );
}

function Offered({ proposal, onTake }: { proposal: Proposal; onTake: (join: TemplateJoin) => void }) {
  const [way] = proposal.ways;
  return (
    <Box display="flex" alignItems="center" gap="8px" mb="4px" fontSize="13px">
      <chakra.span flex="1" minWidth="0" overflow="hidden" textOverflow="ellipsis">
        {proposal.lines.join(' and ')} <span className="dim">· {KIND_WORDS[way.kind]}</span>
      </chakra.span>
      <Action small onClick={() => onTake(way)}>
        Join
      </Action>
    </Box>
  );
}
