'use client';
import { OPEN, openOf } from '@/core/drives';
import { useState } from 'react';
import { Box, chakra } from '@chakra-ui/react';
import { RULE_WORDS, type Finding, type Remedy } from '@/core/rules';
import { remedyWords } from '@/core/document/remedy-words';
import { leverValue, setLever } from '@/core/proof/prove';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import { Action } from '../common/Action';

const TINT: Readonly<Record<Finding['severity'], string>> = {
  blocks: 'var(--bad)',
  risk: 'var(--warn)',
  note: 'var(--ink-2)',
};
const WORD: Readonly<Record<Finding['severity'], string>> = { blocks: 'blocks', risk: 'risk', note: 'note' };

/** A finding and its remedies: each previewed on hover, applied by a click, undone like any change. */
export function FindingCard({ finding: f, wide = false }: { finding: Finding; wide?: boolean }) {
  const design = useStudio((s) => s.design);
  const proving = useStudio((s) => s.proving);
  const { edit, showPreview, light, select, carry, stand } = useActions();
  const store = useStudioStore();
  const [seeking, setSeeking] = useState(false);
  const look = async (): Promise<void> => {
    setSeeking(true);
    await store.seek(f);
    setSeeking(false);
  };
  const words = (r: Remedy): string => remedyWords(design, r, leverValue(design, r.mechanism, r.parameter) ?? 0);
  const apply = (r: Remedy): void => edit(words(r), (d) => setLever(d, r.mechanism, r.parameter, r.value));
  return (
    <Box
      as="article"
      data-finding={f.rule}
      bg="field"
      borderWidth="1px"
      borderColor="rule"
      borderLeft="4px solid"
      borderLeftColor={TINT[f.severity]}
      p="9px 12px"
      mb="9px"
      borderRadius="2px"
      onPointerEnter={() => light(f.subjects)}
      onPointerLeave={() => light([])}
    >
      <Box
        display="flex"
        gap="8px"
        justifyContent="space-between"
        fontSize="12px"
        color={TINT[f.severity]}
        fontWeight="700"
        mb="2px"
      >
        <span>{RULE_WORDS[f.rule]}</span>
        <span>{WORD[f.severity]}</span>
      </Box>
      <Box>{f.message}</Box>
      {f.nearest && (
        <Box className="dim" fontSize="12.5px" mt="5px">
          No single number clears it. Nearest: {words(f.nearest)} still leaves: {f.nearest.left}
        </Box>
      )}
      <Box display="flex" gap="6px" flexWrap="wrap" mt="7px">
        {f.remedies?.map((r) => (
          <Action
            key={`${r.mechanism}${r.parameter}`}
            small
            onClick={() => apply(r)}
            onPointerEnter={() => showPreview(setLever(design, r.mechanism, r.parameter, r.value))}
            onPointerLeave={() => showPreview(null)}
            onFocus={() => showPreview(setLever(design, r.mechanism, r.parameter, r.value))}
            onBlur={() => showPreview(null)}
          >
            {words(r)}
          </Action>
        ))}
        {!f.remedies && !f.nearest && !f.unsought && f.levers.length > 0 && proving && (
          <chakra.span className="dim" fontSize="12.5px">
            looking for remedies…
          </chakra.span>
        )}
        {f.unsought && !proving && (
          <Action small disabled={seeking} onClick={() => void look()}>
            {seeking ? 'looking for a number…' : 'Look for a number that clears it'}
          </Action>
        )}
        {wide && (
          <Action
            small
            onClick={() => {
              select(f.mechanism);
              stand(f.drive);
              carry(Object.keys(f.drive).find((id) => id !== OPEN && f.drive[id] !== 0) ?? OPEN);
            }}
          >
            Show at {openOf(f.drive).toFixed(0)}°
          </Action>
        )}
      </Box>
    </Box>
  );
}
