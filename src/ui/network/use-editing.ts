'use client';
import { type PartKind, partWord, ruleOfPart } from '@/core/network/catalogue';
import { added, copied, joined, moved, removed } from '@/core/network/edit';
import type { Part } from '@/core/network/network';
import { now } from '@/device/clock';
import { dropDraft, keepDraft, readDraft } from '@/device/drafts';
import { office, type OfficeError } from '@/device/office';
import type { NetworkForm, PartForm } from '@/wire/network';
import { nextPipe } from '@/wire/pipe';
import { uuid7 } from '@/wire/uuid7';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useEffect, useState } from 'react';
import { loadSchema } from './schema';
import { useSheet } from './use-sheet';

const fresh = () => uuid7(now()).slice(-12);
const newPart = (kind: PartKind): Omit<PartForm, 'id' | 'x' | 'y'> => ({
  kind,
  name: ruleOfPart(kind).nameless ? '' : partWord(kind),
  place: '',
  facts: {},
  ...(ruleOfPart(kind).closes ? { position: 'open' as const } : {}),
});

/** What the last visit drew here and did not save. */
function useKept(id: string, sheet: NetworkForm, start: NetworkForm) {
  const [kept, setKept] = useState<{ at: number; value: NetworkForm } | null>(null);
  useEffect(() => {
    const found = readDraft<NetworkForm>(id);
    if (found && JSON.stringify(found.value) !== JSON.stringify(start)) setKept(found);
  }, [id, start]);
  useEffect(() => {
    if (sheet !== start) keepDraft(id, sheet);
  }, [id, sheet, start]);
  return { kept, forget: () => setKept(null) };
}

/** Ctrl or Cmd with Z takes back, with Shift too does again, except while somebody types. */
function useUndoKeys(undo: () => void, redo: () => void) {
  useEffect(() => {
    const hurry = (e: globalThis.KeyboardEvent) => {
      const typing = (e.target as Element).closest('input, textarea, select');
      if (typing || !(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'z') return;
      e.preventDefault();
      if (e.shiftKey) redo();
      else undo();
    };
    addEventListener('keydown', hurry);
    return () => removeEventListener('keydown', hurry);
  });
}

/** A drawing while it is changed: what is chosen, every way of changing it, what was drawn before and not saved. */
export function useEditing(system: string, start: NetworkForm, may: boolean) {
  const router = useRouter();
  const { sheet, change, settle, undo, redo, canUndo, canRedo } = useSheet(start);
  const [chosen, setChosen] = useState<string | null>(null);
  const [joining, setJoining] = useState(false);
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const [saved, setSaved] = useState(() => new Set(start.parts.map((p) => p.id)));
  const { kept, forget } = useKept(`drawing/${system}`, sheet, start);
  const part = sheet.parts.find((p) => p.id === chosen);
  const link = sheet.links.find((l) => l.id === chosen);
  const edit = (to: (s: NetworkForm) => NetworkForm, about = '') => {
    setSaid('');
    change(to, about);
  };
  const drag = (id: string, x: number, y: number, last: boolean) => {
    edit((s) => moved(s, id, x, y), `move ${id}`);
    if (last) settle();
  };
  const pick = (id: string) => {
    if (joining && part && id !== part.id && sheet.parts.some((p) => p.id === id)) {
      edit((s) => joined(s, part.id, id, fresh()));
      setJoining(false);
    }
    setChosen(id);
  };
  const add = (kind: PartKind) => {
    const id = fresh();
    edit((s) => added(s, newPart(kind), { part: part?.id, link: link?.id }, [id, fresh()]));
    setChosen(id);
  };
  const remove = () => {
    if (part) edit((s) => removed(s, part.id, fresh()));
    if (link) edit((s) => ({ ...s, links: s.links.filter((l) => l.id !== link.id) }));
    setChosen(null);
  };
  const copy = () => {
    if (!part) return;
    const names = new Map<string, string>();
    const name = (old: string) => names.get(old) ?? names.set(old, fresh()).get(old)!;
    edit((s) => copied(s, part.id, name, (l) => (l.pipe ? { ...l, pipe: { ...l.pipe, id: fresh() } } : l)));
    setChosen(names.get(part.id) ?? null);
  };
  const onKey = (p: Part, e: KeyboardEvent) => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!may) return;
    if (step) {
      e.preventDefault();
      edit((s) => moved(s, p.id, p.x + step[0]!, p.y + step[1]!), `keys ${p.id}`);
    } else if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault();
      edit((s) => removed(s, p.id, fresh()));
      setChosen(null);
    }
  };
  useUndoKeys(undo, redo);
  const save = async () => {
    setTrouble('');
    try {
      (await loadSchema()).validateSync(sheet, { strict: true });
    } catch (error) {
      setTrouble((error as Error).message);
      return;
    }
    try {
      await office(`/api/systems/${system}/drawing`, { method: 'PUT', body: sheet });
      dropDraft(`drawing/${system}`);
      setSaved(new Set(sheet.parts.map((p) => p.id)));
      setSaid('The drawing is saved: volume, valves and lists follow it.');
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  /** A pipe on the link that is chosen, like the one drawn last, or none any more. */
  const pipe = () =>
    edit((s) => ({
      ...s,
      links: s.links.map((l) => {
        if (l.id !== link?.id) return l;
        const { pipe: own, ...bare } = l;
        const like = [...s.links].reverse().find((x) => x.pipe)?.pipe;
        return own ? bare : { ...bare, pipe: nextPipe(fresh(), like, '') };
      }),
    }));
  const takeKept = () => {
    edit(() => kept!.value);
    forget();
  };
  const dropKept = () => {
    dropDraft(`drawing/${system}`);
    forget();
  };
  return {
    sheet,
    part,
    link,
    chosen,
    joining,
    said,
    trouble,
    kept,
    canUndo,
    canRedo,
    edit,
    undo,
    redo,
    drag,
    pick,
    add,
    copy,
    remove,
    pipe,
    onKey,
    save,
    join: () => setJoining(!joining),
    /** The office knows the part. */
    isSaved: (id: string) => saved.has(id),
    takeKept,
    dropKept,
  };
}
export type Editing = ReturnType<typeof useEditing>;
