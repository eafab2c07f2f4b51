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
  // the framework marks what it has been at, with what it keeps for it there
  const mark = (node: Element) => Object.keys(node).find((key) => key.startsWith('__reactProps'));
  const arrives = new WeakSet<Element>();
  /**
   * Whether what is done there reaches the framework. What it has been at it can still put off, and then swallows what is done:
   * so a listener is put among its own for a moment, to an event that nobody sends and nothing else listens to.
   */
  const live = (node: Element): boolean => {
    const key = mark(node);
    if (!key || arrives.has(node)) return arrives.has(node);
    const held = node as unknown as Record<string, object>;
    const own = held[key]!;
    held[key] = { ...own, onGotPointerCaptureCapture: () => arrives.add(node) };
    node.dispatchEvent(new Event('gotpointercapture', { bubbles: true }));
    held[key] = own;
    return arrives.has(node);
  };

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
      for (const [node, redo] of later) {
        if (node.isConnected && !live(node)) continue;
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
  /** What cannot arrive yet goes no further, and is kept. */
  const watch = (
    type: string,
    later: Later,
    found: (target: Element) => Element | null,
    unheard: (node: Element, event: Event) => void,
  ) =>
    addEventListener(
      type,
      (event) => {
        const node = event.target instanceof Element && found(event.target);
        if (!node) return;
        // a form is not sent before what was typed in it
        const waits = later === forms && [...fields.keys()].some((field) => (field as Typed).form === node);
        if (live(node) && !waits) return void later.delete(node);
        event.stopImmediatePropagation();
        unheard(node, event);
        wait();
      },
      true,
    );
  for (const type of ['input', 'change'])
    watch(
      type,
      fields,
      (target) => ('value' in target ? target : null),
      (node) => keep(node as Typed),
    );
  watch(
    'click',
    buttons,
    (target) => {
      const button = target.closest('button');
      return !button || button.disabled || (button.form && button.type === 'submit') ? null : button;
    },
    (node) => buttons.set(node, () => (node as HTMLButtonElement).click()),
  );
  watch(
    'submit',
    forms,
    (target) => (target.hasAttribute('action') ? null : target),
    (node, event) => {
      event.preventDefault();
      const by = (event as SubmitEvent).submitter;
      forms.clear();
      forms.set(node, () => (node as HTMLFormElement).requestSubmit(by));
    },
  );
}
