import { VisuallyHidden } from '@chakra-ui/react';

/** The numbers of a chart as a table, for those who are read to. */
export function ChartTable({
  caption,
  heads,
  rows,
}: {
  readonly caption: string;
  readonly heads: readonly string[];
  readonly rows: readonly (readonly string[])[];
}) {
  return (
    <VisuallyHidden>
      <table>
        <caption>{caption}</caption>
        <thead>
          <tr>
            {heads.map((h) => (
              <th key={h} scope="col">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([first, ...rest], k) => (
            <tr key={k}>
              <th scope="row">{first}</th>
              {rest.map((cell, i) => (
                <td key={i}>{cell}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </VisuallyHidden>
  );
}
/** Of many rows every so many, the last one always. */
export const thinned = <T,>(rows: readonly T[], most: number): readonly T[] => {
  const step = Math.max(1, Math.ceil(rows.length / most));
  return rows.filter((_, k) => k % step === 0 || k === rows.length - 1);
};
