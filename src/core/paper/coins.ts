/**
 * Coins that run behind a slot: diameter and thickness as their mints publish them, mm. From memory: the United States
 * Mint's coin specifications, and for the euro Council Regulation (EU) No 729/2014.
 */
export interface Coin {
  readonly id: string;
  readonly name: string;
  readonly diameterMm: number;
  readonly thicknessMm: number;
}

const coin = (id: string, name: string, diameterMm: number, thicknessMm: number): Coin => ({
  id,
  name,
  diameterMm,
  thicknessMm,
});

export const COINS: readonly Coin[] = [
  coin('us-cent', 'US cent', 19.05, 1.52),
  coin('us-nickel', 'US 5 cents', 21.21, 1.95),
  coin('us-dime', 'US 10 cents', 17.91, 1.35),
  coin('us-quarter', 'US 25 cents', 24.26, 1.75),
  coin('euro-1c', '1 euro cent', 16.25, 1.67),
  coin('euro-2c', '2 euro cent', 18.75, 1.67),
  coin('euro-5c', '5 euro cent', 21.25, 1.67),
  coin('euro-10c', '10 euro cent', 19.75, 1.93),
  coin('euro-20c', '20 euro cent', 22.25, 2.14),
  coin('euro-50c', '50 euro cent', 24.25, 2.38),
  coin('euro-1', '1 euro', 23.25, 2.33),
  coin('euro-2', '2 euro', 25.75, 2.2),
];
