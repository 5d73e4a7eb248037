import { lazy, memo, Suspense, useMemo, useState } from "react";
import type { ThemeDocument } from "#core/theme/document.ts";
import type { Role, Scheme } from "#core/theme/roles.ts";
import { computeTheme, type Theme } from "#core/theme/theme.ts";
import { Choice } from "../../components/choice.tsx";
import { HomePreview } from "../../previews/home.tsx";
import {
  PAGE_WORDS,
  PREVIEW_PAGES,
  type PreviewPage,
  SHOWN_STATES,
  type ShownState,
} from "../../previews/page.ts";
import { ReadingPreview } from "../../previews/reading.tsx";
import { RecordsPreview } from "../../previews/records.tsx";
import { RequestPreview } from "../../previews/request.tsx";
import { SignInPreview } from "../../previews/sign-in.tsx";
import { declarationsOf } from "./declarations.ts";
import { Frame } from "./frame.tsx";
import { usePolicy } from "./policy-context.ts";
import { Preview } from "./preview.tsx";
import { type View, WIDTHS } from "./view.ts";
import { VisionFilters } from "./vision-filters.tsx";

/** Charts are large: their code is fetched when the dashboard is asked for. */
const DashboardPreview = lazy(() => import("../../previews/dashboard.tsx"));

const PAGES: Record<PreviewPage, React.ComponentType<{ shown: ShownState }>> = {
  home: HomePreview,
  "sign-in": SignInPreview,
  request: RequestPreview,
  records: RecordsPreview,
  dashboard: DashboardPreview,
  reading: ReadingPreview,
};

/** A document to compare the draft with. */
export interface Beside {
  key: string;
  words: string;
  document: ThemeDocument;
}

interface StageProps {
  document: ThemeDocument;
  theme: Theme;
  others: readonly Beside[];
  view: View;
  onView(change: Partial<View>): void;
  lit: Role | null;
  onPoint(role: Role | null): void;
  onPress(role: Role): void;
}

/** Where the theme is judged: pages in both schemes, at any width, as anybody would see them. */
export const Stage = memo(function Stage(props: StageProps) {
  const { document, theme, others, view, onView } = props;
  const beside = others.find(({ key }) => key === view.compare);
  const other = beside?.document ?? null;
  const { conformance } = usePolicy();
  const otherTheme = useMemo(() => other && computeTheme(other, conformance), [other, conformance]);
  const schemes: Scheme[] = view.show === "both" ? ["light", "dark"] : [view.show];
  return (
    <section
      aria-label="Preview"
      className="relative flex min-h-0 min-w-0 flex-col overflow-hidden bg-ground max-[60rem]:h-[44rem]"
    >
      <VisionFilters />
      <Controls view={view} onView={onView} others={others} />
      <div
        className={`grid min-h-0 flex-1 grid-cols-1 gap-px bg-hair ${schemes.length === 2 ? "grid-rows-2" : ""}`}
      >
        {schemes.map((scheme) => (
          <div key={scheme} className="relative flex min-h-0 min-w-0 flex-col bg-ground">
            <h2 className="px-3 py-0.5 text-xs">{scheme === "light" ? "Light" : "Dark"}</h2>
            <div className="min-h-0 flex-1">
              <noscript>
                <Preview colours={theme.schemes[scheme].standard} scheme={scheme} />
              </noscript>
              <Compared
                before={
                  beside && otherTheme
                    ? { document: beside.document, theme: otherTheme, words: beside.words }
                    : null
                }
                scheme={scheme}
                {...props}
              >
                <Screen scheme={scheme} {...props} document={document} theme={theme} />
              </Compared>
            </div>
          </div>
        ))}
      </div>
    </section>
  );
});

interface ScreenProps extends StageProps {
  scheme: Scheme;
  title?: string;
}

function Screen({ scheme, title, document, theme, view, lit, onPoint, onPress }: ScreenProps) {
  const declarations = declarationsOf(theme.schemes[scheme][view.level], scheme, document);
  return (
    <Frame
      title={title ?? `${PAGE_WORDS[view.page]}, ${scheme}`}
      declarations={declarations}
      width={WIDTHS[view.width]}
      filter={filterOf(view.vision)}
      lit={lit}
      onPoint={onPoint}
      onPress={onPress}
    >
      <Content page={view.page} shown={view.state} />
    </Frame>
  );
}

/** The page itself does not depend on the theme, so a change of colour leaves it alone. */
const Content = memo(function Content({ page, shown }: { page: PreviewPage; shown: ShownState }) {
  const Page = PAGES[page];
  return (
    <Suspense fallback={<p>Loading the charts …</p>}>
      <Page shown={shown} />
    </Suspense>
  );
});

const filterOf = (vision: View["vision"]): string => {
  if (vision === "typical") return "none";
  return vision === "low-contrast" ? "contrast(0.55)" : `url(#sees-${vision})`;
};

interface ComparedProps extends StageProps {
  before: { document: ThemeDocument; theme: Theme; words: string } | null;
  scheme: Scheme;
  children: React.ReactNode;
}

/** The page as it is, and before it, up to a line that a slider moves, as it was. */
function Compared({ before, scheme, children, ...stage }: ComparedProps) {
  const [split, setSplit] = useState(50);
  if (before === null) return children;
  const { words } = before;
  return (
    <div className="relative h-full">
      {children}
      <div
        className="absolute inset-0 border-r-2 border-ink"
        style={{ clipPath: `inset(0 ${100 - split}% 0 0)` }}
      >
        <Screen
          {...stage}
          document={before.document}
          theme={before.theme}
          scheme={scheme}
          title={`${words}, ${scheme}`}
        />
      </div>
      <label className="absolute inset-x-2 bottom-1 flex items-center gap-2 bg-surface px-2 py-0.5 text-xs">
        {words}
        <input
          type="range"
          min={0}
          max={100}
          value={split}
          onChange={(event) => setSplit(Number(event.target.value))}
          className="flex-1 accent-ink"
        />
        draft
      </label>
    </div>
  );
}

interface ControlsProps {
  view: View;
  onView(change: Partial<View>): void;
  others: StageProps["others"];
}

function Controls({ view, onView, others }: ControlsProps) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair bg-surface px-3 py-1.5">
      <Choice
        label="Page"
        value={view.page}
        options={PREVIEW_PAGES.map((value) => ({ value, label: PAGE_WORDS[value] }))}
        onChange={(page) => onView({ page })}
      />
      <Choice
        label="Show"
        value={view.show}
        options={[
          { value: "both", label: "both" },
          { value: "light", label: "light" },
          { value: "dark", label: "dark" },
        ]}
        onChange={(show) => onView({ show })}
      />
      <Choice
        label="Width"
        value={view.width}
        options={[
          { value: "fit", label: "as it fits" },
          { value: "desktop", label: "desktop" },
          { value: "tablet", label: "tablet" },
          { value: "phone", label: "phone" },
        ]}
        onChange={(width) => onView({ width })}
      />
      <Choice
        label="Seen"
        value={view.vision}
        options={[
          { value: "typical", label: "by most" },
          { value: "protanopia", label: "without red cones" },
          { value: "deuteranopia", label: "without green cones" },
          { value: "tritanopia", label: "without blue cones" },
          { value: "low-contrast", label: "with weak contrast" },
        ]}
        onChange={(vision) => onView({ vision })}
      />
      <Choice
        label="Contrast"
        value={view.level}
        options={[
          { value: "standard", label: "standard" },
          { value: "more", label: "more" },
        ]}
        onChange={(level) => onView({ level })}
      />
      <Choice
        label="Controls"
        value={view.state}
        options={SHOWN_STATES.map((value) => ({ value, label: value }))}
        onChange={(state) => onView({ state })}
      />
      {others.length > 0 ? (
        <Choice
          label="Beside"
          value={view.compare}
          options={[
            { value: "nothing", label: "nothing" },
            ...others.map(({ key, words }) => ({ value: key, label: words })),
          ]}
          onChange={(compare) => onView({ compare })}
        />
      ) : null}
    </div>
  );
}
