import { BarChart, LineChart, PieChart } from "echarts/charts";
import { GridComponent, LegendComponent, TooltipComponent } from "echarts/components";
import { type ECharts, init, use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef, useState } from "react";
import { type PreviewProps, shownAs } from "./page.ts";

use([BarChart, LineChart, PieChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer]);

const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
const CROSSINGS = ["Saltholm", "Varrick", "Tarn", "Orrin"];
const CARGO = ["Timber", "Salt", "Grain", "Parts", "Fuel", "Fish", "Mail", "Other"];
const chart = (n: number) => `var(--r-chart-${n})`;
const TEXT = { color: "var(--r-panel-text)", fontFamily: "inherit" };

/** Series are named after the theme's custom properties, so that they follow without being drawn anew. */
const lines = (busy: boolean) => ({
  textStyle: TEXT,
  grid: { left: 36, right: 8, top: 30, bottom: 24 },
  legend: { textStyle: TEXT, top: 0, itemWidth: 14 },
  tooltip: { trigger: "axis" },
  xAxis: {
    type: "category",
    data: DAYS,
    axisLabel: TEXT,
    axisLine: { lineStyle: { color: "var(--r-line-strong)" } },
  },
  yAxis: { type: "value", axisLabel: TEXT, splitLine: { lineStyle: { color: "var(--r-line)" } } },
  series: CROSSINGS.map((name, i) => ({
    name,
    type: i < 2 ? "line" : "bar",
    lineStyle: { color: chart(i + 1), width: 3 },
    itemStyle: { color: chart(i + 1) },
    data: DAYS.map((_, d) => Math.round(20 + 12 * Math.sin(d + i * 1.7) + (busy ? 18 : 0) + i * 4)),
  })),
});

const pie = {
  textStyle: TEXT,
  series: [
    {
      type: "pie",
      radius: ["30%", "54%"],
      label: { ...TEXT, formatter: "{b}", overflow: "none" },
      itemStyle: { borderColor: "var(--r-panel)", borderWidth: 2 },
      data: CARGO.map((name, i) => ({
        name,
        value: 22 - i * 2,
        itemStyle: { color: chart(i + 1) },
      })),
    },
  ],
};

function Chart({
  option,
  height,
  label,
  roles,
}: {
  option: object;
  height: number;
  label: string;
  roles: string;
}) {
  const at = useRef<HTMLDivElement>(null);
  const drawn = useRef<ECharts | null>(null);
  useEffect(() => {
    if (!at.current) return;
    const made = init(at.current, null, { renderer: "svg" });
    drawn.current = made;
    const view = at.current.ownerDocument.defaultView;
    const fit = () => made.resize();
    view?.addEventListener("resize", fit);
    return () => {
      view?.removeEventListener("resize", fit);
      made.dispose();
    };
  }, []);
  useEffect(() => {
    drawn.current?.setOption({ ...option, animation: false });
  }, [option]);
  return <div ref={at} role="img" aria-label={label} style={{ height }} data-roles={roles} />;
}

/** A dashboard with charts in the theme's series colours. */
export default function DashboardPreview({ shown }: PreviewProps) {
  const [busy, setBusy] = useState(false);
  return (
    <>
      <div className="header" data-roles="header header-text">
        <span className="name">Sailings Board</span>
      </div>
      <div className="columns">
        <div className="panel" data-roles="panel panel-text">
          <div className="row between">
            <h2>Sailings a day</h2>
            <button
              type="button"
              className="soft"
              data-roles="action-soft action-soft-text"
              onClick={() => setBusy(!busy)}
              {...shownAs(shown)}
            >
              {busy ? "Usual week" : "Holiday week"}
            </button>
          </div>
          <Chart
            option={lines(busy)}
            height={220}
            label="Sailings a day on four crossings"
            roles="chart-1 chart-2 chart-3 chart-4"
          />
        </div>
        <div className="panel" data-roles="panel panel-text">
          <h2>Cargo</h2>
          <Chart
            option={pie}
            height={220}
            label="Cargo by kind, in shares"
            roles="chart-5 chart-6 chart-7 chart-8"
          />
        </div>
      </div>
      <div className="columns" style={{ paddingTop: 0 }}>
        <p className="note success" data-roles="success-soft-text success-soft success-line">
          98 % on time this week
        </p>
        <p className="note warning" data-roles="warning-soft-text warning-soft warning-line">
          Two sailings at risk
        </p>
      </div>
    </>
  );
}
