import { LineChart } from "echarts/charts";
import { GridComponent, LegendComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { init, use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";
import type { ChartWanted } from "./chart-wanted.ts";

use([LineChart, GridComponent, LegendComponent, MarkLineComponent, TooltipComponent, SVGRenderer]);

/** The chart itself, in the colours of the page; lines differ by their dashes and marks too. */
export function ChartCanvas({ places, lines, aim }: ChartWanted) {
  const place = useRef<HTMLDivElement>(null);
  const wanted = JSON.stringify({ places, lines, aim });
  useEffect(() => {
    const here = place.current;
    if (!here) return;
    const told = JSON.parse(wanted) as Pick<ChartWanted, "places" | "lines" | "aim">;
    const colour = (name: string) => getComputedStyle(here).getPropertyValue(name).trim();
    const [ink, soft, line] = [colour("--ink"), colour("--soft"), colour("--line")];
    const chart = init(here, null, { renderer: "svg" });
    const axis = (side: "left" | "right") =>
      told.lines
        .filter((one) => one.axis === side)
        .map((one) => one.name)
        .join(", ");
    chart.setOption({
      animation: false,
      textStyle: { fontFamily: "inherit", color: ink },
      grid: { left: 44, right: 44, top: 30, bottom: 26 },
      legend: { top: 0, itemGap: 28, textStyle: { color: ink } },
      tooltip: { trigger: "axis" },
      xAxis: {
        type: "category",
        data: told.places,
        axisLabel: { color: soft },
        axisLine: { lineStyle: { color: line } },
      },
      yAxis: (["left", "right"] as const).map((side) => ({
        type: "value",
        name: "",
        min: side === "right" ? 70 : 0,
        max: side === "right" ? 100 : undefined,
        show: axis(side) !== "",
        axisLabel: { color: soft, formatter: side === "right" ? "{value}%" : "{value}" },
        splitLine: { show: side === "left", lineStyle: { color: line } },
      })),
      series: told.lines.map((one, at) => ({
        type: "line",
        name: one.name,
        data: one.values,
        yAxisIndex: one.axis === "left" ? 0 : 1,
        symbol: at === 0 ? "circle" : "diamond",
        symbolSize: 8,
        connectNulls: true,
        lineStyle: {
          color: at === 0 ? colour("--leaf") : colour("--damson"),
          type: at === 0 ? "solid" : "dashed",
          width: 2,
        },
        itemStyle: { color: at === 0 ? colour("--leaf") : colour("--damson") },
        ...(at === 0 && told.aim
          ? {
              markLine: {
                symbol: "none",
                data: [{ yAxis: told.aim.value, name: told.aim.name }],
                lineStyle: { color: soft, type: "dotted" },
                label: { formatter: told.aim.name, color: soft, position: "insideEndTop" },
              },
            }
          : {}),
      })),
    });
    const resize = new ResizeObserver(() => chart.resize());
    resize.observe(here);
    return () => {
      resize.disconnect();
      chart.dispose();
    };
  }, [wanted]);
  return <div ref={place} className="h-full w-full" />;
}
