import type { ReactNode } from 'react';

/** What parts the columns of a file. */
export const DELIMITERS = [
  { id: ',', title: 'comma' },
  { id: ';', title: 'semicolon' },
  { id: '\t', title: 'tab' },
  { id: '|', title: 'bar' },
] as const;

type Head = readonly (readonly string[])[];
const widthOf = (head: Head): number => Math.max(1, ...head.map((r) => r.length));
/** The columns of a file to choose from, each by its number and heading. */
export const columnChoices = (head: Head, headerRows: number): { id: string; title: string }[] => {
  const header = head[headerRows - 1] ?? [];
  return Array.from({ length: widthOf(head) }, (_, i) => ({
    id: String(i),
    title: `${i + 1}${header[i]?.trim() ? `: ${header[i].trim().slice(0, 30)}` : ''}`,
  }));
};

/** The first rows as they stand in the file, the columns that are read marked. */
export function FirstRows({
  head,
  headerRows,
  used,
}: {
  head: Head;
  headerRows: number;
  used: ReadonlyMap<number, string>;
}): ReactNode {
  return (
    <div className="mt-3 overflow-x-auto" role="region" aria-label="First rows of the file" tabIndex={0}>
      <table translate="no" className="figure-narrow text-sm">
        <tbody>
          {head.map((row, i) => (
            <tr key={i} className={`border-t border-seam ${i < headerRows ? 'text-quiet' : ''}`}>
              <th scope="row" className="pr-3 text-right font-normal text-quiet">
                {i + 1}
              </th>
              {row.map((cell, c) => (
                <td key={c} className={`px-3 whitespace-nowrap ${used.has(c) ? 'bg-block' : ''}`}>
                  {cell.slice(0, 40)}
                </td>
              ))}
            </tr>
          ))}
          <tr className="text-quiet">
            <th />
            {Array.from({ length: widthOf(head) }, (_, c) => (
              <td key={c} className="px-3 font-sans text-sm">
                {used.get(c) ?? ''}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}
