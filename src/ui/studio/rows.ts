/** The build list as rows: what stands on what, in the order it is shown. */
import { valuesOf } from '@/core/document/fields';
import { sizeOfCard } from '@/core/document/listed';
import type { Design, Mechanism } from '@/core/document/design';
import { wordsOfOwnPart } from '@/core/document/words';
import { CARD, ownerOfId } from '@/core/ids';
import { KINDS } from '@/core/kinds';
import { naturalCrease } from '@/core/document/standing';
import { formatLength } from '@/core/units/length';

export interface ListRow {
  readonly id: string;
  readonly kind: string;
  readonly depth: number;
  readonly title: string;
  readonly size: string;
}

/** The base first, each mechanism under what it stands on. */
export function rowsOf(design: Design): ListRow[] {
  const standing = new Map<string, Mechanism[]>();
  for (const m of design.mechanisms) {
    // A facet of the base stands without its owner.
    const owner = ownerOfId(m.on) === m.on ? CARD : ownerOfId(m.on);
    standing.set(owner, [...(standing.get(owner) ?? []), m]);
  }
  const rows: ListRow[] = [{ id: CARD, kind: CARD, depth: 0, title: 'Base card', size: sizeOfCard(design) }];
  const under = (owner: string, depth: number): void => {
    for (const m of standing.get(owner) ?? []) {
      const title = m.on === naturalCrease(design) ? m.name : `${wordsOfOwnPart(design, m.on)}: ${m.name}`;
      rows.push({ id: m.id, kind: m.kind, depth, title, size: sizeOf(design, m) });
      under(m.id, depth + 1);
    }
  };
  under(CARD, 1);
  return rows;
}

const sizeOf = (design: Design, m: Mechanism): string =>
  KINDS.get(m.kind)?.sizeOf(valuesOf(m), (mm) => formatLength(mm, design.units)) ?? '';
