import type { ReactNode } from "react";

interface PageProps {
  title: string;
  lead?: ReactNode;
  actions?: ReactNode;
  children: ReactNode;
}

/** A page of the usual width with its heading. */
export function Page({ title, lead, actions, children }: PageProps) {
  return (
    <div className="mx-auto w-full max-w-6xl px-6 py-6">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div className="min-w-0">
          <h1 className="break-words">{title}</h1>
          {lead ? <p className="mt-1 text-faint">{lead}</p> : null}
        </div>
        {actions}
      </div>
      <div className="mt-5 relative max-[60rem]:overflow-x-auto">{children}</div>
    </div>
  );
}
