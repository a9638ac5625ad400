/** A short run of `npm run fuzz`: broken files at every reader, the same ones each time. */
import { broken, corpus, faultOf } from '../../../fuzz/inputs';
import { shelveFonts } from '../../fonts/shelve';
import { seeded } from '../linkage/random';

test('400 broken files: every one is read or refused with a reason', () => {
  shelveFonts();
  const files = corpus();
  const random = seeded(20);
  for (let k = 0; k < 400; k++) {
    const input = broken(files[Math.floor(random() * files.length)], random);
    const fault = faultOf(input);
    if (fault) throw new Error(`input ${k} (${input.kind}): ${fault.message}`, { cause: fault });
  }
}, 120_000);

test('every file of the corpus is read or refused as it is', () => {
  for (const input of corpus()) expect(faultOf(input)).toBeNull();
});
