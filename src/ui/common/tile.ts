/** How something to choose from a shelf looks: a piece of paper that lights up under the pointer. */
export const TILE = {
  type: 'button',
  bg: 'sheet',
  border: '1px solid var(--rule)',
  borderRadius: 'card',
  cursor: 'pointer',
  textAlign: 'left',
  _hover: { borderColor: 'accent' },
} as const;
