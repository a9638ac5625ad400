'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { cardValues, valuesOf } from '@/core/document/fields';
import { type Design, type Mechanism } from '@/core/document/design';
import { listOf } from '@/core/kinds';
import { wordsOfPart } from '@/core/ids';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { KindSign } from '../common/Mark';

const RISE: Readonly<Record<string, string>> = { blocks: 'var(--bad)', risk: 'var(--warn)' };

/** What stands on what. The same list in every stage. */
export function BuildList() {
  const design = useStudio((s) => s.design);
  const selected = useStudio((s) => s.selected);
  const lit = useStudio((s) => s.lit);
  const findings = useStudio((s) => s.proof?.findings);
  const scene = useStudio((s) => s.scene);
  const { select, light, add } = useActions();
  const { gutter, reachA } = cardValues(design);

  const worst = (id: string): string | undefined => {
    const own = findings?.filter((f) => f.mechanism === id) ?? [];
    return own.some((f) => f.severity === 'blocks')
      ? RISE.blocks
      : own.some((f) => f.severity === 'risk')
        ? RISE.risk
        : undefined;
  };
  const row = (id: string, depth: number, title: string, size: string): ReactNode => (
    <chakra.button
      type="button"
      onClick={() => select(id)}
      aria-current={selected === id ? 'true' : undefined}
      data-mechanism={id}
      onPointerEnter={() => light(scene?.facets.filter((f) => f.mechanism === id).map((f) => f.id) ?? [])}
      onPointerLeave={() => light([])}
      width="100%"
      display="flex"
      alignItems="center"
      gap="7px"
      pl={`${11 + depth * 13}px`}
      pr="10px"
      minHeight="27px"
      cursor="pointer"
      textAlign="left"
      bg={
        selected === id
          ? 'wash'
          : scene?.facets.some((f) => f.mechanism === id && id !== 'card' && lit.includes(f.id))
            ? 'var(--board)'
            : undefined
      }
      borderLeft="3px solid"
      borderColor={selected === id ? 'accent' : 'transparent'}
      _hover={{ bg: 'var(--board)' }}
    >
      <KindSign
        kind={id === 'card' ? 'card' : design.mechanisms.find((m) => m.id === id)!.kind}
        hue={id === 'card' ? 'var(--ink-2)' : 'var(--mountain)'}
      />
      <chakra.span flex="1" minWidth="0" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
        {title}
      </chakra.span>
      <chakra.span className="num dim" fontSize="12.5px">
        {size}
      </chakra.span>
      {worst(id) && (
        <chakra.span
          aria-label={worst(id) === RISE.blocks ? 'has a finding that blocks' : 'has a risk'}
          width="4px"
          height="13px"
          bg={worst(id)}
          flex="none"
        />
      )}
    </chakra.button>
  );
  const standing = (crease: string, depth: number): ReactNode =>
    design.mechanisms
      .filter((m) => m.on === crease)
      .map((m) => (
        <Box as="li" key={m.id}>
          {row(
            m.id,
            depth,
            `${crease === 'card.gutter' ? '' : `${wordsOfPart(crease)}: `}${m.name}`,
            sizeOf(design, m),
          )}
          <Box as="ul" listStyleType="none" m="0" p="0">
            {creasesOf(design, m.id).map((c) => standing(c, depth + 1))}
          </Box>
        </Box>
      ));

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
      <chakra.h2 className="heading" p="14px 14px 8px">
        Build list
      </chakra.h2>
      <Box flex="1" overflowY="auto" minHeight="0">
        <Box as="ul" listStyleType="none" m="0" p="0">
          <Box as="li">
            {row(
              'card',
              0,
              'Base card',
              `${formatLength(gutter as number, design.units)} × ${formatLength(reachA as number, design.units)}`,
            )}
          </Box>
          {standing('card.gutter', 1)}
        </Box>
        {design.mechanisms.length === 0 && (
          <chakra.p px="16px" py="8px" color="ink2" m="0">
            Nothing stands on the gutter yet.
          </chakra.p>
        )}
      </Box>
      <Box p="12px 14px" borderTop="1px solid var(--rule)">
        <chakra.button
          type="button"
          onClick={() => add('card.gutter')}
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

const creasesOf = (design: Design, id: string): string[] => [
  ...new Set(design.mechanisms.filter((m) => m.on.startsWith(`${id}.`)).map((m) => m.on)),
];

function sizeOf(design: Design, m: Mechanism): string {
  const v = valuesOf(m);
  const show = (x: unknown): string => formatLength(x as number, design.units);
  switch (m.kind) {
    case 'step-fold':
      return `${show(v.depth)} × ${show(v.height)}`;
    case 'strut-figure':
      return `${show(v.depth)} deep`;
    case 'plane-stack':
      return `${listOf(v, 'planes').length} ${listOf(v, 'planes').length === 1 ? 'plane' : 'planes'}`;
    case 'half-cut':
      return `rises ${show(v.rise)}`;
    case 'floating-band':
      return `slits ${show(v.slit)}`;
    default:
      return `lean ${v.lean as number}°`;
  }
}
