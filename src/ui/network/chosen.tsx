'use client';
import { partName } from '@/core/network/network';
import { Button } from '@/ui/kit/button';
import { byNeed } from '@/ui/kit/by-need';
import { Copy, Link2, Trash2 } from 'lucide-react';
import { Suspense } from 'react';
import { words } from './drawing';
import type { KeptPhotos } from './place-photos';
import type { Editing } from './use-editing';

const PartPanel = byNeed(() => import('./part-panel').then((m) => m.PartPanel));
const PartPhotos = byNeed(() => import('./part-photos').then((m) => m.PartPhotos));
const PipePanel = byNeed(() => import('./part-panel').then((m) => m.PipePanel));
const icon = { size: 18, 'aria-hidden': true } as const;
const FRAME = 'grid gap-3 border border-seam bg-panel p-3';

/** What is known of the part or the pipe that is chosen, and what can be done with it. */
export function Chosen({ editing, photos }: { editing: Editing; photos: Photos }) {
  if (editing.part) return <ChosenPart editing={editing} part={editing.part} photos={photos} />;
  return editing.link ? <ChosenLink editing={editing} link={editing.link} /> : null;
}
interface Photos {
  readonly system: string;
  readonly kept: KeptPhotos;
}
function ChosenPart({
  editing,
  part,
  photos,
}: {
  editing: Editing;
  part: NonNullable<Editing['part']>;
  photos: Photos;
}) {
  const { sheet, joining, edit } = editing;
  return (
    <section className={FRAME} aria-label="What is chosen">
      <h2 className="font-semibold">{words(sheet, part, {})}</h2>
      <Suspense fallback={<p>Opening …</p>}>
        <PartPanel
          key={part.id}
          part={part}
          onChange={(to) =>
            edit(
              (s) => ({ ...s, parts: s.parts.map((p) => (p.id === part.id ? { ...p, ...to } : p)) }),
              `facts ${part.id} ${Object.keys(to).join()}`,
            )
          }
        />
        <PartPhotos
          key={`photos ${part.id}`}
          {...photos}
          part={part.id}
          name={partName(part)}
          saved={editing.isSaved(part.id)}
        />
      </Suspense>
      <div className="flex flex-wrap gap-2">
        <Button aria-pressed={joining} onClick={editing.join}>
          <Link2 {...icon} /> {joining ? 'Now touch the other part' : 'Join or take apart'}
        </Button>
        <Button onClick={editing.copy}>
          <Copy {...icon} /> Copy this branch
        </Button>
        <Button onClick={editing.remove}>
          <Trash2 {...icon} /> Take away
        </Button>
      </div>
    </section>
  );
}
function ChosenLink({ editing, link }: { editing: Editing; link: NonNullable<Editing['link']> }) {
  return (
    <section className={FRAME} aria-label="What is chosen">
      <h2 className="font-semibold">{link.pipe ? link.pipe.name || 'Pipe' : 'Joined directly'}</h2>
      {link.pipe ? (
        <Suspense fallback={<p>Opening …</p>}>
          <PipePanel
            key={link.id}
            pipe={link.pipe}
            onChange={(pipe) =>
              editing.edit(
                (s) => ({ ...s, links: s.links.map((l) => (l.id === link.id ? { ...l, pipe } : l)) }),
                `pipe ${link.id}`,
              )
            }
          />
        </Suspense>
      ) : (
        <p>No pipe of any length runs here.</p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button onClick={editing.pipe}>{link.pipe ? 'No pipe here' : 'A pipe runs here'}</Button>
        <Button onClick={editing.remove}>
          <Trash2 {...icon} /> Take the join away
        </Button>
      </div>
    </section>
  );
}
