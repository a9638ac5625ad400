'use client';
import { Box, chakra } from '@chakra-ui/react';
import { GROUP_WORDS } from '@/core/build/steps';
import { takenWords } from '@/core/build/taken';
import { useActions, useStudio } from '@/store/context';
import type { PicturedStep } from '@/workers/protocol';
import { PosedPicture } from '../common/PosedPicture';

interface Work {
  readonly steps: readonly PicturedStep[];
  readonly rings: readonly (readonly string[])[];
}

/** The work step by step, grouped as it is done; what is done is ticked off and stays so. */
export function WorkSteps({ work: { steps, rings } }: { readonly work: Work }) {
  const done = useStudio((s) => s.design.done) ?? [];
  const units = useStudio((s) => s.design.units);
  const { edit } = useActions();
  const tick = (id: string, title: string, on: boolean): void =>
    edit(`${title} ${on ? 'done' : 'not done'}`, (d) => {
      const rest = (d.done ?? []).filter((x) => x !== id);
      return { ...d, done: on ? [...rest, id] : rest };
    });
  const ready = steps.filter(({ step }) => done.includes(step.id)).length;
  const numbers = new Map(steps.map(({ step }, k) => [step.id, k + 1]));
  const runs = inRuns(steps);
  return (
    <section aria-label="Step by step">
      <chakra.p className="dim" m="0 0 8px" role="status">
        {ready} of {steps.length} steps done.
      </chakra.p>
      {rings.map((ring) => (
        <chakra.p key={ring.join()} color="warn" m="0 0 8px">
          {ring.join(' and ')} stand in each other’s way: the first is glued first, with the other bent aside.
        </chakra.p>
      ))}
      {runs.map((run) => (
        <Box key={run[0].step.id} mb="14px">
          <chakra.h3 fontSize="14px" fontWeight="700" m="0 0 6px">
            {GROUP_WORDS[run[0].step.group]}
          </chakra.h3>
          <Box
            as="ol"
            listStyleType="none"
            m="0"
            p="0"
            display="grid"
            gridTemplateColumns="repeat(auto-fill, minmax(230px, 1fr))"
            gap="14px"
          >
            {run.map(({ step, picture, marks }) => {
              const ticked = done.includes(step.id);
              return (
                <Box
                  as="li"
                  key={step.id}
                  data-step={step.id}
                  border="1px solid var(--rule)"
                  borderRadius="card"
                  p="10px 12px"
                  opacity={ticked ? 0.6 : 1}
                >
                  <PosedPicture
                    picture={picture}
                    marks={marks}
                    height={132}
                    lit={step.subjects}
                    label={`${step.title}, picture`}
                  />
                  <chakra.label display="flex" gap="7px" alignItems="baseline" fontWeight="700" mt="5px">
                    <input
                      type="checkbox"
                      checked={ticked}
                      onChange={(e) => tick(step.id, step.title, e.currentTarget.checked)}
                    />
                    <span>
                      {numbers.get(step.id)}. {step.title}
                    </span>
                  </chakra.label>
                  <Box fontSize="13px">{step.text}</Box>
                  {step.takes.length > 0 && (
                    <Box fontSize="13px" className="dim">
                      Takes {step.takes.map((t) => takenWords(t, units)).join(', ')}.
                    </Box>
                  )}
                </Box>
              );
            })}
          </Box>
        </Box>
      ))}
    </section>
  );
}

/** Steps of one group that follow each other. */
function inRuns(steps: readonly PicturedStep[]): PicturedStep[][] {
  const runs: PicturedStep[][] = [];
  for (const s of steps) {
    const last = runs.at(-1);
    if (last && last[0].step.group === s.step.group) last.push(s);
    else runs.push([s]);
  }
  return runs;
}
