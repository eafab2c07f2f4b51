/** Reads a PDF back, for tests: text of each page, document facts, fonts. */
export async function readPdf(bytes: Uint8Array): Promise<{
  pages: string[];
  info: Record<string, unknown>;
  fonts: { name: string; embedded: boolean }[];
}> {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const raw = Buffer.from(bytes).toString('latin1');
  const task = getDocument({ data: new Uint8Array(bytes), useSystemFonts: false, verbosity: 0 });
  const doc = await task.promise;
  const pages: string[] = [];
  for (let n = 1; n <= doc.numPages; n++) {
    const { items } = await (await doc.getPage(n)).getTextContent();
    pages.push(
      items
        .map((i) => ('str' in i ? i.str + (i.hasEOL ? ' ' : '') : ''))
        .join('')
        .replace(/\s+/g, ' '),
    );
  }
  const { info } = await doc.getMetadata();
  await task.destroy();
  const fonts = [...raw.matchAll(/\/FontName \/(\S+)/g)].map((m) => ({
    name: m[1]!,
    embedded: /\/FontFile[23]? \d+/.test(raw),
  }));
  return { pages, info: info as Record<string, unknown>, fonts };
}
