'use client';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import {
  GRID,
  NODE_KINDS,
  reachOf,
  type NodeKind,
  type Schematic,
  type SchematicNode,
} from '@/core/installation/schematic';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { ReachWords, SchematicDrawing } from '@/ui/charts/schematic';
import { Button } from '@/ui/kit/button';
import { Field, FIELD } from '@/ui/kit/field';
import { uuid7 } from '@/wire/uuid7';

const ADDABLE = Object.keys(NODE_KINDS) as NodeKind[];

/** The section drawn: parts moved by finger or arrow keys, valves opened and closed, joined and taken away; it prints. */
export function Drawing({
  system,
  name,
  place,
  start,
  fresh,
  may,
}: {
  system: string;
  name: string;
  place: string;
  start: Schematic;
  fresh: Schematic;
  may: boolean;
}) {
  const router = useRouter();
  const [s, setS] = useState(start);
  const [selected, setSelected] = useState<string | null>(null);
  const [joining, setJoining] = useState(false);
  const [adding, setAdding] = useState<NodeKind>('valve');
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const reach = useMemo(() => reachOf(s), [s]);
  const node = s.nodes.find((n) => n.id === selected) ?? null;
  const change = (next: Schematic) => {
    setSaid('');
    setS(next);
  };
  const edit = (id: string, part: Partial<SchematicNode>) =>
    change({ ...s, nodes: s.nodes.map((n) => (n.id === id ? { ...n, ...part } : n)) });
  const pick = (id: string) => {
    if (joining && selected && selected !== id) {
      const joined = s.links.find(
        (l) => (l.from === selected && l.to === id) || (l.from === id && l.to === selected),
      );
      change({
        ...s,
        links: joined
          ? s.links.filter((l) => l !== joined)
          : [...s.links, { id: `${selected}-${id}`.slice(0, 128), from: selected, to: id }],
      });
      setJoining(false);
    }
    setSelected(id);
  };
  const add = () => {
    const id = uuid7(now()).slice(-12);
    const near = node ?? s.nodes[s.nodes.length - 1];
    change({
      nodes: [
        ...s.nodes,
        {
          id,
          kind: adding,
          name: adding === 'tee' ? '' : NODE_KINDS[adding],
          x: Math.min(GRID.width, (near?.x ?? 8) + 8),
          y: near?.y ?? 12,
          ...(adding === 'valve' ? { position: 'open' as const } : {}),
        },
      ],
      links: near ? [...s.links, { id: `${near.id}-${id}`, from: near.id, to: id }] : s.links,
    });
    setSelected(id);
  };
  const save = async () => {
    setTrouble('');
    try {
      await office(`/api/systems/${system}/drawing`, { method: 'PUT', body: s });
      setSaid('The drawing is saved.');
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <>
      <p className="text-sm text-quiet">{place}</p>
      <h1 className="text-2xl font-bold">{name}: the section drawn</h1>
      <p className="no-print mt-1 max-w-2xl">
        Drag a part, or move it with the arrow keys. Set each valve as it stands in the test: what the
        pressure reaches from the test point is drawn full.
      </p>
      <div
        className="mt-3 overflow-x-auto border border-seam bg-panel"
        role="region"
        aria-label="Drawing"
        tabIndex={0}
      >
        <SchematicDrawing
          schematic={s}
          reach={reach}
          selected={selected}
          label="Section drawn"
          {...(may ? { onNode: pick, onMove: (id: string, x: number, y: number) => edit(id, { x, y }) } : {})}
        />
      </div>
      {may && (
        <div className="no-print mt-3 grid gap-3 lg:grid-cols-2">
          <div className="flex flex-wrap content-start items-end gap-3 border border-seam bg-panel p-3">
            {node ? (
              <>
                <Field label={`Name of the ${NODE_KINDS[node.kind]}`} className="min-w-48 flex-1">
                  {(ids) => (
                    <input
                      {...ids}
                      className={FIELD}
                      maxLength={80}
                      value={node.name}
                      onChange={(e) => edit(node.id, { name: e.target.value })}
                    />
                  )}
                </Field>
                {node.kind === 'valve' && (
                  <Button
                    aria-pressed={node.position === 'closed'}
                    onClick={() =>
                      edit(node.id, { position: node.position === 'closed' ? 'open' : 'closed' })
                    }
                  >
                    {node.position === 'closed' ? 'Open it' : 'Close it'}
                  </Button>
                )}
                <Button aria-pressed={joining} onClick={() => setJoining(!joining)}>
                  {joining ? 'Now touch the other part' : 'Join or part'}
                </Button>
                <Button
                  onClick={() => {
                    change({
                      nodes: s.nodes.filter((n) => n.id !== node.id),
                      links: s.links.filter((l) => l.from !== node.id && l.to !== node.id),
                    });
                    setSelected(null);
                  }}
                >
                  Take away
                </Button>
              </>
            ) : (
              <p>Touch a part to name it, open or close it, join it or take it away.</p>
            )}
          </div>
          <div className="flex flex-wrap items-end gap-3 border border-seam bg-panel p-3">
            <Field label="Another part">
              {(ids) => (
                <select
                  {...ids}
                  className={FIELD}
                  value={adding}
                  onChange={(e) => setAdding(e.target.value as NodeKind)}
                >
                  {ADDABLE.map((k) => (
                    <option key={k} value={k}>
                      {NODE_KINDS[k]}
                    </option>
                  ))}
                </select>
              )}
            </Field>
            <Button onClick={add}>Add it{node ? ' here' : ''}</Button>
            <Button onClick={() => change(fresh)}>Draw anew from the facts</Button>
            <Button onClick={() => print()}>Print</Button>
            <Button tone="act" onClick={() => void save()}>
              Save the drawing
            </Button>
          </div>
        </div>
      )}
      <p role="status" className="mt-2">
        {said}
      </p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
      <section className="mt-2">
        <h2 className="text-lg font-semibold">What is in, what is out</h2>
        <ReachWords schematic={s} reach={reach} />
      </section>
    </>
  );
}
