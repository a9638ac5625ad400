'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { withValues, type Candidate, type Free, type TargetAsk, type TargetResult } from '@/core/decide/target';
import { USUAL_OPEN, type Want } from '@/core/decide/wants';
import { nameOfMeasure, saidAt } from '@/core/decide/words';
import { sayNumber } from '@/core/document/words';
import type { Design } from '@/core/document/design';
import { envelopeOf } from '@/core/document/post';
import { CARD } from '@/core/ids';
import { useActions, useStudio } from '@/store/context';
import { engine, type Purpose } from '@/workers/client';
import { dealt, searchOn } from '@/workers/search';
import { Action } from '../common/Action';
import {
  freeOf,
  measureSaid,
  measuresToWant,
  nameOfFree,
  numbersToFree,
  parted,
  valueNow,
  VERDICT_WORDS,
  type Named,
} from './choices';
import { FreeNumber, Wish } from './SearchFields';
import { useJob } from './useJob';

/** Workers that a search is divided over. */
const HANDS: readonly Purpose[] = ['decide', 'decide2', 'decide3', 'decide4'];

const FIRST_WISH: Want = { mechanism: CARD, measure: 'lift_mm', is: 'equal', open: USUAL_OPEN };

/** What is told while it searches: how much is done, and then what was found. */
type Searched = { readonly part: number; readonly result: TargetResult | null; readonly ask: TargetAsk };

/** Say what the card should be like, and which numbers may change. */
export function SearchPane() {
  const design = useStudio((s) => s.design);
  const proof = useStudio((s) => s.proof);
  const selected = useStudio((s) => s.selected);
  const measures = proof?.measures;
  const wantable = useMemo(() => measuresToWant(design, measures ?? {}), [design, measures]);
  const freeable = useMemo(() => numbersToFree(design), [design]);
  const [said, setWants] = useState<readonly Want[]>([]);
  const wants = said.length > 0 ? said : [{ ...FIRST_WISH, value: valueNow(proof, CARD, 'lift_mm') }];
  const [free, setFree] = useState<readonly Free[]>([]);
  const chosen = free.length > 0 ? free : firstFree(design, freeable, selected);
  const envelope = envelopeOf(design);
  const ask: TargetAsk = { wants, free: chosen };
  const job = useJob<Searched>('search', async (_, d, onMore, given) => {
    const told = (part: number): void => onMore({ part, result: null, ask });
    const answer = await searchOn(dealt(navigator.hardwareConcurrency), (k) => engine(HANDS[k], given), d, ask, told);
    return answer.ok ? { ok: true, value: { part: 1, result: answer.value, ask } } : answer;
  });
  if (freeable.length === 0) return <p className="dim">The card has no number yet that could be searched.</p>;
  return (
    <Box data-testid="search" css={{ '& > div': { marginBottom: '8px' } }}>
      {wants.map((want, k) => (
        <Wish
          key={k}
          name={`Wish ${k + 1}`}
          want={want}
          wantable={wantable}
          onChange={(next) => setWants(wants.with(k, next))}
          onLeave={wants.length > 1 ? () => setWants(wants.toSpliced(k, 1)) : undefined}
        />
      ))}
      <Box display="flex" gap="6px">
        <Action small onClick={() => setWants([...wants, { ...wants[wants.length - 1], is: 'atMost' }])}>
          Another wish
        </Action>
      </Box>
      {chosen.map((f, k) => (
        <FreeNumber
          key={k}
          place={k}
          free={f}
          freeable={freeable}
          onChange={(next) => setFree(chosen.with(k, next))}
          onHold={chosen.length > 1 ? () => setFree(chosen.toSpliced(k, 1)) : undefined}
        />
      ))}
      <Box display="flex" gap="6px" alignItems="center">
        <Action
          small
          disabled={chosen.length >= 4}
          onClick={() =>
            setFree([...chosen, freeOf(design, (freeable.find((n) => !isIn(chosen, n.id)) ?? freeable[0]).id)!])
          }
        >
          Another number
        </Action>
        {job.busy ? (
          <>
            <chakra.progress value={job.found?.part ?? 0} max={1} aria-label="Searched so far" width="110px" />
            <Action small onClick={job.stop}>
              Give up
            </Action>
          </>
        ) : (
          <Action small strong onClick={job.start}>
            Search
          </Action>
        )}
      </Box>
      <p className="dim">
        {`What is told is proved in full against the brief${envelope ? `, posted in ${envelope.name}` : ''}.`}
      </p>
      {job.why && (
        <chakra.p role="alert" color="bad" m="0">
          {job.why}
        </chakra.p>
      )}
      {job.found?.result && <Found result={job.found.result} ask={job.found.ask} stale={job.of !== design} />}
    </Box>
  );
}
const isIn = (free: readonly Free[], id: string): boolean => free.some((f) => `${f.mechanism} ${f.key}` === id);
/** The first number of what is selected, or of the card. */
function firstFree(design: Design, freeable: readonly Named[], selected: string): readonly Free[] {
  const own = selected === CARD ? undefined : freeable.find((n) => parted(n.id).mechanism === selected);
  const first = own ?? freeable[0];
  const free = first && freeOf(design, first.id);
  return free ? [free] : [];
}

/** Each answer: looked at on the card, and taken. */
function Found({ result: { found, nearest }, ask, stale }: { result: TargetResult; ask: TargetAsk; stale: boolean }) {
  return (
    <Box
      role="status"
      data-testid="found"
      ref={(el: HTMLDivElement | null) => el?.scrollIntoView({ block: 'nearest' })}
    >
      {stale && <p className="dim">The card has changed since: search again to be sure.</p>}
      {found.length > 0 ? (
        <chakra.p m="0 0 4px">
          {found.length === 1 ? 'One answer, proved:' : `${found.length} answers, proved:`}
        </chakra.p>
      ) : (
        <chakra.p m="0 0 4px">Nothing was found{nearest ? '. Nearest:' : '.'}</chakra.p>
      )}
      {found.map((c, k) => (
        <Answered key={k} candidate={c} ask={ask} takes />
      ))}
      {nearest && (
        <>
          <Answered candidate={nearest} ask={ask} />
          <chakra.ul m="4px 0 0 18px" data-testid="against">
            {nearest.against.map((why) => (
              <li key={why}>{why}</li>
            ))}
          </chakra.ul>
        </>
      )}
    </Box>
  );
}

function Answered({ candidate: c, ask, takes = false }: { candidate: Candidate; ask: TargetAsk; takes?: boolean }) {
  const design = useStudio((s) => s.design);
  const { edit, showPreview } = useActions();
  const changed = (d: Design): Design => withValues(d, ask.free, c.values);
  return (
    <Box
      display="flex"
      flexWrap="wrap"
      gap="4px 12px"
      alignItems="center"
      py="4px"
      borderTop="1px solid var(--rule)"
      onPointerEnter={() => showPreview(changed(design))}
      onPointerLeave={() => showPreview(null)}
    >
      <Box flex="1" minWidth="200px">
        {ask.free.map((f, k) => (
          <div key={`${f.mechanism} ${f.key}`}>
            {nameOfFree(design, f)}: <b className="num">{sayNumber(design, f.mechanism, f.key, c.values[k])}</b>
          </div>
        ))}
        {ask.wants.map((w, k) => (
          <div key={k} className="dim">
            {nameOfMeasure(design, w)} {saidAt(design, w)} is {measureSaid(w.measure, c.measures[k], design.units)}
          </div>
        ))}
        <div className="dim">{VERDICT_WORDS[c.verdict]}</div>
      </Box>
      <Action
        small
        onFocus={() => showPreview(changed(design))}
        onBlur={() => showPreview(null)}
        onClick={() => showPreview(changed(design))}
      >
        Look at it
      </Action>
      {takes && (
        <Action
          small
          strong
          onClick={() => {
            showPreview(null);
            edit('what was searched for', changed);
          }}
        >
          Take it
        </Action>
      )}
    </Box>
  );
}
