'use client';
import { Box } from '@chakra-ui/react';
import { CARD } from '@/core/ids';
import { useStudio } from '@/store/context';
import { Hint } from '../common/Hint';
import { FindingCard } from '../prove/FindingCard';
import { CardFields } from './CardFields';
import { PostFields } from './PostFields';
import { SentCard } from './SentCard';
import { StatesList } from './StatesList';
import { StockTable } from './StockTable';

/** What the card is: size, fold, post, stocks. On the right the closed card against its envelope, true proportions. */
export function BriefStage() {
  const design = useStudio((s) => s.design);
  const findings = useStudio((s) => s.proof?.findings)?.filter((f) => f.mechanism === CARD);
  return (
    <Box display="grid" gridTemplateColumns="330px minmax(0, 1fr)" height="100%" minHeight="0">
      <Box bg="panel" p="14px 18px" overflowY="auto" borderRight="1px solid var(--rule)">
        <Hint />
        <CardFields />
        <PostFields />
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
