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
