'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect } from 'react';
import { restoreDark } from '../theme';

export interface Licence {
  readonly name: string;
  readonly version: string;
  readonly licence: string;
}

/** What the application is made with: every package and font that ships, and under which licence. */
export function Licences({ list }: { readonly list: readonly Licence[] }) {
  useEffect(restoreDark, []);
  return (
    <Box as="main" maxWidth="760px" mx="auto" p="28px">
      <a href="/">All cards</a>
      <chakra.h1 fontSize="23px" fontWeight="700" mt="14px">
        What ships with Rhabdoplex
      </chakra.h1>
      <chakra.p color="ink2" mb="16px">
        Rhabdoplex itself is under the MIT licence. It is made with these packages and fonts;{' '}
        <a href="/licences.txt">their licences in full</a>.
      </chakra.p>
      {list.length === 0 && <chakra.p>The list is made when the application is built: npm run build.</chakra.p>}
      <chakra.table width="100%" css={{ '& td, & th': { textAlign: 'left', padding: '2px 10px 2px 0' } }}>
        <thead>
          <tr>
            <th>Package</th>
            <th>Version</th>
            <th>Licence</th>
          </tr>
        </thead>
        <tbody>
          {list.map((l) => (
            <tr key={`${l.name} ${l.version}`}>
              <td>{l.name}</td>
              <td>{l.version}</td>
              <td>{l.licence}</td>
            </tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}
