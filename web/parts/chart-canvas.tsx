import { BarChart, LineChart } from "echarts/charts";
import { GridComponent, LegendComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { init, use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";
import type { ChartSeries, ChartWanted } from "./chart-wanted.ts";

use([BarChart, LineChart, GridComponent, LegendComponent, MarkLineComponent, TooltipComponent, SVGRenderer]);

type Colour = (name: string) => string;

/** From this many places on their names stand upright. */
const CROWDED = 14;

const strokes = { line: "solid", dashes: "dashed", dots: "dotted", marks: "solid" } as const;
const colours = ["--leaf", "--damson", "--ink", "--soft"];

function seriesOf({ name, values, axis, as }: ChartSeries, at: number, colour: Colour) {
  const own = colour(colours[at % colours.length] ?? "--ink");
  const base = { name, yAxisIndex: axis === "left" ? 0 : 1, itemStyle: { color: own } };
  if (as === "bar") return { ...base, type: "bar", data: values, barMaxWidth: 28 };
  return {
    ...base,
    type: "line",
    data: values,
    symbol: as === "dots" ? "none" : as === "marks" ? "triangle" : at === 0 ? "circle" : "diamond",
    symbolSize: 8,
    connectNulls: true,
    lineStyle: { color: own, type: strokes[as], width: as === "marks" ? 0 : 2 },
  };
}

/** Two lines that are not seen, and what lies between them. */
function bandOf({ low, high }: NonNullable<ChartWanted["band"]>, colour: string) {
  const base = {
    type: "line",
    yAxisIndex: 1,
    stack: "band",
    symbol: "none",
    silent: true,
    lineStyle: { opacity: 0 },
  };
  return [
    { ...base, name: "from", data: low },
    {
      ...base,
      name: "to",
      data: high.map((value, at) => value - (low[at] ?? 0)),
      areaStyle: { color: colour, opacity: 0.16 },
    },
  ];
}

/** The options of a chart in these colours. */
function optionsOf({ places, series, aim, notes, band }: Omit<ChartWanted, "label">, colour: Colour) {
  const [ink, soft, line] = [colour("--ink"), colour("--soft"), colour("--line")];
  const crowded = places.length >= CROWDED;
  const onRight = series
    .filter((one) => one.axis === "right")
    .flatMap((one) => one.values.map((value) => value ?? 100))
    .concat(band?.low ?? []);
  const drawn = series.map((one, at) => seriesOf(one, at, colour));
  const level = aim && {
    silent: true,
    symbol: "none",
    data: [{ yAxis: aim.value, name: aim.name }],
    lineStyle: { color: ink, type: "dotted" },
    label: { formatter: aim.name, color: ink, position: "end" },
  };
  return {
    animation: false,
    textStyle: { fontFamily: "inherit", color: ink },
    grid: {
      left: 44,
      right: aim ? 84 : onRight.length > 0 ? 44 : 12,
      top: series.length > 1 ? 32 : 14,
      bottom: crowded ? 74 : 26,
    },
    legend: {
      show: series.length > 1,
      data: series.map((one) => one.name),
      top: 0,
      itemGap: 24,
      textStyle: { color: ink },
    },
    tooltip: {
      trigger: "axis",
      renderMode: "richText",
      formatter: (shown: { dataIndex: number; seriesName: string; value: unknown; data: unknown }[]) => {
        const at = shown[0]?.dataIndex ?? 0;
        const figures = series.flatMap((one) =>
          one.values[at] === null ? [] : [`${one.name}: ${one.values[at]}${one.axis === "right" ? "%" : ""}`],
        );
        return [places[at], ...figures, ...(notes?.[at] ? [notes[at]] : [])].join("\n");
      },
    },
    xAxis: {
      type: "category",
      data: places,
      axisLabel: { color: soft, interval: crowded ? 0 : "auto", rotate: crowded ? 60 : 0 },
      axisLine: { lineStyle: { color: line } },
    },
    yAxis: (["left", "right"] as const).map((side) => ({
      type: "value",
      min: side === "right" ? Math.min(70, Math.floor(Math.min(...onRight) / 10) * 10) : 0,
      max: side === "right" ? 100 : undefined,
      show: side === "left" || onRight.length > 0,
      axisLabel: { color: soft, formatter: side === "right" ? "{value}%" : "{value}" },
      splitLine: { show: side === "left", lineStyle: { color: line } },
    })),
    series: [
      ...drawn.map((one, at) => (at === 0 && level ? { ...one, markLine: level } : one)),
      ...(band ? bandOf(band, colour("--leaf")) : []),
    ],
  };
}

/** The chart itself, in the colours of the page. */
export function ChartCanvas({ places, series, aim, notes, band }: ChartWanted) {
  const place = useRef<HTMLDivElement>(null);
  const wanted = JSON.stringify({ places, series, aim, notes, band });
  useEffect(() => {
    const here = place.current;
    if (!here) return;
    const colour = (name: string) => getComputedStyle(here).getPropertyValue(name).trim();
    const chart = init(here, null, { renderer: "svg" });
    chart.setOption(optionsOf(JSON.parse(wanted), colour));
    const resize = new ResizeObserver(() => chart.resize());
    resize.observe(here);
    return () => {
      resize.disconnect();
      chart.dispose();
    };
  }, [wanted]);
  return <div ref={place} className="h-full w-full" />;
}
