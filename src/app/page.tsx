import { StartPage } from '@/ui/start/StartPage';

/** `npm run demo` starts with the observatory's cards in place. */
export const dynamic = 'force-dynamic';

export default function Page() {
  return <StartPage withDemo={process.env.RHABDOPLEX_DEMO === '1'} />;
}
