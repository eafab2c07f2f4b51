import { openJoints } from '@/core/run/read';
import type { BenchView } from '@/device/bench';
import { Button } from '@/ui/kit/button';
import type { Identity } from '@/wire/role';
import { useState, useSyncExternalStore } from 'react';
import { orphanDraft, settleDraft, watchDraft } from './draft';
import type { PanelProps } from './shared';

const LINE = 'flex flex-wrap items-center gap-3 border-b border-seam bg-panel px-4 py-2';

/** Joints that leak fluid has yet to clear before the pressure goes. */
export function OpenJoints({ view }: { view: BenchView }) {
  const open = openJoints(view.state);
  if (!open.length) return null;
  return (
    <p className="border-b border-seam bg-panel px-4 py-1.5 text-sm text-ochre">
      To be cleared with leak fluid before the pressure goes: {open.map((j) => j.name).join(', ')} (More,
      Joints).
    </p>
  );
}

/** Entries of this person that came too late to count, until they are seen. */
export function Overtaken({ view, who }: { view: BenchView; who: Identity }) {
  const [seen, setSeen] = useState<readonly string[]>([]);
  const late = view.events.filter(
    (e) =>
      e.by === who.person &&
      e.position !== undefined &&
      !seen.includes(e.id) &&
      view.state.withoutEffect.some((w) => w.id === e.id && w.code === 'overtaken'),
  );
  if (!late.length) return null;
  return (
    <p role="alert" className={LINE}>
      Somebody else had already ended that step: your entry is kept in the log but did not count.
      <Button className="min-h-12" onClick={() => setSeen([...seen, ...late.map((e) => e.id)])}>
        I have seen it
      </Button>
    </p>
  );
}

/** A figure that was being typed when its step ended: it can be kept as a note. */
export function OrphanDraft({ act }: { act: PanelProps['act'] }) {
  const draft = useSyncExternalStore(watchDraft, orphanDraft, () => null);
  if (!draft) return null;
  return (
    <p role="alert" className={LINE}>
      <span>
        You were typing{' '}
        <span className="figure">
          {draft.text} {draft.unit}
        </span>{' '}
        when that step ended.
      </span>
      <Button
        className="min-h-12"
        tone="act"
        onClick={() =>
          void act({
            kind: 'note',
            text: `${draft.label}: ${draft.text} ${draft.unit} (typed when the step ended)`,
          }).then((a) => a.accepted && settleDraft())
        }
      >
        Keep it as a note
      </Button>
      <Button className="min-h-12" onClick={settleDraft}>
        Drop it
      </Button>
    </p>
  );
}

/** What a paired gauge sends, where it cannot be used, and what to do. */
export const GaugeRefused = ({ text }: { text: string }) =>
  text === '' ? null : (
    <p role="alert" className="border-l-4 border-rust bg-panel px-3 py-2">
      What the gauge sends cannot be used. {text}
    </p>
  );
