'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useRef, useState, type PointerEvent } from 'react';
import type { LetteredPlane } from '@/core/build/workshop';
import { setParameter, valuesOf } from '@/core/document/fields';
import { regionBox, ringsOf, type Region } from '@/core/plane/polygon';
import { contactForLine, type Letter, type LetterLine } from '@/core/shapes/letter-line';
import { formatLength, type LengthUnit } from '@/core/units/length';
import { atStart } from '@/core/document/words';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { useAsk } from '../shapes/useAsk';

/** Words of a stack of planes: where their letters are cut to stand on a line, and which of them touch it. */
export function LettersOnLine({ id }: { readonly id: string }) {
  const design = useStudio((s) => s.design);
  const m = design.mechanisms.find((x) => x.id === id)!;
  const { value } = useAsk(JSON.stringify([id, m.parameters, design.shapes]), () =>
    engine('shape').letterLines(design, id),
  );
  return (
    <>
      {value?.map((lettered) => (
        <Word key={lettered.plane} id={id} contactMm={Number(valuesOf(m).contact)} {...lettered} />
      ))}
    </>
  );
}

function Word({ id, contactMm, plane, line }: LetteredPlane & { readonly id: string; readonly contactMm: number }) {
  const units = useStudio((s) => s.design.units);
  const { edit } = useActions();
  const svg = useRef<SVGSVGElement>(null);
  const [upMm, setUpMm] = useState<number | null>(null);
  const { min, max } = regionBox(line.drawn);
  const now = -min[1];
  const pad = (max[0] - min[0]) * 0.03;
  const view = [min[0] - pad, -max[1] - pad, max[0] - min[0] + 2 * pad, max[1] - min[1] + 2 * pad];
  const raised = (e: PointerEvent): number => {
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.current!.getScreenCTM()!.inverse());
    return Math.min(Math.max(0, -at.y - min[1]), (max[1] - min[1]) / 2);
  };
  const asked = (mm: number): number => Math.round(contactForLine(line, mm) * 10) / 10;
  const put = (contact: number): void =>
    edit(`letters touch by ${formatLength(contact, units)} ${units}`, (d) => setParameter(d, id, 'contact', contact));
  const footY = -(upMm ?? now) - min[1];
  return (
    <Box mb="12px" data-testid="letters-on-line">
      <chakra.h3 className="heading" mb="5px !important">
        Letters on their line, plane {plane + 1}
      </chakra.h3>
      <svg
        ref={svg}
        role="slider"
        aria-label={`Line of the letters of plane ${plane + 1}`}
        aria-valuemin={0}
        aria-valuenow={contactMm}
        aria-valuetext={`letters touch by ${formatLength(contactMm, units)} ${units}`}
        tabIndex={0}
        width="100%"
        height="120"
        viewBox={view.join(' ')}
        style={{ background: 'var(--sheet)', border: '1px solid var(--rule)', touchAction: 'none' }}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          setUpMm(raised(e));
        }}
        onPointerMove={(e) => upMm !== null && setUpMm(raised(e))}
        onPointerUp={() => {
          if (upMm !== null) put(asked(upMm));
          setUpMm(null);
        }}
        onKeyDown={(e) => {
          const by = e.key === 'ArrowUp' ? KEY_MM : e.key === 'ArrowDown' ? -KEY_MM : 0;
          if (by === 0) return;
          e.preventDefault();
          put(Math.max(0, Math.round((contactMm + by) * 10) / 10));
        }}
      >
        <path d={pathOf(line.drawn)} fill="var(--bad-wash)" stroke="var(--bad)" strokeDasharray="3 2" style={THIN} />
        <path d={pathOf(line.left)} fill="var(--board)" stroke="var(--ink)" style={THIN} />
        {line.letters.filter(floats).map((l) => (
          <rect
            key={l.from}
            x={l.from}
            y={-max[1]}
            width={l.to - l.from}
            height={max[1] - min[1]}
            fill="none"
            stroke="var(--bad)"
            strokeWidth="2"
            style={THIN}
          />
        ))}
        {[footY, -line.topMm].map((y, k) => (
          <line
            key={k}
            x1={min[0] - pad}
            x2={max[0] + pad}
            y1={y}
            y2={y}
            stroke={k === 0 ? 'var(--accent)' : 'var(--ink-2)'}
            strokeWidth={k === 0 ? 2 : 1}
            style={{ ...THIN, cursor: 'ns-resize' }}
          />
        ))}
      </svg>
      <chakra.p className="dim" m="4px 0 0" fontSize="13px" aria-live="polite">
        {upMm === null ? told(line, units) : `letters would touch by ${formatLength(asked(upMm), units)} ${units}`}
      </chakra.p>
    </Box>
  );
}

const THIN = { vectorEffect: 'non-scaling-stroke' } as const;
/** One press of an arrow key, mm. */
const KEY_MM = 0.5;
const pathOf = (region: Region): string =>
  region
    .flatMap(ringsOf)
    .map((ring) => `M${ring.map(([x, y]) => `${x} ${-y}`).join('L')}Z`)
    .join('');

const floats = (l: Letter): boolean => l.footMm === 0;

/** "All 8 parts touch the line, the least by 3 mm", and so of the top. */
function told({ letters }: LetterLine, units: LengthUnit): string {
  const at = (key: 'footMm' | 'topMm', where: string): string => {
    const held = letters.flatMap((l) => l[key] ?? []);
    const touching = held.filter((mm) => mm > 0);
    if (touching.length === 0) return `none touches ${where}`;
    const least = `${formatLength(Math.min(...touching), units)} ${units}`;
    return touching.length === held.length
      ? `all ${held.length} touch ${where}, the least by ${least}`
      : `${touching.length} of ${held.length} touch ${where}`;
  };
  const said = `${at('footMm', 'the line')}; ${at('topMm', 'the top')}. Drag the line, or use ↑ and ↓.`;
  return atStart(said);
}
