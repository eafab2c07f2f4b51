import type { Metadata } from 'next';
import { qrPath } from '@/chart/qr';
import { showExact } from '@/core/quantity/exact';
import { KIT_KINDS } from '@/core/instrument/kit';
import { readCabinet } from '@/server/cabinet/cabinet';
import { listPlaces } from '@/server/places/places';
import { requireSession } from '@/server/session/session';
import { NarrowPlaces } from '@/ui/places/narrow-places';
import { PrintLabels } from '@/ui/codes/print-labels';
import { labelPath } from '@/wire/codes';

export const metadata: Metadata = { title: 'Labels' };
/** Labels with a code for gauges, kit and installations, to be printed and stuck on. */
/** Places whose installations are printed at once: each label carries a picture. */
const MOST_LABELLED = 20;
export default async function Labels({ searchParams }: { searchParams: Promise<{ find?: string }> }) {
  const session = await requireSession();
  const { find = '' } = await searchParams;
  const [{ gauges, kit }, { places, all }] = await Promise.all([
    readCabinet(session),
    listPlaces(session, { find, most: MOST_LABELLED }),
  ]);
  const base = process.env.VAST_URL ?? '';
  const code = (path: string) => qrPath(`${base}${path}`);
  return (
    <>
      <NarrowPlaces action="/cabinet/labels" find={find} shown={places.length} all={all} />
      <PrintLabels
        groups={[
          {
            title: 'Gauges',
            labels: gauges
              .filter(({ gauge: g }) => !g.withdrawn && !g.simulated)
              .map(({ gauge: g }) => ({
                id: g.id,
                name: g.name,
                words: `to ${showExact(g.greatest)}, serial ${g.serial}`,
                code: code(labelPath('g', g.id)),
              })),
          },
          {
            title: 'Kit',
            labels: kit.map(({ item: k }) => ({
              id: k.id,
              name: k.name,
              words: [KIT_KINDS[k.kind], k.serial && `serial ${k.serial}`].filter(Boolean).join(', '),
              code: code(labelPath('k', k.id)),
            })),
          },
          {
            title: 'Installations',
            labels: places.flatMap(({ site, systems }) =>
              systems.map((s) => ({
                id: s.id,
                name: s.name,
                words: site.name,
                code: code(labelPath('s', s.id)),
              })),
            ),
          },
        ]}
      />
    </>
  );
}
