/** Mechanisms of one's own in the database, played by fake-indexeddb (an independent implementation of it). */
import 'fake-indexeddb/auto';
import { claimOnce, withDatabase } from './database';
import { forgetOwn, keepOwn, LONGEST_OWN, ownMechanisms } from './own-mechanisms';

const names = async (): Promise<string[]> => (await ownMechanisms()).map((o) => o.name);
afterEach(() => withDatabase((db) => db.clear('notes')));

test('what is kept is there by name, replaced by one of that name, and gone once it is forgotten', async () => {
  expect(await keepOwn({ name: 'Dome ring', text: 'one' })).toBeNull();
  expect(await keepOwn({ name: 'Arch', text: 'two' })).toBeNull();
  expect(await keepOwn({ name: 'Dome ring', text: 'three' })).toBeNull();
  expect(await ownMechanisms()).toEqual([
    { name: 'Arch', text: 'two' },
    { name: 'Dome ring', text: 'three' },
  ]);
  await forgetOwn('Arch');
  expect(await names()).toEqual(['Dome ring']);
});

test('other notes are none of them', async () => {
  await claimOnce('demo');
  await keepOwn({ name: 'Arch', text: 'two' });
  expect(await names()).toEqual(['Arch']);
  expect(await claimOnce('demo')).toBe(false);
});

test('the hundredth is kept, one more is not, but may replace one', async () => {
  for (let k = 0; k < 99; k++) await keepOwn({ name: `Own ${k}`, text: '' });
  expect(await keepOwn({ name: 'Own 99', text: '' })).toBeNull();
  expect(await keepOwn({ name: 'Own 100', text: '' })).toMatch(/100 are kept already/);
  expect(await keepOwn({ name: 'Own 7', text: 'again' })).toBeNull();
  expect(await names()).toHaveLength(100);
});

test('the longest is kept, one longer is not', async () => {
  expect(await keepOwn({ name: 'Long', text: 'x'.repeat(LONGEST_OWN) })).toBeNull();
  expect(await keepOwn({ name: 'Longer', text: 'x'.repeat(LONGEST_OWN + 1) })).toMatch(/too large/);
  expect(await names()).toEqual(['Long']);
});
