'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import type { MapCell } from '@/core/decide/map';
import type { Free } from '@/core/decide/target';
import { USUAL_OPEN, type At, type Measured } from '@/core/decide/wants';
import { useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { Pick } from '../common/Pick';
import { freeOf, measuresToWant, numbersToFree, parted } from './choices';
import { MapPicture } from './MapPicture';
import { StateChoice } from './StateChoice';
import { useJob } from './useJob';

const PLAIN = { id: 'none', name: 'the verdict alone' };

/** The verdict over two numbers as a picture: pointed at to read, clicked to go there. */
export function MapPane() {
  const design = useStudio((s) => s.design);
  const measures = useStudio((s) => s.proof?.measures);
  const numbers = useMemo(() => numbersToFree(design), [design]);
  const wantable = useMemo(() => [PLAIN, ...measuresToWant(design, measures ?? {})], [design, measures]);
  const [picked, setPicked] = useState<readonly (string | null)[]>([null, null]);
  const [measure, setMeasure] = useState(PLAIN.id);
  const ids = [picked[0] ?? numbers[0]?.id, picked[1] ?? numbers[1]?.id];
  const [x, y] = ids.map((id) => (id ? freeOf(design, id) : null));
  const [looked, setLooked] = useState<At>({ open: USUAL_OPEN });
  const want =
    measure === PLAIN.id ? null : { mechanism: parted(measure).mechanism, measure: parted(measure).key, ...looked };
  const job = useJob<{
    readonly cells: readonly MapCell[];
    readonly x: Free;
    readonly y: Free;
    readonly measure: Measured | null;
  }>('map', async (at, d, onMore) => {
    const told = (cells: readonly MapCell[]) => ({ cells, x: x!, y: y!, measure: want });
    const answer = await at.map(d, { x: x!, y: y!, measure: want }, (cells) => onMore(told(cells)));
    return answer.ok ? { ok: true, value: told(answer.value) } : answer;
  });
  if (numbers.length < 2) return <p className="dim">A map needs two numbers: put something on the card.</p>;
  return (
    <Box data-testid="map">
      <Box
        display="flex"
        flexWrap="wrap"
        gap="6px"
        alignItems="center"
        mb="8px"
        css={{ '& > div': { marginBottom: 0 } }}
      >
        <Pick label="Across" value={ids[0]} choices={numbers} onChange={(id) => setPicked([id, picked[1]])} />
        <Pick label="Up" value={ids[1]} choices={numbers} onChange={(id) => setPicked([picked[0], id])} />
        <Pick label="Measure" value={measure} choices={wantable} onChange={setMeasure} />
        {want && <StateChoice at={looked} onChange={setLooked} />}
        {job.busy ? (
          <Action small onClick={job.stop}>
            Give up
          </Action>
        ) : (
          <Action small strong disabled={ids[0] === ids[1]} onClick={job.start}>
            Draw the map
          </Action>
        )}
        {job.busy && <span className="dim">{job.found?.cells.length ?? 0} places judged</span>}
      </Box>
      {job.why && (
        <chakra.p role="alert" color="bad" m="0">
          {job.why}
        </chakra.p>
      )}
      {job.found && <MapPicture {...job.found} stale={job.of !== design} />}
    </Box>
  );
}
