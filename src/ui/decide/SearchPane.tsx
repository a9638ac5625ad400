'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { withValues, type Candidate, type Free, type TargetAsk, type TargetResult } from '@/core/decide/target';
import { USUAL_OPEN, WANT_KINDS, type Want, type WantKind } from '@/core/decide/wants';
import { nameOfMeasure, saidAt } from '@/core/decide/words';
import { isAngle, sayNumber } from '@/core/document/words';
import type { Design } from '@/core/document/design';
import type { Parameter } from '@/core/kinds';
import { useActions, useStudio } from '@/store/context';
import { engine, type Purpose } from '@/workers/client';
import { dealt, searchOn } from '@/workers/search';
import { mm } from '../common/asked';
import { Action } from '../common/Action';
import { Pick } from '../common/Pick';
import { NumberField } from '../common/Field';
import { freeOf, measureSaid, measuresToWant, nameOfFree, numbersToFree, parted, VERDICT_WORDS } from './choices';
import { StateChoice } from './StateChoice';
import { useJob } from './useJob';

/** Workers that a search is divided over. */
const HANDS: readonly Purpose[] = ['decide', 'decide2', 'decide3', 'decide4'];

const KIND_WORDS: Readonly<Record<WantKind, string>> = {
  equal: 'is',
  atLeast: 'is at least',
  atMost: 'is at most',
  most: 'as large as possible',
  least: 'as small as possible',
};
const hasValue = (is: WantKind): boolean => is !== 'most' && is !== 'least';
const VALUE = mm('want-value', 'Value', -5000, 5000);
const FROM = mm('free-from', 'from', -5000, 5000);
const TO = mm('free-to', 'to', -5000, 5000);

const endOf = (design: Design, { mechanism, key }: Free, end: Parameter): Parameter =>
  isAngle(design, mechanism, key) ? { ...end, unit: 'deg' } : end;

/** What is told while it searches: how much is done, and then what was found. */
type Searched = { readonly part: number; readonly result: TargetResult | null; readonly ask: TargetAsk };

/** Say what the card should be like, and which numbers may change. */
export function SearchPane() {
  const design = useStudio((s) => s.design);
  const measures = useStudio((s) => s.proof?.measures);
  const wantable = useMemo(() => measuresToWant(design, measures ?? {}), [design, measures]);
  const freeable = useMemo(() => numbersToFree(design), [design]);
  const [wants, setWants] = useState<readonly Want[]>([
    { mechanism: 'card', measure: 'lift_mm', is: 'equal', value: 50, open: USUAL_OPEN },
  ]);
  const [free, setFree] = useState<readonly Free[]>([]);
  const chosen = free.length > 0 ? free : firstFree(design, freeable);
  const ask: TargetAsk = { wants, free: chosen };
  const job = useJob<Searched>('search', async (_, d, onMore, given) => {
    const told = (part: number): void => onMore({ part, result: null, ask });
    const answer = await searchOn(dealt(navigator.hardwareConcurrency), (k) => engine(HANDS[k], given), d, ask, told);
    return answer.ok ? { ok: true, value: { part: 1, result: answer.value, ask } } : answer;
  });
  const put = (k: number, change: Partial<Want>): void =>
    setWants(wants.map((w, i) => (i === k ? { ...w, ...change } : w)));
  const putFree = (k: number, next: Free | null): void =>
    setFree(chosen.flatMap((f, i) => (i === k ? (next ? [next] : []) : [f])));
  if (freeable.length === 0) return <p className="dim">The card has no number yet that could be searched.</p>;
  return (
    <Box data-testid="search" css={{ '& > div': { marginBottom: '8px' } }}>
      {wants.map((w, k) => (
        <Box
          key={k}
          role="group"
          aria-label={`Wish ${k + 1}`}
          display="flex"
          flexWrap="wrap"
          gap="6px"
          alignItems="center"
        >
          <Pick
            label="Measure"
            value={`${w.mechanism} ${w.measure}`}
            choices={wantable}
            onChange={(id) => {
              const { mechanism, key } = parted(id);
              put(k, { mechanism, measure: key });
            }}
          />
          <Pick
            label="How it should be"
            value={w.is}
            choices={WANT_KINDS.map((id) => ({ id, name: KIND_WORDS[id] }))}
            onChange={(is) => put(k, { is: is as WantKind })}
          />
          {hasValue(w.is) && (
            <NumberField
              parameter={w.measure.endsWith('_deg') ? { ...VALUE, unit: 'deg' } : VALUE}
              value={w.value ?? 0}
              unit={design.units}
              onChange={(v) => put(k, { value: v ?? 0 })}
            />
          )}
          <StateChoice at={w} onChange={(at) => put(k, { drives: undefined, ...at })} />
          {wants.length > 1 && (
            <Action
              small
              aria-label={`Leave wish ${k + 1} out`}
              onClick={() => setWants(wants.filter((_, i) => i !== k))}
            >
              ×
            </Action>
          )}
        </Box>
      ))}
      <Box display="flex" gap="6px">
        <Action small onClick={() => setWants([...wants, { ...wants[wants.length - 1], is: 'atMost' }])}>
          Another wish
        </Action>
      </Box>
      {chosen.map((f, k) => (
        <Box
          key={k}
          role="group"
          aria-label={`Free number ${k + 1}`}
          display="flex"
          flexWrap="wrap"
          gap="6px"
          alignItems="center"
        >
          <span>Free</span>
          <Pick
            label="Number that may change"
            testId={`free-${k}`}
            value={`${f.mechanism} ${f.key}`}
            choices={freeable}
            onChange={(id) => putFree(k, freeOf(design, id))}
          />
          <NumberField
            parameter={endOf(design, f, FROM)}
            value={f.from}
            unit={design.units}
            onChange={(v) => putFree(k, { ...f, from: v ?? f.from })}
          />
          <NumberField
            parameter={endOf(design, f, TO)}
            value={f.to}
            unit={design.units}
            onChange={(v) => putFree(k, { ...f, to: v ?? f.to })}
          />
          {chosen.length > 1 && (
            <Action small aria-label={`Hold number ${k + 1}`} onClick={() => putFree(k, null)}>
              ×
            </Action>
          )}
        </Box>
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
function firstFree(design: Design, freeable: readonly { readonly id: string }[]): readonly Free[] {
  const first = freeable[0] && freeOf(design, freeable[0].id);
  return first ? [first] : [];
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
            {nameOfMeasure(design, w)} {saidAt(design, w)}: {measureSaid(w.measure, c.measures[k], design.units)}
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
