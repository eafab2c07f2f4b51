/** Hands rows to the person as a file that spreadsheets open. */
export async function saveCsv(name: string, rows: readonly (readonly string[])[]): Promise<void> {
  const { writeCsv } = await import('@/wire/csv');
  const url = URL.createObjectURL(new Blob([`\ufeff${writeCsv(rows)}`], { type: 'text/csv' }));
  Object.assign(document.createElement('a'), { href: url, download: name }).click();
  URL.revokeObjectURL(url);
}
