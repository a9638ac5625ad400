/** The font route: every face that ships, as the WOFF its package carries (WOFF 1.0: signature "wOFF"). */
import { FONTS } from '@/core/shapes/fonts';
import { GET, generateStaticParams } from './[id]/route';

const ask = (id: string): Promise<Response> =>
  GET(new Request(`http://localhost/fonts/${id}`), { params: Promise.resolve({ id }) });

test.each(FONTS.map((f) => [f.id]))('%s is served', async (id) => {
  const response = await ask(id);
  expect(response.status).toBe(200);
  const bytes = new Uint8Array(await response.arrayBuffer());
  expect(new TextDecoder().decode(bytes.slice(0, 4))).toBe('wOFF');
  expect(bytes.length).toBeGreaterThan(5000);
});
test('nothing else is: no path leads out of the list', async () => {
  for (const id of ['nope', '../package.json', 'lora/../../x', '']) expect((await ask(id)).status).toBe(404);
  expect(generateStaticParams().map((p) => p.id)).toEqual(FONTS.map((f) => f.id));
});
