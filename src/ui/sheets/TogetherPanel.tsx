'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Backs, Design } from '@/core/document/design';
import { MACHINES } from '@/core/paper/machine';
import { useActions, useStudio } from '@/store/context';
import { listProjects } from '@/store/projects';
import { mm } from '../common/asked';
import { Choice, NumberField } from '../common/Field';
import { Everything, type Message } from '../make/Everything';

const WIDTH = mm('widthMm', 'Bed, wide', 20, 5000);
const HEIGHT = mm('heightMm', 'Bed, high', 20, 5000);
const DEFAULT_BED = { widthMm: MACHINES[0].bed.widthMm, heightMm: MACHINES[0].bed.heightMm, at: {} };

/** The bed that takes several sheets at once, and the cards that are cut together with this one. */
export function TogetherPanel({
  guests,
  onGuests,
}: {
  readonly guests: ReadonlyMap<string, Design>;
  readonly onGuests: (guests: ReadonlyMap<string, Design>) => void;
}) {
  const { bed } = useStudio((s) => s.design.sheets);
  const units = useStudio((s) => s.design.units);
  const { edit } = useActions();
  const setBed = (label: string, next: typeof bed | null): void =>
    edit(label, (d) => {
      const { bed: _, ...rest } = d.sheets;
      return { ...d, sheets: next ? { ...rest, bed: next } : rest };
    });
  return (
    <Box as="section" aria-label="Cut together">
      <chakra.h2 className="heading" m="16px 0 8px !important">
        Cut together
      </chakra.h2>
      <Choice
        label="Sheets"
        value={bed ? 'bed' : 'single'}
        choices={[
          { id: 'single', name: 'one by one' },
          { id: 'bed', name: 'on a bed' },
        ]}
        onChange={(id) => setBed('cutting bed', id === 'bed' ? DEFAULT_BED : null)}
      />
      {bed && (
        <>
          <NumberField
            parameter={WIDTH}
            value={bed.widthMm}
            unit={units}
            onChange={(v) => v !== null && setBed('width of the bed', { ...bed, widthMm: v })}
          />
          <NumberField
            parameter={HEIGHT}
            value={bed.heightMm}
            unit={units}
            onChange={(v) => v !== null && setBed('height of the bed', { ...bed, heightMm: v })}
          />
        </>
      )}
      <Guests guests={guests} onGuests={onGuests} />
      <PrintFirst />
    </Box>
  );
}

/** Where something is printed: marks to register the cut by, and backs. */
function PrintFirst() {
  const printed = useStudio((s) => (s.design.artwork?.length ?? 0) > 0);
  const print = useStudio((s) => s.design.sheets.print) ?? { marks: false, backs: 'none' as const };
  const { edit } = useActions();
  if (!printed) return null;
  const set = (label: string, next: typeof print): void =>
    edit(label, (d) => ({ ...d, sheets: { ...d.sheets, print: next } }));
  return (
    <>
      <chakra.label display="flex" gap="7px" alignItems="center" m="6px 0 8px">
        <input
          type="checkbox"
          checked={print.marks}
          onChange={(e) => set('registration marks', { ...print, marks: e.currentTarget.checked })}
        />
        Marks to register the cut by
      </chakra.label>
      <Choice
        asList
        label="Backs"
        value={print.backs}
        choices={[
          { id: 'none', name: 'fronts only' },
          { id: 'long', name: 'turned about the long edge' },
          { id: 'short', name: 'turned about the short edge' },
        ]}
        onChange={(id) => set('backs', { ...print, backs: id as Backs })}
      />
    </>
  );
}

/** Other cards of this browser whose pieces go on the same sheets, for as long as this page is open. */
function Guests({ guests, onGuests }: Parameters<typeof TogetherPanel>[0]) {
  const own = useStudio((s) => s.id);
  const [message, setMessage] = useState<Message | null>(null);
  const [cards, setCards] = useState<readonly { readonly id: string; readonly design: Design }[] | null>(null);
  useEffect(() => {
    listProjects().then(
      ({ projects }) => setCards(projects.filter((p) => p.id !== own)),
      () => setCards([]),
    );
  }, [own]);
  return (
    <details>
      <chakra.summary cursor="pointer" mb="6px">
        Other cards on these sheets{guests.size > 0 && ` (${guests.size})`}
      </chakra.summary>
      {cards?.length === 0 && (
        <chakra.p className="dim" m="0 0 6px" fontSize="13px">
          No other card is kept in this browser.
        </chakra.p>
      )}
      {cards?.map(({ id, design }) => (
        <chakra.label key={id} display="flex" gap="7px" alignItems="center" mb="4px">
          <input
            type="checkbox"
            checked={guests.has(id)}
            onChange={(e) => {
              const next = new Map(guests);
              if (e.currentTarget.checked) next.set(id, design);
              else next.delete(id);
              onGuests(next);
            }}
          />
          {design.name}
        </chakra.label>
      ))}
      {guests.size > 0 && (
        <Box mt="6px">
          <Everything guests={[...guests.values()]} onMessage={setMessage} />
          {message && (
            <chakra.p role="status" mt="6px" fontSize="13px" color={message.bad ? 'bad' : 'ink2'}>
              {message.text}
            </chakra.p>
          )}
        </Box>
      )}
    </details>
  );
}
