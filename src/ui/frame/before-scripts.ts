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
  type Later = Map<Element, () => void>;
  // what was typed goes first, then what was pressed (each once, however often), then the form that was sent last
  const fields: Later = new Map();
  const buttons: Later = new Map();
  const forms: Later = new Map();
  let timer: ReturnType<typeof setTimeout> | undefined;
  // the framework marks what it has taken up; one pause later its listeners stand too
  const marked = (node: Element) => Object.keys(node).some((key) => key.startsWith('__reactProps'));
  const due = new Set<Element>();
  const taken = (node: Element) => marked(node) && (due.has(node) || !due.add(node));

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
        if (node.isConnected && !taken(node)) continue;
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
  const typed = (event: Event) => {
    const node = event.target as Typed;
    if ('value' in node && (!marked(node) || fields.has(node))) keep(node);
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
      if (!marked(node) && differs(node)) keep(node);
    }),
  );
  addEventListener('input', typed, true);
  addEventListener('change', typed, true);
  addEventListener(
    'click',
    (event) => {
      const button = (event.target as Element).closest('button');
      if (!button || marked(button) || button.disabled || (button.form && button.type === 'submit')) return;
      buttons.set(button, () => button.click());
      wait();
    },
    true,
  );
  addEventListener(
    'submit',
    (event) => {
      const form = event.target as HTMLFormElement;
      if (marked(form) || form.hasAttribute('action')) return;
      event.preventDefault();
      const by = event.submitter;
      forms.clear();
      forms.set(form, () => form.requestSubmit(by));
      wait();
    },
    true,
  );
}
