import type { Face } from '@/core/record/face';
import type { SealedRecord } from '@/core/record/seal';
import { Font, StyleSheet, Text, View } from '@react-pdf/renderer';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import 'server-only';
import { printable } from './glyphs';
import { unpackedFont } from './unpacked-font';

const require = createRequire(path.join(process.cwd(), 'package.json'));
const face = (name: string, weight: number, subset = 'latin') =>
  `data:font/ttf;base64,${unpackedFont(
    readFileSync(require.resolve(`@fontsource/${name}/files/${name}-${subset}-${weight}-normal.woff`)),
  ).toString('base64')}`;
let registered = false;
export function registerFonts(): void {
  if (registered) return;
  for (const [family, name, subset] of [
    ['Words', 'atkinson-hyperlegible-next', 'latin'],
    ['WordsExt', 'atkinson-hyperlegible-next', 'latin-ext'],
    ['Figures', 'martian-mono', 'latin'],
  ] as const)
    Font.register({
      family,
      fonts: [
        { src: face(name, 400, subset), fontWeight: 400 },
        { src: face(name, 700, subset), fontWeight: 700 },
      ],
    });
  Font.registerHyphenationCallback((word) => [word]);
  registered = true;
}

export const INK = '#16201d';
export const QUIET = '#55635e';
export const SEAM = '#c5cdc8';
export const BLOCK = '#d6dcd8';
export const RUST = '#a8321c';
export const COLOUR: Record<string, string> = {
  tight: '#2b7447',
  'within-allowance': '#666b12',
  'not-tight': RUST,
  void: '#55597a',
  inconclusive: '#9a5b00',
  refer: '#74468a',
};
/** Styles every printed form shares. */
export const s = StyleSheet.create({
  page: {
    fontFamily: ['Words', 'WordsExt'] as unknown as string,
    fontSize: 8.2,
    color: INK,
    paddingTop: 22,
    paddingBottom: 16,
    paddingHorizontal: 30,
    lineHeight: 1.28,
  },
  quiet: { color: QUIET },
  h: { color: QUIET, fontSize: 7.4, marginTop: 3, marginBottom: 1 },
  fig: { fontFamily: 'Figures', fontSize: 7 },
  seam: { borderTopWidth: 0.7, borderTopColor: SEAM, marginTop: 4, paddingTop: 2 },
});
/** A paragraph whose every sign the shipped fonts have. */
export const P = ({ children }: { children: string }) => <Text>{printable(children)}</Text>;

/** Document facts every printed form carries: title, firm, language, subject, so that a reader and an archive know it. */
export const metadata = (face: Face, record: SealedRecord, title: string) => ({
  title: `${record.seal.number} ${title}`,
  author: face.plan.organisation.name,
  subject: `${face.plan.site.name}: ${face.plan.system.name}`,
  keywords: [record.seal.number, record.seal.hash.slice(0, 16)].join(', '),
  creator: 'Vast Stone',
  producer: 'Vast Stone',
  language: 'en',
});
/** On every page: what the record is not, and what was said of it since. In ink, so that grey print says it too. */
export function StatusLine({ face, marks }: { face: Face; marks: readonly string[] }) {
  const { status } = face.body;
  const lines = [
    ...(status === 'certificate'
      ? []
      : [
          status === 'practice'
            ? 'PRACTICE RECORD ON A SIMULATED INSTALLATION: NOT A CERTIFICATE'
            : 'NOT A CERTIFICATE',
        ]),
    ...marks.map((m) => m.toUpperCase()),
  ];
  return lines.length ? (
    <View fixed style={{ borderWidth: 1.2, borderColor: INK, padding: 2, marginBottom: 4 }}>
      {lines.map((l) => (
        <Text key={l} style={{ textAlign: 'center', fontSize: 8, fontWeight: 700 }}>
          {printable(l)}
        </Text>
      ))}
    </View>
  ) : null;
}
