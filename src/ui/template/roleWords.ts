import type { TemplateRole } from '@/core/pattern/pattern';

/** What a line of a template is for, in words. */
export const ROLE_WORDS: Readonly<Record<TemplateRole, string>> = {
  cut: 'cut',
  valley: 'valley',
  mountain: 'mountain',
  perforation: 'perforated valley',
  'perforation-mountain': 'perforated mountain',
  window: 'window',
  mark: 'mark, not cut',
  glue: 'glue area',
};

/** The key that makes lines that are picked so. */
export const ROLE_KEYS: Readonly<Record<TemplateRole, string>> = {
  cut: 'c',
  valley: 'v',
  mountain: 'm',
  perforation: 'p',
  'perforation-mountain': 'r',
  window: 'w',
  mark: 'k',
  glue: 'g',
};

/** What a key makes of lines that are picked; none where it makes nothing of them. */
export const roleOfKey = (key: string): TemplateRole | undefined =>
  (Object.keys(ROLE_KEYS) as TemplateRole[]).find((role) => ROLE_KEYS[role] === key.toLowerCase());
