'use client';
import { chakra } from '@chakra-ui/react';

/** Our buttons: quiet by default, inked when they are the one thing to do. */
export function Action({
  strong,
  danger,
  small,
  on,
  ...rest
}: { strong?: boolean; danger?: boolean; small?: boolean; on?: boolean } & React.ComponentProps<typeof chakra.button>) {
  return (
    <chakra.button
      type="button"
      px={small ? '8px' : '12px'}
      minHeight={small ? '26px' : '32px'}
      fontSize={small ? '13px' : '14px'}
      fontWeight="600"
      borderRadius="card"
      border="1px solid"
      cursor="pointer"
      borderColor={strong || on ? 'ink' : danger ? 'bad' : 'rule'}
      bg={strong ? 'ink' : 'field'}
      color={strong ? 'sheet' : danger ? 'bad' : 'ink'}
      _hover={{ borderColor: 'accent' }}
      _disabled={{ opacity: 0.45, cursor: 'default' }}
      {...rest}
    />
  );
}
