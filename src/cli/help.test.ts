/** `VERB --help` against what the verbs themselves refuse: every option there is, and none there is not. */
import { helpOf } from './help';
import { run } from './run';

const optionsTold = (verb: string): string[] =>
  [...helpOf(verb)!.matchAll(/^ {2}--([a-z-]+)/gm)].map(([, name]) => name).sort();

test('every verb that is named tells what it takes, and each option it really has', async () => {
  const verbs = /one of (.*?);/.exec((await run([])).error!)![1].split(', ');
  expect(verbs.length).toBeGreaterThan(12);
  for (const verb of verbs) {
    const { code, out } = await run([verb, '--help']);
    expect([verb, code, out]).toEqual([verb, 0, helpOf(verb)]);
    expect(out).toMatch(new RegExp(`^rhabdoplex ${verb}\\b`));
    if (verb === 'batch') continue;
    const refused = (await run([verb, '--no-such-option'])).error!;
    const known = /options here are (.*)$/.exec(refused)![1];
    const names = known === 'none' ? [] : known.split(', ').map((o) => o.replace('--', ''));
    expect([verb, optionsTold(verb)]).toEqual([verb, names.sort()]);
  }
});

test('what --card means is said, and what is no verb has no help', async () => {
  expect((await run(['new', '--help'])).out).toMatch(
    /--card GUTTERxREACH .*each leaf from the gutter to its fore edge/,
  );
  expect(helpOf('toString')).toBeNull();
  expect((await run(['nothing', '--help'])).code).toBe(2);
});
