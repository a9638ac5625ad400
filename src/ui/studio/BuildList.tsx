'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import type { Finding } from '@/core/rules';
import { CARD } from '@/core/ids';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { KindSign } from '../common/KindSign';
import { rowsOf, type ListRow } from './rows';

const ROW_PX = 27;
/** Rows kept ready above and below those that are seen. */
const ROWS_BESIDE = 12;

type Severity = Finding['severity'];
const RISE: Readonly<Partial<Record<Severity, string>>> = { blocks: 'var(--bad)', risk: 'var(--warn)' };
const TOLD: Readonly<Partial<Record<Severity, string>>> = { blocks: 'has a finding that blocks', risk: 'has a risk' };

/** The worst that is found of each mechanism. */
function worstOf(findings: readonly Finding[] = []): ReadonlyMap<string, Severity> {
  const worst = new Map<string, Severity>();
  for (const f of findings)
    if (f.severity === 'blocks' || !worst.has(f.mechanism) || worst.get(f.mechanism) === 'note')
      worst.set(f.mechanism, f.severity);
  return worst;
}

/** What stands on what. The same list in every stage; of a long one only the rows that are seen are drawn. */
export function BuildList() {
  const design = useStudio((s) => s.design);
  const firstHost = useStudio((s) => s.scene?.hosts[0]?.crease ?? null);
  const selected = useStudio((s) => s.selected);
  const also = useStudio((s) => s.also);
  const [several, setSeveral] = useState(false);
  const lit = useStudio((s) => s.lit);
  const findings = useStudio((s) => s.proof?.findings);
  const scene = useStudio((s) => s.scene);
  const { add } = useActions();
  const rows = useMemo(() => rowsOf(design), [design]);
  const worst = useMemo(() => worstOf(findings), [findings]);
  const bright = useMemo(() => {
    const named = new Set(lit);
    return new Set(scene?.facets.filter((f) => f.mechanism !== CARD && named.has(f.id)).map((f) => f.mechanism));
  }, [lit, scene]);
  const frame = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: ROWS_BESIDE,
    getItemKey: (i) => rows[i].id,
  });
  useEffect(() => {
    const at = rows.findIndex((r) => r.id === selected);
    if (at >= 0) list.scrollToIndex(at);
  }, [list, rows, selected]);

  return (
    <Box
      as="aside"
      className="no-print"
      bg="panel"
      borderRight="1px solid var(--rule)"
      display="flex"
      flexDirection="column"
      minHeight="0"
      aria-label="Build list"
    >
      <Box display="flex" alignItems="center" p="10px 14px 4px">
        <chakra.h2 className="heading" flex="1">
          Build list
        </chakra.h2>
        {design.mechanisms.length > 1 && (
          <Action
            small
            on={several}
            aria-pressed={several}
            title="Clicks choose one more each; so do clicks with Ctrl or Shift at any time"
            onClick={() => setSeveral(!several)}
          >
            Several
          </Action>
        )}
      </Box>
      <Box ref={frame} flex="1" overflowY="auto" minHeight="0">
        <ul style={{ listStyle: 'none', margin: 0, padding: 0, position: 'relative', height: list.getTotalSize() }}>
          {list.getVirtualItems().map(({ key, index, start }) => (
            <li
              key={key}
              aria-setsize={rows.length}
              aria-posinset={index + 1}
              style={{ position: 'absolute', top: 0, left: 0, right: 0, transform: `translateY(${start}px)` }}
            >
              <Row
                row={rows[index]}
                selected={rows[index].id === selected || also.includes(rows[index].id)}
                several={several}
                bright={bright.has(rows[index].id)}
                worst={worst.get(rows[index].id)}
              />
            </li>
          ))}
        </ul>
        {design.mechanisms.length === 0 && (
          <chakra.p px="16px" py="8px" color="ink2" m="0">
            Nothing stands on the card yet.
          </chakra.p>
        )}
      </Box>
      <Box p="12px 14px" borderTop="1px solid var(--rule)">
        <chakra.button
          type="button"
          onClick={() => add(firstHost)}
          width="100%"
          minHeight="32px"
          border="1px dashed var(--ink-2)"
          borderRadius="card"
          cursor="pointer"
          fontWeight="600"
          _hover={{ borderColor: 'accent', color: 'accent' }}
        >
          Stand something on…{' '}
          <chakra.kbd className="dim" fontFamily="inherit" fontSize="12px">
            N
          </chakra.kbd>
        </chakra.button>
      </Box>
    </Box>
  );
}

/** One row; drawn anew only when something of it changes. */
const Row = memo(function Row({
  row: { id, kind, depth, title, size },
  selected,
  several,
  bright,
  worst,
}: {
  row: ListRow;
  selected: boolean;
  /** A click chooses one more. */
  several: boolean;
  bright: boolean;
  worst: Severity | undefined;
}) {
  const scene = useStudio((s) => s.scene);
  const { select, selectAlso, light } = useActions();
  return (
    <chakra.button
      type="button"
      onClick={(e) => (several || e.ctrlKey || e.metaKey || e.shiftKey ? selectAlso(id) : select(id))}
      aria-current={selected ? 'true' : undefined}
      data-mechanism={id}
      onPointerEnter={() => light(scene?.facets.filter((f) => f.mechanism === id).map((f) => f.id) ?? [])}
      onPointerLeave={() => light([])}
      width="100%"
      display="flex"
      alignItems="center"
      gap="7px"
      pr="10px"
      height={`${ROW_PX}px`}
      cursor="pointer"
      textAlign="left"
      bg={selected ? 'wash' : bright ? 'var(--board)' : undefined}
      borderLeft="3px solid"
      borderColor={selected ? 'accent' : 'transparent'}
      _hover={{ bg: 'var(--board)' }}
      style={{ paddingLeft: 11 + depth * 13 }}
    >
      <KindSign kind={kind} hue={id === CARD ? 'var(--ink-2)' : 'var(--mountain)'} />
      <chakra.span flex="1" minWidth="0" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
        {title}
      </chakra.span>
      <chakra.span className="num dim" fontSize="12.5px">
        {size}
      </chakra.span>
      {worst && RISE[worst] && (
        <chakra.span aria-label={TOLD[worst]} width="4px" height="13px" bg={RISE[worst]} flex="none" />
      )}
    </chakra.button>
  );
});
