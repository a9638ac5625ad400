/** The demo set among the projects. */
import type { Design } from '@/core/document/design';
import { claimOnce } from '@/store/database';
import { addProject } from '@/store/projects';

/** Puts the demo set among the projects, each card under an id of its own. */
export async function bringDemo(): Promise<void> {
  const { DEMO_CARDS } = await import('./demo-cards');
  let updated = Date.now() - DEMO_CARDS.length;
  for (const card of DEMO_CARDS) await addProject(card as Design, updated++);
}

/** Once for each browser, so that a removed demo card stays removed. */
export async function bringDemoOnce(): Promise<void> {
  if (await claimOnce('demo')) await bringDemo();
}
