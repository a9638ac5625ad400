import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Licences, type Licence } from '@/ui/start/Licences';

/** The list that the build has made; none where it was not built. */
async function listed(): Promise<readonly Licence[]> {
  try {
    return JSON.parse(await readFile(join(process.cwd(), 'public', 'licences.json'), 'utf8')) as readonly Licence[];
  } catch {
    return [];
  }
}

export default async function Page() {
  return <Licences list={await listed()} />;
}
