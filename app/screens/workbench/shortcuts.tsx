import { Dialog } from "radix-ui";
import { useEffect, useRef, useState } from "react";

export interface Shortcut {
  name: string;
  /** As it is shown and pressed: `Ctrl+Z`, `1`; null where only the command list reaches it. */
  keys: string | null;
  run(): void;
}

/** Keys that act on the page, a page of them at ?, and a list of all commands at Ctrl+K. */
export function Shortcuts({ shortcuts }: { shortcuts: Shortcut[] }) {
  const [shown, setShown] = useState<"keys" | "commands" | null>(null);
  const latest = useRef(shortcuts);
  useEffect(() => {
    latest.current = shortcuts;
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") {
        event.preventDefault();
        return setShown("commands");
      }
      if (isTyping(event)) return;
      if (event.key === "?") return setShown("keys");
      const found = latest.current.find((s) => s.keys !== null && matches(s.keys, event));
      if (!found) return;
      event.preventDefault();
      found.run();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);

  return (
    <Dialog.Root open={shown !== null} onOpenChange={(open) => setShown(open ? shown : null)}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-[rgb(0_0_0/0.45)]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-24 left-1/2 max-h-[70vh] w-[30rem] -translate-x-1/2 overflow-y-auto border border-edge bg-surface p-5 shadow-lg"
        >
          <Dialog.Title className="text-lg font-semibold">
            {shown === "keys" ? "Keys" : "Commands"}
          </Dialog.Title>
          {shown === "keys" ? (
            <Keys shortcuts={shortcuts} />
          ) : (
            <Commands shortcuts={shortcuts} onDone={() => setShown(null)} />
          )}
          <Dialog.Close className="press mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Whether keys belong to a field that is being typed in. */
function isTyping({ target }: KeyboardEvent): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      target instanceof HTMLTextAreaElement ||
      target instanceof HTMLSelectElement ||
      (target instanceof HTMLInputElement && !["radio", "checkbox", "range"].includes(target.type)))
  );
}

function matches(keys: string, event: KeyboardEvent): boolean {
  const parts = keys.split("+");
  const control = event.ctrlKey || event.metaKey;
  return (
    parts.at(-1)?.toLowerCase() === event.key.toLowerCase() &&
    parts.includes("Ctrl") === control &&
    (!control || parts.includes("Shift") === event.shiftKey) &&
    !event.altKey
  );
}

function Keys({ shortcuts }: { shortcuts: Shortcut[] }) {
  const all = [
    ...shortcuts.flatMap(({ name, keys }) => (keys ? [{ name, keys }] : [])),
    { name: "Make the open role lighter", keys: "+" },
    { name: "Make the open role darker", keys: "−" },
    { name: "All commands", keys: "Ctrl+K" },
    { name: "This page", keys: "?" },
  ];
  return (
    <dl className="rows mt-3">
      {all.map(({ name, keys }) => (
        <div key={name} className="flex justify-between py-1.5">
          <dt>{name}</dt>
          <dd>
            <kbd className="number text-sm">{keys}</kbd>
          </dd>
        </div>
      ))}
    </dl>
  );
}

function Commands({ shortcuts, onDone }: { shortcuts: Shortcut[]; onDone(): void }) {
  const [text, setText] = useState("");
  const found = shortcuts.filter((s) => s.name.toLowerCase().includes(text.trim().toLowerCase()));
  const run = (shortcut: Shortcut | undefined) => {
    if (!shortcut) return;
    onDone();
    shortcut.run();
  };
  return (
    <form
      className="mt-3"
      onSubmit={(event) => {
        event.preventDefault();
        run(found[0]);
      }}
    >
      <label htmlFor="command" className="sr-only">
        Command
      </label>
      <input
        id="command"
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder="Type what you want to do"
        autoComplete="off"
        className="entry"
      />
      <ul className="rows mt-2">
        {found.map((shortcut) => (
          <li key={shortcut.name}>
            <button
              type="button"
              className="flex w-full justify-between py-1.5 text-left hover:underline"
              onClick={() => run(shortcut)}
            >
              {shortcut.name}
              {shortcut.keys ? <kbd className="number text-sm">{shortcut.keys}</kbd> : null}
            </button>
          </li>
        ))}
        {found.length === 0 ? (
          <li className="py-1.5 text-faint">No command has this in its name.</li>
        ) : null}
      </ul>
    </form>
  );
}
