/** The knife's places as strips of paper at full size: printed, cut out and laid beside the tray. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, ask } from "../../api/client";
import { Frame, Waiting } from "../../ui/Frame";
import { TextLink } from "../../ui/LinkButton";
import { fixed } from "../../words/numbers";
import { inches } from "./inches";

const PAGE_MM = 180; // a strip longer than a sheet of paper takes is printed in lengths
const HIGH_MM = 26;

interface Length {
  name: string;
  from: number;
  to: number;
  whole: number;
  ticks: number[];
}

/** A ruler in lengths that fit on paper; a tick on a joint stands on both. */
export function lengths(name: string, whole: number, ticks: number[]): Length[] {
  const n = Math.ceil(whole / PAGE_MM - 1e-9);
  return Array.from({ length: n }, (_, i) => {
    const from = i * PAGE_MM;
    const to = Math.min(whole, from + PAGE_MM);
    return { name, from, to, whole, ticks: ticks.filter((at) => at >= from - 1e-6 && at <= to + 1e-6) };
  });
}

export default function StripsPage() {
  const id = Number(useParams().sheetId);
  const opened = useQuery({
    queryKey: ["sheet-to-print", id],
    queryFn: () => ask(api.GET("/api/sheets/{sheet_id}", { params: { path: { sheet_id: id } } })),
  });
  if (!opened.data) return <Waiting error={opened.error} />;
  const { sheet, worked } = opened.data;
  const trays = worked.drawings.cut?.cannot ? [] : (worked.drawings.cut?.trays ?? []);
  const strips = trays.flatMap((tray) =>
    tray.rulers.flatMap((ruler) =>
      lengths(`${trays.length > 1 ? `${tray.name}: ` : ""}${ruler.along}`, ruler.length_mm, ruler.ticks),
    ),
  );
  return (
    <Frame
      title={
        <h1 className="font-title text-2xl">
          <Trans>Strips for {sheet.title}</Trans>
        </h1>
      }
    >
      <div className="mt-4 flex flex-wrap items-baseline gap-4 print:hidden">
        <button type="button" className="pick" data-on="true" onClick={() => window.print()}>
          <Trans>Print</Trans>
        </button>
        <TextLink to={`/sheets/${id}/cut`}>
          <Trans>Back to the sheet</Trans>
        </TextLink>
        <span className="text-ink2">
          <Trans>Print at 100 %, not “fit to page”; then lay a ruler on the check line.</Trans>
        </span>
      </div>
      {/* At full size a strip is wider than a phone: there it is looked at by scrolling, and printed whole. */}
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard */}
      <section data-paper aria-label={t`The strips`} tabIndex={0} className="overflow-x-auto print:overflow-visible">
        <figure className="mt-5">
          <svg
            width="102mm"
            height="10mm"
            viewBox="-1 0 102 10"
            role="img"
            aria-label={t`Check line, 100 mm`}
            data-testid="check"
          >
            <path d="M0 2v6M0 5h100M100 2v6" stroke="var(--color-ink)" strokeWidth="0.3" fill="none" />
          </svg>
          <figcaption className="text-sm">
            <Trans>This line is 100 mm long when the print is true.</Trans>
          </figcaption>
        </figure>
        {strips.length === 0 && (
          <p className="mt-6">
            <Trans>Nothing is cut on this sheet.</Trans>
          </p>
        )}
        {strips.map((strip) => (
          <Strip key={`${strip.name} ${strip.from}`} strip={strip} />
        ))}
      </section>
    </Frame>
  );
}

export function Strip({ strip }: { strip: Length }) {
  const long = strip.to - strip.from;
  const ink = "var(--color-ink)";
  return (
    <figure className="mt-5 break-inside-avoid">
      <figcaption className="text-sm">
        {strip.name}
        {strip.whole > PAGE_MM ? t`, ${(strip.from / 10).toFixed(0)} to ${fixed(strip.to / 10, 1)} cm` : ""}
      </figcaption>
      <svg
        width={`${long + 2}mm`}
        height={`${HIGH_MM}mm`}
        viewBox={`-1 0 ${long + 2} ${HIGH_MM}`}
        className="max-w-none"
        role="img"
        aria-label={t`${strip.name}: cut at ${strip.ticks.map((at) => fixed(at / 10, 1)).join(", ")} cm`}
        data-testid="strip"
      >
        <rect x="0" y="0.5" width={long} height={HIGH_MM - 1} fill="none" stroke={ink} strokeWidth="0.25" />
        {strip.from > 0 && <path d={`M0 0.5v${HIGH_MM - 1}`} stroke={ink} strokeWidth="0.6" strokeDasharray="1 1" />}
        {strip.ticks.map((at, i) => {
          const x = at - strip.from;
          // Figures of near neighbours stand on two levels.
          const near = i > 0 && at - (strip.ticks[i - 1] ?? 0) < 11;
          const low = near && i % 2 === 1;
          const lean = x < 8 ? 8 - x : x > long - 8 ? long - 8 - x : 0; // a figure at an end stands inside
          return (
            <g key={at}>
              <path d={`M${x} 0.5v10`} stroke={ink} strokeWidth="0.35" />
              <text x={x + lean} y={low ? 20 : 14} fontSize="3.5" textAnchor="middle" fill={ink}>
                {fixed(at / 10, 1)}
              </text>
              <text x={x + lean} y={low ? 24 : 18} fontSize="3.5" textAnchor="middle" fill={ink}>
                {inches(at)}″
              </text>
            </g>
          );
        })}
      </svg>
    </figure>
  );
}
