/** The fonts that ship, for the workers: from their packages, never from the network. */
import { FONTS } from '@/core/shapes/fonts';
import { readFont } from '@/fonts/shelve';

export const dynamic = 'force-static';
export const generateStaticParams = (): { id: string }[] => FONTS.map(({ id }) => ({ id }));

export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  const bytes = readFont(id);
  if (!bytes) return new Response(`There is no font "${id.slice(0, 40)}".`, { status: 404 });
  return new Response(bytes, {
    headers: { 'content-type': 'font/woff', 'cache-control': 'public, max-age=31536000, immutable' },
  });
}
