/**
 * What is typed, chosen, ticked, pressed or sent on a page before its scripts run is kept, and done again once they do: the framework
 * takes up a field with what the server sent, so that a figure could stand on the screen and another one be saved, and a form
 * would go to the server by itself, with all its fields in the address.
 *
 * Written into the HTML as text (see the root layout): it stands alone and names nothing outside itself.
 * A form that is meant to go without scripts says so by an `action` of its own.
 */
export function keepUntilScriptsRun(): void {
  type Typed = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;
  const PAUSE_MS = 50;
  type Later = Map<Element, () => unknown>;
  // what was typed goes first, then what was pressed (each once, however often), then the form that was sent last
  const fields: Later = new Map();
  const buttons: Later = new Map();
  const forms: Later = new Map();
  let timer: ReturnType<typeof setTimeout> | undefined;
  // what is done at these reaches the framework
  const live = new WeakSet<Element>();
  // it marks what it has been at, with what stands for it there
  const mark = (node: Element) => Object.keys(node).find((key) => key.startsWith('__reactProps'));

  const ticks = (node: Typed) =>
    node instanceof HTMLInputElement && (node.type === 'checkbox' || node.type === 'radio');
  const native = (node: Typed, value: string) =>
    Object.getOwnPropertyDescriptor(Object.getPrototypeOf(node) as object, 'value')!.set!.call(node, value);
  /** As if it were done now: the framework must see a change from what it believes to stand there. */
  const again = (node: Typed, value: string | boolean) => {
    if (typeof value === 'boolean') {
      (node as HTMLInputElement).checked = !value;
      node.click();
      return;
    }
    const file = node instanceof HTMLInputElement && node.type === 'file';
    if (!file) {
      if (!(node instanceof HTMLSelectElement)) node.value = `${value} `;
      native(node, value);
    }
    node.dispatchEvent(
      new Event(file || node instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true }),
    );
  };
  const look = () => {
    timer = undefined;
    for (const later of [fields, buttons, forms]) {
      // what does not reach it now is kept again by what watches below
      for (const [node, redo] of [...later]) {
        if (node.isConnected && !mark(node)) continue;
        later.delete(node);
        if (node.isConnected) redo();
      }
      if (later.size > 0) break;
    }
    if (fields.size + buttons.size + forms.size > 0) wait();
  };
  const wait = () => {
    timer ??= setTimeout(look, PAUSE_MS);
  };
  const keep = (node: Typed) => {
    const value = ticks(node) ? (node as HTMLInputElement).checked : node.value;
    fields.set(node, () => again(node, value));
    wait();
  };
  const differs = (node: Typed) =>
    node instanceof HTMLSelectElement
      ? ([...node.options].find((o) => o.defaultSelected)?.value ?? node.value) !== node.value
      : ticks(node)
        ? (node as HTMLInputElement).checked !== (node as HTMLInputElement).defaultChecked
        : node.value !== node.defaultValue;
  // what the browser itself put back into the fields, after a reload, comes without an event
  addEventListener('DOMContentLoaded', () =>
    document.querySelectorAll<Typed>('input, select, textarea').forEach((node) => {
      if (!mark(node) && differs(node)) keep(node);
    }),
  );
  // what it has been at it can still put off, and then swallows what is done there: that something reached it is heard by a
  // listener among its own. Until then everything is kept
  const NAMES = ['onInputCapture', 'onChangeCapture', 'onClickCapture', 'onSubmitCapture'];
  type Props = Record<string, unknown>;
  const probes = new WeakSet<Props>();
  const listen = (node: Element) => {
    const key = mark(node);
    if (!key) return;
    const held = node as unknown as Record<string, Props>;
    const own = held[key]!;
    if (probes.has(own)) return;
    const probe = { ...own };
    for (const name of NAMES)
      probe[name] = (event: unknown) => {
        live.add(node);
        for (const later of [fields, buttons, forms]) later.delete(node);
        if (held[key] === probe) held[key] = own;
        if (typeof own[name] === 'function') (own[name] as (event: unknown) => void)(event);
      };
    probes.add(probe);
    held[key] = probe;
  };
  const watch = (type: string, unheard: (target: Element, event: Event) => Element | null) =>
    addEventListener(
      type,
      (event) => {
        const node = event.target instanceof Element && unheard(event.target, event);
        if (node) listen(node);
      },
      true,
    );
  for (const type of ['input', 'change'])
    watch(type, (target) => {
      if (!('value' in target) || live.has(target)) return null;
      keep(target as Typed);
      return target;
    });
  watch('click', (target, event) => {
    const button = target.closest('button');
    if (!button || live.has(button) || button.disabled || (button.form && button.type === 'submit'))
      return null;
    // one that somebody took for the end of a drag is no press
    buttons.set(button, () => event.defaultPrevented || button.click());
    wait();
    return button;
  });
  watch('submit', (target, event) => {
    const form = target as HTMLFormElement;
    if (live.has(form) || form.hasAttribute('action')) return null;
    event.preventDefault();
    const by = (event as SubmitEvent).submitter;
    forms.clear();
    forms.set(form, () => form.requestSubmit(by));
    wait();
    return form;
  });
}
