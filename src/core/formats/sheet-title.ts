/** Names of sheets in files. */
import type { SheetLayout } from '../sheets/layout';

/** `sheet-1-smooth-card-cream`, from 0. */
export const sheetTitle = (index: number, { stock, offcut }: SheetLayout): string =>
  `sheet-${index + 1}-${slug(stock.name)}${offcut ? '-offcut' : ''}`;

const slug = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40) || 'stock';
