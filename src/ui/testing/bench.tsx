/** A stage of the bench as a person has it before them: its panel on the real rules, without device or office. */
import { act as settle, fireEvent, render, screen, within } from '@testing-library/react';
import { Suspense, useState } from 'react';
import type { Payload } from '@/core/run/events';
import type { Plan } from '@/core/plan/plan';
import { currentVisit, expectation, stageOf } from '@/core/run/read';
import { begin, step } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import { enter } from '@/core/run/transition';
import { BEGAN, entryOf, uuid } from '@/core/testing/bakery';
import type { AppendAnswer, BenchView, GaugeFrame, Next } from '@/device/bench';
import { PANELS } from '../bench/panels';
import type { PanelProps } from '../bench/shared';

export interface Standing {
  readonly plan: Plan;
  readonly state: RunState;
  /** Every entry that was made, the refused ones with why. */
  readonly made: { payload: Payload; refused: string | null }[];
  /** Seconds since the run began; the bench's clock stands until it is set. */
  at: number;
  redraw: () => void;
  /** What the gauge sends just now. */
  live?: GaugeFrame;
}
let id = 0;
// jsdom lays nothing out: sizes stay what the components begin with
globalThis.ResizeObserver ??= class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};

/** Puts a run into a stage, with its gauge in hand where one is named, and draws its panel. */
export async function stand(
  plan: Plan,
  stage: string,
  gauge: string | null = plan.gauges[0]!.id,
): Promise<Standing> {
  const state = begin(plan);
  state.visits = [];
  enter(plan, state, stage, BEGAN);
  state.gauge = gauge;
  const standing: Standing = { plan, state, made: [], at: 60, redraw: () => undefined };
  jest.spyOn(Date, 'now').mockImplementation(() => BEGAN + standing.at * 1000);
  await settle(async () => void render(<Bench standing={standing} />));
  return standing;
}
const who = {
  person: uuid(4),
  name: 'Imre',
  role: 'tester',
  organisation: uuid(1, 1),
} as unknown as PanelProps['who'];

/** A device that keeps every photo, and shows it as an empty picture. */
const ENGINE = {
  keepPhoto: async () => 'a'.repeat(64),
  photoAddress: async () => 'data:image/png;base64,',
} as unknown as PanelProps['engine'];

function Bench({ standing }: { standing: Standing }) {
  const [, setRound] = useState(0);
  standing.redraw = () => setRound((n) => n + 1);
  const { plan, state } = standing;
  const visit = currentVisit(state);
  const act = async (payload: Payload, next?: Next): Promise<AppendAnswer> => {
    const first = make(payload);
    let made = first;
    for (let n = 1; next && made.accepted; n += 1) {
      const further = next(made.state, n);
      if (!further) break;
      made = make(further);
    }
    standing.redraw();
    return first;
  };
  const make = (payload: Payload): AppendAnswer => {
    id += 1;
    const event = entryOf(plan, payload, {
      id: uuid(id, 8),
      deviceSeq: id,
      at: BEGAN + standing.at * 1000,
      mono: standing.at * 1000,
      expects: expectation(state),
    });
    // tried first, like the bench does: what has no effect changes nothing
    const refused = step(plan, JSON.parse(JSON.stringify(state)) as RunState, event);
    standing.made.push({ payload, refused: refused?.code ?? null });
    if (refused) return { accepted: false, code: refused.code, text: refused.text };
    step(plan, state, event, true);
    return { accepted: true, id: event.id, state };
  };
  if (!visit) return <p>phase: {state.phase}</p>;
  const stage = stageOf(plan, visit);
  const Panel = PANELS[visit.kind].panel;
  const view = {
    plan,
    state: { ...state },
    events: [],
    sealed: null,
    here: 0,
    waiting: 0,
    refused: [],
    photosWaiting: 0,
    gaugeRefused: '',
    contact: 'with-office',
    live: standing.live ?? null,
  } as unknown as BenchView;
  return (
    <main aria-label={stage.title}>
      <Suspense fallback="…">
        <Panel
          key={visit.ordinal}
          view={view}
          engine={ENGINE}
          who={who}
          visit={{ ...visit }}
          stage={stage}
          at={BEGAN + standing.at * 1000}
          act={act}
        />
      </Suspense>
    </main>
  );
}

/** The name of the stage that is before the person now. */
export const title = (): string => screen.queryByRole('main')?.getAttribute('aria-label') ?? '';
export const press = async (name: string | RegExp, inside: HTMLElement = document.body): Promise<void> =>
  settle(async () => void fireEvent.click(within(inside).getAllByRole('button', { name })[0]!));
/** What cannot be undone: pressed by key for as long as it asks. */
export async function holdDown(name: string | RegExp): Promise<void> {
  await settle(async () => {
    fireEvent.keyDown(screen.getAllByRole('button', { name })[0]!, { key: 'Enter' });
    await new Promise((done) => setTimeout(done, 850));
  });
}
/** Reads the gauge: a figure typed, what must be ticked ticked, the entry made. */
export async function read(figure: string, save: string | RegExp): Promise<void> {
  const form = screen.getByRole('form', { name: 'Entry' });
  const tick = within(form).queryAllByRole('checkbox');
  await settle(async () => {
    fireEvent.change(within(form).getAllByRole('textbox')[0]!, { target: { value: figure } });
    for (const box of tick) if (!(box as HTMLInputElement).checked) fireEvent.click(box);
  });
  // the button repeats the figure under its words
  const name = typeof save === 'string' ? new RegExp(`^${save}`) : save;
  await settle(async () => void fireEvent.click(within(form).getByRole('button', { name })));
}
export const type = async (label: string | RegExp, value: string): Promise<void> =>
  settle(async () => void fireEvent.change(screen.getAllByLabelText(label)[0]!, { target: { value } }));
/** Time passes, s, and the bench is drawn anew. */
export async function pass(standing: Standing, seconds: number): Promise<void> {
  standing.at += seconds;
  await settle(async () => standing.redraw());
}
export const alerts = (): string =>
  screen
    .queryAllByRole('alert')
    .map((a) => a.textContent)
    .join(' ')
    .trim();
