'use client';
import { Box, chakra, type HTMLChakraProps } from '@chakra-ui/react';
import { TILE } from '../common/tile';
import { KindPicture } from './KindPicture';

/** A kind or a base to choose: as it folds, its name, and what it is. */
export function KindTile({
  kind,
  title,
  says,
  height,
  ...rest
}: HTMLChakraProps<'button'> & {
  readonly kind: string;
  readonly title: string;
  readonly says: string;
  readonly height?: number;
}) {
  return (
    <chakra.button {...TILE} p="12px" {...rest}>
      <KindPicture kind={kind} title={title} height={height} />
      <Box fontWeight="700" mt="6px">
        {title}
      </Box>
      <Box className="dim" fontSize="13px">
        {says}
      </Box>
    </chakra.button>
  );
}
