import { Tabs } from "radix-ui";
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { data, redirect } from "react-router";
import type { ThemeDocument } from "#core/theme/document.ts";
import { type Role, SCHEMES } from "#core/theme/roles.ts";
import { computeTheme, type Theme } from "#core/theme/theme.ts";
import { listLiveReleases } from "#server/estate/live.ts";
import type { ThemeId } from "#server/ids.ts";
import { readPolicy } from "#server/policy/policy.ts";
import { listWaivers } from "#server/policy/waivers.ts";
import { listReleases } from "#server/releases/releases.ts";
import { openTheme } from "#server/themes/themes.ts";
import { found, idFrom } from "../../params.ts";
import { PAGE_WORDS, PREVIEW_PAGES } from "../../previews/page.ts";
import { mayChange, signedIn } from "../../session.ts";
import type { Route } from "./+types/route";
import { Bar } from "./bar.tsx";
import { ByHand, countByHand } from "./by-hand.tsx";
import { USED_COLOURS } from "./colour-field.tsx";
import { Findings, openFindings } from "./findings.tsx";
import { ScalesPanel } from "./ladder.tsx";
import { Newer } from "./newer.tsx";
import { PolicyContext, usePolicy } from "./policy-context.ts";
import { RoleTable } from "./role-table.tsx";
import { saveFromForm } from "./save.ts";
import { type Shortcut, Shortcuts } from "./shortcuts.tsx";
import { Sources } from "./sources.tsx";
import { Stage } from "./stage.tsx";
import { TypeShape } from "./type-shape.tsx";
import { useDraft } from "./use-draft.ts";
import { useUsedColours } from "./use-used-colours.ts";
import { useView, type View } from "./view.ts";
import { dayFromNow, type ShownWaiver } from "./waive.tsx";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  {
    title: `${(loaderData as { theme?: { name: string } })?.theme?.name ?? "Theme"} · Livery`,
  },
];

/** How many releases that are live somewhere are offered to compare with. */
const LIVE_SHOWN = 20;

export async function loader({ request, params }: Route.LoaderArgs) {
  const person = await signedIn(request);
  const theme = found(await openTheme(idFrom<ThemeId>(params.theme)));
  const [[last], live, policy, waivers] = await Promise.all([
    listReleases(1, theme.id),
    listLiveReleases(LIVE_SHOWN),
    readPolicy(),
    listWaivers(theme.id),
  ]);
  return {
    theme,
    mayChange: person.capability === "administrator",
    policy,
    waivers,
    others: [
      ...(last ? [{ key: "release", words: "last release", document: last.document }] : []),
      ...live.map(({ id, document, places, count }) => ({
        key: id,
        words: `live at ${places.join(", ")}${count > places.length ? ` and ${count - places.length} more` : ""}`,
        document,
      })),
    ],
  };
}

/** Saves the form as the browser itself sends it, without scripts. */
export async function action({ request, params }: Route.ActionArgs) {
  const person = await mayChange(request);
  const id = idFrom<ThemeId>(params.theme);
  const form = await request.formData();
  if (form.get("decide") === "theirs") return redirect(`/themes/${id}`);
  const answer = await saveFromForm(form, id, person.id);
  const status = answer.kind === "refused" ? 400 : answer.kind === "newer" ? 409 : 200;
  return data(answer, { status });
}

/** What is shown stands in the address, but changing it loads nothing. */
export function shouldRevalidate({
  currentUrl,
  nextUrl,
  defaultShouldRevalidate,
}: {
  currentUrl: URL;
  nextUrl: URL;
  defaultShouldRevalidate: boolean;
}): boolean {
  const onlyTheView =
    currentUrl.pathname === nextUrl.pathname && currentUrl.search !== nextUrl.search;
  return onlyTheView ? false : defaultShouldRevalidate;
}

export default function Workbench({ loaderData, actionData }: Route.ComponentProps) {
  const { theme, mayChange, others, policy, waivers } = loaderData;
  const conflict = actionData?.kind === "newer" ? actionData : null;
  const draft = useDraft(`/themes/${theme.id}/draft`, {
    document: conflict?.ours ?? theme.document,
    revision: theme.revision,
    newer: conflict?.theirs ?? null,
  });
  const { document } = draft;
  const used = useUsedColours(`livery-colours ${theme.id}`, document, draft.state);
  const [view, setView] = useView();
  const computed = useMemo(
    () => computeTheme(document, policy.conformance),
    [document, policy.conformance],
  );
  // Previews follow at once; the tables a moment later, so that a drag stays smooth.
  const settled = useDeferredValue(
    useMemo(() => ({ document, theme: computed }), [document, computed]),
  );
  const [pointed, setPointed] = useState<Role | null>(null);
  const [open, setOpen] = useState<Role | null>(null);

  const latest = useRef(draft.change);
  useEffect(() => {
    latest.current = draft.change;
  });
  const change = useCallback((after: ThemeDocument) => latest.current(after), []);
  const press = useCallback(
    (role: Role) => {
      setView({ tab: "roles", filter: "" });
      setOpen(role);
    },
    [setView],
  );
  const lit = useMemo(() => litSteps(settled.theme, pointed), [settled, pointed]);

  return (
    <PolicyContext value={policy}>
      <div className="flex h-[calc(100vh-3rem)] min-h-[36rem] flex-col max-[60rem]:h-auto">
        <Bar name={theme.name} id={theme.id} draft={draft} theme={computed} mayChange={mayChange} />
        {draft.newer ? (
          <Newer
            theirs={draft.newer}
            mine={document}
            onKeepMine={draft.keepMine}
            onTakeTheirs={draft.takeTheirs}
          />
        ) : null}
        <div className="grid min-h-0 flex-1 grid-cols-[17rem_minmax(22rem,1fr)_minmax(22rem,1.15fr)] max-[60rem]:grid-cols-1">
          <section
            aria-label="Sources and shades"
            className="relative overflow-y-auto border-r border-hair bg-surface px-4 py-3"
          >
            <Sources
              draft={draft}
              scales={computed.scales}
              mayChange={mayChange}
              problems={actionData?.kind === "refused" ? actionData.problems : {}}
            />
            <ScalesPanel
              scales={settled.theme.scales}
              canvas={settled.theme.schemes.light.standard.canvas.colour}
              lit={lit}
            />
          </section>
          <Middle
            settled={settled}
            view={view}
            onView={setView}
            mayChange={mayChange}
            waivers={waivers}
            waiversAt={`/themes/${theme.id}/waivers`}
            open={open}
            pointed={pointed}
            onOpen={setOpen}
            onPoint={setPointed}
            onPress={press}
            onChange={change}
          />
          <Stage
            document={document}
            theme={computed}
            others={others}
            view={view}
            onView={setView}
            lit={pointed}
            onPoint={setPointed}
            onPress={press}
          />
        </div>
        <datalist id={USED_COLOURS}>
          {used.map((colour) => (
            <option key={colour} value={colour} />
          ))}
        </datalist>
        <Shortcuts shortcuts={shortcutsOf(draft, view, setView, mayChange)} />
      </div>
    </PolicyContext>
  );
}

interface MiddleProps {
  settled: { document: ThemeDocument; theme: Theme };
  view: View;
  onView(change: Partial<View>): void;
  mayChange: boolean;
  waivers: readonly ShownWaiver[];
  waiversAt: string;
  open: Role | null;
  pointed: Role | null;
  onOpen(role: Role | null): void;
  onPoint(role: Role | null): void;
  onPress(role: Role): void;
  onChange(document: ThemeDocument): void;
}

/** What is typed goes into the address a moment later, in milliseconds. */
const FILTER_AFTER_MS = 300;

/** Roles, findings, what is set by hand, type and shape: one at a time. */
const Middle = memo(function Middle(props: MiddleProps) {
  const { settled, view, onView, mayChange, open, pointed, onOpen, onPoint, onPress, onChange } =
    props;
  const { document, theme } = settled;
  const policy = usePolicy();
  const byHand = countByHand(document);
  const left = openFindings(
    theme.findings,
    policy.waivers ? props.waivers : [],
    dayFromNow(0),
  ).length;
  const [filter, setFilter] = useState(view.filter);
  const asked = useRef(view.filter);
  useEffect(() => {
    if (asked.current === view.filter) return;
    asked.current = view.filter;
    setFilter(view.filter);
  }, [view.filter]);
  useEffect(() => {
    const timer = setTimeout(() => {
      if (filter === asked.current) return;
      asked.current = filter;
      onView({ filter });
    }, FILTER_AFTER_MS);
    return () => clearTimeout(timer);
  }, [filter, onView]);
  const tabs = [
    { value: "roles", label: "Roles" },
    {
      value: "findings",
      label: left > 0 ? `Findings ${left}` : "Findings",
    },
    { value: "by-hand", label: byHand > 0 ? `By hand ${byHand}` : "By hand" },
    { value: "type", label: "Type and shape" },
  ];
  return (
    <Tabs.Root
      value={view.tab}
      onValueChange={(tab) => onView({ tab: tab as View["tab"] })}
      className="flex min-h-0 min-w-0 flex-col border-r border-hair bg-surface max-[60rem]:h-[36rem]"
    >
      <Tabs.List
        aria-label="What to work on"
        className="flex shrink-0 gap-1 border-b border-hair px-2"
      >
        {tabs.map(({ value, label }) => (
          <Tabs.Trigger
            key={value}
            value={value}
            className="border-b-2 border-transparent px-2 py-2 text-sm whitespace-nowrap text-faint hover:text-ink data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink"
          >
            {label}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value="roles" className="flex min-h-0 flex-1 flex-col">
        <div className="flex items-center gap-2 border-b border-hair px-3 py-1.5">
          <label htmlFor="filter" className="sr-only">
            Find a role
          </label>
          <input
            id="filter"
            type="search"
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
            placeholder="Find a role"
            className="entry py-1 text-sm"
          />
        </div>
        <div className="relative min-h-0 flex-1 overflow-y-auto">
          <RoleTable
            document={document}
            theme={theme}
            mayChange={mayChange}
            filter={filter}
            open={open}
            pointed={pointed}
            onOpen={onOpen}
            onPoint={onPoint}
            onChange={onChange}
          />
        </div>
      </Tabs.Content>
      <Tabs.Content value="findings" className="relative min-h-0 flex-1 overflow-y-auto">
        <Findings
          document={document}
          theme={theme}
          mayChange={mayChange}
          waivers={props.waivers}
          waiversAt={props.waiversAt}
          onRepair={onChange}
          onPoint={onPoint}
          onOpen={onPress}
        />
      </Tabs.Content>
      <Tabs.Content value="by-hand" className="relative min-h-0 flex-1 overflow-y-auto">
        <ByHand
          document={document}
          theme={theme}
          mayChange={mayChange}
          onChange={onChange}
          onOpen={onPress}
        />
      </Tabs.Content>
      <Tabs.Content value="type" className="relative min-h-0 flex-1 overflow-y-auto">
        <TypeShape document={document} mayChange={mayChange} onChange={onChange} />
      </Tabs.Content>
    </Tabs.Root>
  );
});

/** The steps that a role takes, with the scheme in which it does. */
function litSteps(theme: Theme, role: Role | null): Map<string, string> {
  const lit = new Map<string, string>();
  if (role === null) return lit;
  for (const scheme of SCHEMES) {
    const { reason } = theme.schemes[scheme].standard[role];
    if (reason.kind !== "brand" && reason.kind !== "step") continue;
    const key = `${reason.scale} ${reason.step}`;
    lit.set(key, lit.has(key) ? "both" : scheme);
  }
  return lit;
}

function shortcutsOf(
  draft: ReturnType<typeof useDraft>,
  view: View,
  setView: (change: Partial<View>) => void,
  mayChange: boolean,
): Shortcut[] {
  return [
    ...(mayChange
      ? [
          { name: "Undo", keys: "Ctrl+Z", run: draft.undo },
          { name: "Redo", keys: "Ctrl+Shift+Z", run: draft.redo },
        ]
      : []),
    { name: "Show roles", keys: "1", run: () => setView({ tab: "roles" }) },
    { name: "Show findings", keys: "2", run: () => setView({ tab: "findings" }) },
    { name: "Show what is set by hand", keys: "3", run: () => setView({ tab: "by-hand" }) },
    { name: "Show type and shape", keys: "4", run: () => setView({ tab: "type" }) },
    {
      name: "Light, dark or both",
      keys: "S",
      run: () =>
        setView({ show: view.show === "both" ? "light" : view.show === "light" ? "dark" : "both" }),
    },
    {
      name: "More or standard contrast",
      keys: "C",
      run: () => setView({ level: view.level === "more" ? "standard" : "more" }),
    },
    ...PREVIEW_PAGES.map((page) => ({
      name: `Preview: ${PAGE_WORDS[page]}`,
      keys: null,
      run: () => setView({ page }),
    })),
  ];
}
