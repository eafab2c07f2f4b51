'use client';
import type { PlugsStage } from '@/core/kinds';
import { endsOfLine, plugCount, plugsIn, plugsMissing, plugsNeeded } from '@/core/kinds/plugs/fold';
import { PLUG_KINDS, type PlugKind } from '@/core/kinds/plugs/entries';
import { pressurePlan } from '@/core/plan/weakest';
import { parseWithUnit, showExact, type Exact } from '@/core/quantity/exact';
import type { PoolEnd } from '@/core/trades/pool/ends';
import { Button } from '@/ui/kit/button';
import { Choice } from '@/ui/kit/choice';
import { useState } from 'react';
import { FIELD, Line } from '../line';
import { DIVE, RISK, thrustWords, usualPlug } from '../pool/plug-words';
import { usePool } from '../pool/pool-drawn';
import type { PanelProps } from '../shared';
import { WayOn } from '../way-on';

/** Every end of the line with its plug: in, or counted out again. */
export function PlugsPanel(props: PanelProps) {
  const { view, act } = props;
  const { plan, state } = view;
  const stage = props.stage as PlugsStage;
  const [at, setAt] = useState('');
  const ends = endsOfLine(plan, state);
  const need = plugsNeeded(plan, state);
  const inNow = plugsIn(state);
  const missing = plugsMissing(plan, state);
  const chosen = ends.find((e) => e.id === at && !inNow.some((p) => p.end === e.id));
  const out = stage.way === 'out';
  const left = inNow.filter((p) => p.plug !== 'valve');
  return (
    <div className="flex flex-1 flex-col gap-3 lg:min-h-0">
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3 lg:min-h-0 lg:flex-1 lg:overflow-auto">
        <p className="text-lg">
          {out ? (
            <>
              <span className="figure">{left.length}</span> still in
            </>
          ) : (
            <>
              {ends.length} ends counted, {ends.filter((e) => e.dry).length} of them at the equipment:{' '}
              <span className="figure">{need.closed}</span> closed and{' '}
              <span className="figure">{need.open}</span> open
            </>
          )}
        </p>
        {chosen && !out ? (
          <PlugForm key={chosen.id} {...props} end={chosen} onDone={() => setAt('')} />
        ) : (
          <ul aria-label="Ends of this line" className="border-t border-seam">
            {ends.map((e) => (
              <EndRow key={e.id} {...props} end={e} out={out} onPut={() => setAt(e.id)} />
            ))}
          </ul>
        )}
        {out && <Counted {...props} />}
        {(!out || left.length > 0) && <Cannot {...props} out={out} ends={ends} />}
      </div>
      {/* while one is typed in, its own button is the way on */}
      <div className={chosen && !out ? 'max-lg:hidden' : 'contents'}>
        <WayOn open={out ? left.length === 0 : missing === ''} act={act}>
          {out
            ? left.length
              ? `Count all ${left.length} out first`
              : 'Every plug counted out: go on'
            : missing || 'Every end plugged, one of them open: go on'}
        </WayOn>
      </div>
    </div>
  );
}
function EndRow({
  view,
  act,
  end,
  out,
  onPut,
}: PanelProps & { end: PoolEnd; out: boolean; onPut: () => void }) {
  const plug = plugsIn(view.state).find((p) => p.end === end.id);
  const risk = DIVE[end.type] ?? RISK[end.type];
  if (out && !plug && !view.state.rooms.plugs.plugs.some((p) => p.end === end.id)) return null;
  return (
    <li className="grid items-center gap-x-3 gap-y-1 border-b border-seam py-2 sm:grid-cols-[1fr_auto]">
      <span>
        <span className="font-semibold">{end.name}</span>
        <span className="text-quiet">
          {' '}
          {end.word}
          {end.place && `, ${end.place}`}
          {end.size ? <span className="figure"> {showExact(end.size)}</span> : ', size not entered'}
        </span>
        {plug ? (
          <span className="block text-sm">
            {plug.open ? 'Open' : 'Closed'} {PLUG_KINDS[plug.plug]}
            {plug.size && `, ${plug.size}`}
            {plug.rating && `, rated ${showExact(plug.rating)}`}
          </span>
        ) : (
          risk && !out && <span className="block text-sm">{risk}</span>
        )}
      </span>
      {out ? (
        <Button
          className="min-h-16 min-w-[13rem]"
          tone={plug ? 'plain' : 'act'}
          aria-pressed={!plug}
          disabled={!plug}
          onClick={() => void act({ kind: 'plug-out', end: end.id })}
        >
          {plug ? 'Out and counted' : 'Out'}
        </Button>
      ) : (
        <Button
          className="min-h-16 min-w-[13rem]"
          tone={plug ? 'act' : 'plain'}
          aria-pressed={!!plug}
          onClick={() => (plug ? void act({ kind: 'plug-out', end: end.id }) : onPut())}
        >
          {plug ? 'In (tap to take out)' : 'Plug it'}
        </Button>
      )}
    </li>
  );
}
const typed = (text: string, unit: string): Exact | undefined => {
  const t = text.trim();
  if (!t) return undefined;
  return parseWithUnit(/[a-zA-Z]/.test(t) ? t : `${t} ${unit}`);
};
/** A plug for one end: which, open or closed, what it is rated for, and what pushes at it. */
function PlugForm({ view, act, end, onDone }: PanelProps & { end: PoolEnd; onDone: () => void }) {
  const { plan, state } = view;
  const unit = plan.gauges[0]?.resolution.unit ?? 'psi';
  const [kind, setKind] = useState<PlugKind>(usualPlug(end, state.rooms.map.seats[end.id]));
  const hasOpen = plugsIn(state).some((p) => p.open);
  const [open, setOpen] = useState(!hasOpen && end.dry);
  const [item, setItem] = useState('');
  const [size, setSize] = useState(end.size ? showExact(end.size) : '');
  const [rating, setRating] = useState('');
  const [inflation, setInflation] = useState('');
  const [light, setLight] = useState(false);
  const [proved, setProved] = useState('');
  const [trouble, setTrouble] = useState('');
  const { pressure } = pressurePlan(plan);
  const own = (plan.ownKit ?? []).filter((k) => k.kind === 'plug');
  const enter = async () => {
    try {
      const rated = typed(rating, unit);
      const inflated = kind === 'inflatable' ? typed(inflation, unit) : undefined;
      const answer = await act({
        kind: 'plug-in',
        end: end.id,
        plug: kind,
        open,
        ...(item ? { item } : {}),
        size: size.trim(),
        ...(rated ? { rating: rated } : {}),
        ...(inflated ? { inflation: inflated } : {}),
        ...(light ? { light: true as const } : {}),
        proved: kind === 'valve' ? proved.trim() : '',
      });
      if (answer.accepted) onDone();
      else setTrouble(answer.text);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <section aria-label={`Plug at ${end.name}`} className="grid gap-3 border-l-4 border-lake pl-3">
      <h2 className="text-lg font-semibold">{end.name}</h2>
      {pressure && pressure.digits > 0 && end.size && (
        <p>
          At <span className="figure">{showExact(pressure)}</span> it is pushed out with{' '}
          <span className="figure">{thrustWords(pressure, end.size)}</span>: never in line with it.
        </p>
      )}
      {own.length > 0 && (
        <label>
          From the cabinet
          <select
            className={FIELD}
            value={item}
            onChange={(e) => {
              const k = own.find((x) => x.id === e.target.value);
              setItem(k?.id ?? '');
              if (k?.rating) setRating(showExact(k.rating));
              if (k?.size) setSize(k.size);
            }}
          >
            <option value="">another plug</option>
            {own.map((k) => (
              <option key={k.id} value={k.id}>
                {k.name}
                {k.size ? `, ${k.size}` : ''}
                {k.rating ? `, ${showExact(k.rating)}` : ', rating not entered'}
              </option>
            ))}
          </select>
        </label>
      )}
      <label>
        Kind of plug
        <select className={FIELD} value={kind} onChange={(e) => setKind(e.target.value as PlugKind)}>
          {Object.entries(PLUG_KINDS).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <Choice
        label="Closed or open"
        options={{ closed: 'Closed: it seals', open: 'Open: pressure and gauge come in here' }}
        value={open ? 'open' : 'closed'}
        onChange={(k) => setOpen(k === 'open')}
      />
      <div className="grid gap-3 sm:grid-cols-2">
        <Line value={size} onChange={setSize} most={40}>
          Its size
        </Line>
        <Line value={rating} onChange={setRating} most={20} figure placeholder={`30 ${unit}`}>
          Rated for at this bore, {unit}; empty: not known
        </Line>
      </div>
      {kind === 'inflatable' && (
        <div className="grid gap-3 sm:grid-cols-2">
          <Line value={inflation} onChange={setInflation} most={20} figure placeholder={`25 ${unit}`}>
            Inflated to, {unit}
          </Line>
          <Button
            className="min-h-16 self-end"
            tone={light ? 'act' : 'plain'}
            aria-pressed={light}
            onClick={() => setLight(!light)}
          >
            Light from the other side: it seals all round
          </Button>
        </div>
      )}
      {kind === 'valve' && (
        <Line value={proved} onChange={setProved} most={300}>
          How was the valve proved to hold
        </Line>
      )}
      <p role="alert" className="text-rust empty:hidden">
        {trouble}
      </p>
      <div className="grid grid-cols-2 gap-3">
        <Button className="min-h-16" onClick={onDone}>
          Back
        </Button>
        <Button tone="act" className="min-h-16" onClick={() => void enter()}>
          It is in
        </Button>
      </div>
    </section>
  );
}
function Counted({ view }: PanelProps) {
  const rows = plugCount(view.state);
  if (!rows.length) return null;
  return (
    <table className="w-full">
      <thead>
        <tr className="text-left text-sm text-quiet">
          <th className="font-normal">Plugs by kind and size</th>
          <th className="font-normal">went in</th>
          <th className="font-normal">came out</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.what} className="border-t border-seam">
            <td className="py-1">{r.what}</td>
            <td className="figure">{r.in}</td>
            <td className="figure">{r.out}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
/** The way on for the worst case: an end that cannot be closed, a plug that does not come out. */
function Cannot({ view, act, out, ends }: PanelProps & { out: boolean; ends: readonly PoolEnd[] }) {
  const [at, setAt] = useState('');
  const [why, setWhy] = useState('');
  const [open, setOpen] = useState(false);
  const list = out ? ends.filter((e) => plugsIn(view.state).some((p) => p.end === e.id)) : ends;
  if (!open)
    return (
      <Button className="min-h-14" onClick={() => setOpen(true)}>
        {out ? 'A plug does not come out' : 'An end cannot be closed'}
      </Button>
    );
  return (
    <form
      className="grid gap-3 border-l-4 border-ochre pl-3"
      onSubmit={(e) => {
        e.preventDefault();
        void act({ kind: 'plug-cannot', end: at, why: why.trim() });
      }}
    >
      <label>
        {out ? 'Which plug stays in' : 'Which end'}
        <select className={FIELD} value={at} onChange={(e) => setAt(e.target.value)}>
          <option value="">choose</option>
          {list.map((e) => (
            <option key={e.id} value={e.id}>
              {e.name}
            </option>
          ))}
        </select>
      </label>
      <Line value={why} onChange={setWhy} most={300}>
        {out ? 'Why; the job stays open until it is out' : 'Why; it has to be cut and coupled first'}
      </Line>
      <div className="grid grid-cols-2 gap-3">
        <Button className="min-h-16" onClick={() => setOpen(false)}>
          Back
        </Button>
        <Button type="submit" tone="act" className="min-h-16" disabled={!at || !why.trim()}>
          {out ? 'Go on with it in' : 'This line cannot be closed'}
        </Button>
      </div>
    </form>
  );
}
/** A plug that does not hold, said in any stage: slipped and burst stop everything at once. */
export function PlugFails({ view, act, onDone }: PanelProps & { onDone: () => void }) {
  const [at, setAt] = useState('');
  const inNow = plugsIn(view.state);
  const { map } = usePool(view.plan, view.state);
  const name = (id: string) => map.ends.find((e) => e.id === id)?.name ?? id;
  return (
    <div className="grid gap-3">
      <Choice
        label="Which plug"
        options={Object.fromEntries(inNow.map((p) => [p.end, name(p.end)]))}
        value={at}
        onChange={setAt}
        className="sm:grid-flow-row! sm:grid-cols-3"
      />
      {(
        [
          ['burst', 'It burst: stop everything'],
          ['slipped', 'It slipped: stop everything'],
          ['leaks', 'It leaks: this hold counts for nothing'],
        ] as const
      ).map(([how, words]) => (
        <Button
          key={how}
          className="min-h-16"
          disabled={!at}
          onClick={() => void act({ kind: 'plug-failed', end: at, how }).then((a) => a.accepted && onDone())}
        >
          {words}
        </Button>
      ))}
      <Button className="min-h-14" onClick={onDone}>
        Back
      </Button>
    </div>
  );
}
