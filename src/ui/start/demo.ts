/** The demo set among the projects. */
import type { Design } from '@/core/document/design';
import { claimOnce, isClaimed } from '@/store/database';
import { addProject, addProjectOnce } from '@/store/projects';

/** Puts the demo set among the projects, each card under an id of its own. */
export async function bringDemo(): Promise<void> {
  const { DEMO_CARDS } = await import('./demo-cards');
  let updated = Date.now() - DEMO_CARDS.length;
  for (const card of DEMO_CARDS) await addProject(card as Design, updated++);
}

const ALL = 'demo';
/**
 * Once for each browser, so that a removed demo card stays removed: card by card, so that those that were not brought
 * in before the page was left are brought in the next time.
 */
export async function bringDemoOnce(): Promise<void> {
  if (await isClaimed(ALL)) return;
  const { DEMO_CARDS } = await import('./demo-cards');
  const first = Date.now() - DEMO_CARDS.length;
  for (const [k, card] of DEMO_CARDS.entries()) {
    const design = card as Design;
    await addProjectOnce(`${ALL}: ${design.name}`, design, first + k);
  }
  await claimOnce(ALL);
}
