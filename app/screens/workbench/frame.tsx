import mono from "@fontsource-variable/atkinson-hyperlegible-mono/wght.css?url";
import atkinson from "@fontsource-variable/atkinson-hyperlegible-next/wght.css?url";
import publicSans from "@fontsource-variable/public-sans/wght.css?url";
import sourceSerif from "@fontsource-variable/source-serif-4/wght.css?url";
import { type ReactNode, useEffect, useLayoutEffect, useRef, useState } from "react";
import { createPortal } from "react-dom";
import type { Role } from "#core/theme/roles.ts";
import previews from "../../previews/previews.css?url";

interface FrameProps {
  title: string;
  /** The theme as declarations of custom properties, for the root element's style. */
  declarations: string;
  /** Width of the page in px; the frame is scaled down where the stage is narrower. Null fills it. */
  width: number | null;
  /** CSS filter over the whole page: how somebody else would see it. */
  filter: string;
  /** Roles whose spots light up. */
  lit: Role | null;
  onPoint(role: Role | null): void;
  onPress(role: Role): void;
  children: ReactNode;
}

/**
 * A page in a document of its own: it has its own width, scroll and state, and is painted by custom
 * properties on its root element, so that a change of theme draws nothing anew.
 */
export function Frame(props: FrameProps) {
  const { title, declarations, width, filter, lit, onPoint, onPress, children } = props;
  const frame = useRef<HTMLIFrameElement>(null);
  const stage = useRef<HTMLDivElement>(null);
  const [page, setPage] = useState<HTMLElement | null>(null);
  const [scale, setScale] = useState(1);

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const open = () => {
      const found = element.contentDocument?.getElementById("page");
      if (found && found !== page) setPage(furnished(found));
    };
    open();
    element.addEventListener("load", open);
    return () => element.removeEventListener("load", open);
  }, [page]);

  useLayoutEffect(() => {
    if (page) page.ownerDocument.documentElement.style.cssText = declarations;
  }, [page, declarations]);

  useEffect(() => {
    page?.setAttribute("aria-label", title);
  }, [page, title]);

  useEffect(() => {
    if (!page) return;
    for (const spot of page.querySelectorAll("[data-lit]")) spot.removeAttribute("data-lit");
    if (lit)
      for (const spot of page.querySelectorAll(`[data-roles~="${lit}"]`))
        spot.setAttribute("data-lit", "");
  }, [page, lit]);

  useEffect(() => {
    const element = stage.current;
    if (!element || width === null) return setScale(1);
    const rescale = () => setScale(Math.min(1, element.clientWidth / width));
    rescale();
    const observer = new ResizeObserver(rescale);
    observer.observe(element);
    return () => observer.disconnect();
  }, [width]);

  const roleAt = (target: EventTarget): Role | null => {
    const spot = (target as Element).closest?.("[data-roles]");
    return (spot?.getAttribute("data-roles")?.split(" ")[0] as Role | undefined) ?? null;
  };

  return (
    <div ref={stage} className="h-full overflow-hidden" style={{ filter }}>
      <iframe
        ref={frame}
        title={title}
        src="/frame.html"
        className="block border-0 [forced-color-adjust:none]"
        style={{
          width: width ?? "100%",
          height: `${100 / scale}%`,
          transform: scale === 1 ? undefined : `scale(${scale})`,
          transformOrigin: "0 0",
          marginInline: width !== null && scale === 1 ? "auto" : undefined,
        }}
      />
      {page
        ? createPortal(
            // biome-ignore lint/a11y/noStaticElementInteractions: listens for what is pointed at inside; every spot's role can be opened from the table too
            // biome-ignore lint/a11y/useKeyWithClickEvents: pressing a spot is a shortcut to its row, which the keyboard reaches directly
            <div
              onPointerOver={(event) => onPoint(roleAt(event.target))}
              onPointerLeave={() => onPoint(null)}
              onClick={(event) => {
                const role = roleAt(event.target);
                if (role) onPress(role);
              }}
            >
              {children}
            </div>,
            page,
          )
        : null}
    </div>
  );
}

/** Gives a page's document its stylesheets, once. */
function furnished(page: HTMLElement): HTMLElement {
  const { head } = page.ownerDocument;
  if (head.childElementCount < 4)
    for (const href of [atkinson, mono, publicSans, sourceSerif, previews]) {
      const link = page.ownerDocument.createElement("link");
      link.rel = "stylesheet";
      link.href = href;
      head.append(link);
    }
  return page;
}
