/** What done looks like beside what not yet looks like. */

import { t } from "@lingui/core/macro";
import { Drawing } from "../ui/Drawing";
import { Label } from "../ui/dimension";
import { fill } from "../ui/materials";
import { type Looks, PAIRS } from "./cuePairs";

export function CueDrawing({ looks }: { looks: Looks }) {
  if (looks === "stick") return <Stick />;
  if (looks === "ball") return <CutBall />;
  const { done, notYet, draw } = PAIRS[looks];
  return (
    <Drawing
      viewBox="0 0 640 240"
      className="block w-full max-w-[640px]"
      role="img"
      aria-label={t`Done: ${done}. Not yet: ${notYet}`}
    >
      {[
        { x: 20, state: true, words: t`${done}: done`, tone: "green" as const },
        { x: 350, state: false, words: t`${notYet}: not yet`, tone: "look" as const },
      ].map((item) => (
        <g key={item.words} transform={`translate(${item.x} 0)`}>
          {draw(item.state)}
          <Label x={125} y={226} anchor="middle" bold size={21} tone={item.tone}>
            {item.words}
          </Label>
        </g>
      ))}
    </Drawing>
  );
}

function Stick() {
  return (
    <Drawing
      viewBox="0 0 640 240"
      className="block w-full max-w-[640px]"
      role="img"
      aria-label={t`A clear stick is done; a milky smear is not yet`}
    >
      {[
        { x: 20, batter: "batter", milky: false, words: t`clear: done`, tone: "green" as const },
        { x: 350, batter: "starch", milky: true, words: t`milky: not yet`, tone: "look" as const },
      ].map((item) => (
        <g key={item.words} transform={`translate(${item.x} 0)`}>
          <rect
            x="10"
            y="80"
            width="230"
            height="100"
            fill={fill(item.batter)}
            stroke="var(--color-ink)"
            strokeWidth="1.6"
          />
          <path d="M3 54V181H247V54" fill="none" stroke="var(--color-ink)" strokeWidth="3" />
          <path d="M158 12L126 166" stroke="var(--color-ink)" strokeWidth="11" strokeLinecap="round" />
          <path
            d="M158 12L126 166"
            stroke={item.milky ? "var(--color-milk)" : "var(--color-batter)"}
            strokeWidth="8"
            strokeLinecap="round"
          />
          {item.milky && (
            <path
              d="M143 86L127 160"
              stroke="var(--color-milk)"
              strokeWidth="15"
              strokeLinecap="round"
              opacity="0.95"
            />
          )}
          {item.milky && <path d="M143 86L127 160" stroke="var(--color-ink2)" strokeWidth="1" strokeDasharray="3 5" />}
          <Label x={125} y={218} anchor="middle" bold size={23} tone={item.tone}>
            {item.words}
          </Label>
        </g>
      ))}
    </Drawing>
  );
}

function CutBall() {
  return (
    <Drawing
      viewBox="0 0 640 240"
      className="block w-full max-w-[640px]"
      role="img"
      aria-label={t`A soft, steaming middle is done; a hard pale core is not yet`}
    >
      {[
        { x: 120, done: true, words: t`soft, steaming: done`, tone: "green" as const },
        { x: 450, done: false, words: t`hard, cold: not yet`, tone: "look" as const },
      ].map((item) => (
        <g key={item.words} transform={`translate(${item.x} 104)`}>
          <circle r="76" fill={fill("cooked")} stroke="var(--color-ink)" strokeWidth="2" />
          <circle r="47" fill={fill("filling")} stroke="var(--color-ink)" strokeWidth="1.4" />
          {item.done ? (
            <path
              d="M-20 -84q8 -9 0 -18M0 -88q8 -9 0 -18M20 -84q8 -9 0 -18"
              fill="none"
              stroke="var(--color-ink2)"
              strokeWidth="1.6"
              transform="translate(0 14)"
            />
          ) : (
            <circle
              r="27"
              fill="var(--color-other)"
              stroke="var(--color-ink)"
              strokeWidth="1.2"
              strokeDasharray="4 4"
            />
          )}
          <Label x={0} y={114} anchor="middle" bold size={23} tone={item.tone}>
            {item.words}
          </Label>
        </g>
      ))}
    </Drawing>
  );
}
