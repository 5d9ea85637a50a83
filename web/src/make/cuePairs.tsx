/** The two looks of each cue: done, and not yet. */

import { t } from "@lingui/core/macro";
import type { ReactNode } from "react";
import type { StepResult } from "../api/client";
import { fill } from "../ui/materials";

export type Looks = NonNullable<StepResult["cue"]>["looks"];

/** One drawing of two states: what is drawn for done and for not yet, and the words under each. */
interface Pair {
  done: string;
  notYet: string;
  draw: (done: boolean) => ReactNode;
}

export const INK = "var(--color-ink)";

export const INK2 = "var(--color-ink2)";

export const AMBER = "var(--color-amber)";

export const PAIRS: Record<Exclude<Looks, "stick" | "ball">, Pair> = {
  dough: {
    done: t`clear, in a rope`,
    notYet: t`milky, in lumps`,
    draw: (done) => (
      <>
        <path d="M20 120H220Q220 176 120 176T20 120Z" fill="var(--color-sheet)" stroke={INK} strokeWidth="2.4" />
        {done ? (
          <path
            d="M60 120q10-40 40-44t18-62h20q-6 46 22 60t30 46z"
            fill={fill("cooked")}
            stroke={INK}
            strokeWidth="1.8"
          />
        ) : (
          [62, 98, 134, 170].map((x, i) => (
            <circle
              key={x}
              cx={x}
              cy={112 - (i % 2) * 10}
              r={20 - (i % 2) * 5}
              fill="var(--color-milk)"
              stroke={INK}
              strokeDasharray="4 4"
            />
          ))
        )}
      </>
    ),
  },
  grain: {
    done: t`crushes clear`,
    notYet: t`a white heart`,
    draw: (done) => (
      <g transform="translate(120 100) rotate(-18)">
        <ellipse rx="96" ry="44" fill={fill("cooked")} stroke={INK} strokeWidth="2" />
        {!done && <ellipse rx="52" ry="18" fill="var(--color-milk)" stroke={INK} strokeDasharray="4 4" />}
      </g>
    ),
  },
  spoon: {
    done: t`the line stays`,
    notYet: t`it runs together`,
    draw: (done) => (
      <>
        <path d="M150 90L228 22" stroke={INK} strokeWidth="9" strokeLinecap="round" />
        <ellipse cx="104" cy="118" rx="74" ry="48" fill={fill("sugar")} stroke={INK} strokeWidth="2" />
        {done ? (
          <path d="M46 108L160 128" stroke="var(--color-sheet)" strokeWidth="14" strokeLinecap="round" />
        ) : (
          <path d="M60 160q4 16 0 30M104 166q4 14 0 28M140 156q4 14 0 26" fill="none" stroke={INK2} strokeWidth="3" />
        )}
      </>
    ),
  },
  bean: {
    done: t`crushes flat`,
    notYet: t`chalk in the middle`,
    draw: (done) => (
      <>
        <ellipse
          cx="120"
          cy="110"
          rx={done ? 92 : 62}
          ry={done ? 24 : 46}
          fill={fill("filling")}
          stroke={INK}
          strokeWidth="2"
        />
        {!done && (
          <ellipse cx="120" cy="110" rx="26" ry="18" fill="var(--color-milk)" stroke={INK} strokeDasharray="4 4" />
        )}
        <path d={done ? "M120 30v46M110 64l10 12 10-12" : "M120 20v36M110 44l10 12 10-12"} fill="none" stroke={INK} />
      </>
    ),
  },
  bake: {
    done: t`brown, springs back`,
    notYet: t`pale, wobbles`,
    draw: (done) => (
      <>
        <path d="M34 150V96q86-24 172 0V150Z" fill={fill(done ? "batter" : "starch")} stroke={INK} />
        {done && <path d="M34 96q86-24 172 0v10q-86-22 -172 0z" fill="var(--color-batter-2)" stroke={INK} />}
        {!done && <path d="M60 112q12-9 24 0t24 0 24 0 24 0" fill="none" stroke={INK2} />}
        <path d="M30 80V153H210V80" fill="none" stroke={INK} strokeWidth="3" />
        <path d="M120 24v44M110 56l10 12 10-12" fill="none" stroke={INK} />
        {done && <path d="M136 62q10-16 0-34" fill="none" stroke={INK} strokeDasharray="3 4" />}
      </>
    ),
  },
  pan: {
    done: t`a bare floor`,
    notYet: t`runs back`,
    draw: (done) => (
      <>
        <path d="M16 92H224V150q0 8 -8 8H24q-8 0 -8 -8Z" fill="var(--color-sheet)" stroke={INK} strokeWidth="2.6" />
        <path d="M18 112h70l8 44H24q-6 0 -6 -6z" fill={fill("sugar")} stroke={INK} />
        {done ? (
          <path d="M152 112h70v38q0 6 -6 6h-72z" fill={fill("sugar")} stroke={INK} />
        ) : (
          <path d="M88 132q30 14 62-20h72v38q0 6 -6 6H96z" fill={fill("sugar")} stroke={INK} />
        )}
        <path d="M126 20L120 150" stroke={INK} strokeWidth="9" strokeLinecap="round" />
      </>
    ),
  },
  packet: {
    done: t`set to the middle`,
    notYet: t`a wet middle`,
    draw: (done) => (
      <>
        <rect x="24" y="70" width="192" height="80" rx="12" fill={fill("leaf")} stroke={INK} strokeWidth="2" />
        <rect x="36" y="82" width="168" height="56" rx="8" fill={fill("batter")} stroke={INK} />
        {!done && <ellipse cx="120" cy="110" rx="52" ry="17" fill={fill("water")} stroke={INK} strokeDasharray="4 4" />}
      </>
    ),
  },
  puff: {
    done: t`swollen and split`,
    notYet: t`flat and hard`,
    draw: (done) => (
      <>
        <path d="M16 154H224" stroke={INK} strokeWidth="3" strokeDasharray="14 6" />
        {done ? (
          <path
            d="M54 150Q34 88 78 78Q76 36 120 42Q158 30 164 76Q206 90 186 150Z"
            fill={fill("cooked")}
            stroke={INK}
            strokeWidth="2"
          />
        ) : (
          <rect x="58" y="112" width="124" height="38" fill={fill("starch")} stroke={INK} strokeWidth="2" />
        )}
        {done && <path d="M104 44l12 22 14-24" fill="none" stroke={AMBER} strokeWidth="3" />}
      </>
    ),
  },
  amber: {
    done: t`like strong tea`,
    notYet: t`pale still`,
    draw: (done) => (
      <>
        <ellipse cx="120" cy="116" rx="98" ry="42" fill="var(--color-sheet)" stroke={INK} strokeWidth="2" />
        <path
          d="M120 60q34 40 34 58a34 30 0 0 1 -68 0q0-18 34-58z"
          fill={done ? AMBER : "var(--color-fat)"}
          stroke={INK}
          strokeWidth="1.6"
        />
      </>
    ),
  },
  straw: {
    done: t`pale gold, like straw`,
    notYet: t`white still`,
    draw: (done) => (
      <>
        <ellipse cx="120" cy="116" rx="104" ry="50" fill="var(--color-sheet)" stroke={INK} strokeWidth="2" />
        {[
          { width: 15, colour: INK },
          { width: 12, colour: done ? "var(--color-fat)" : "var(--color-milk)" },
        ].map(({ width, colour }) => (
          <path
            key={width}
            d="M46 112q16 -20 32 0M92 92q16 -20 32 0M138 98q16 -20 32 0M74 142q16 -20 32 0M122 140q16 -20 32 0M168 126q14 -18 28 0"
            fill="none"
            stroke={colour}
            strokeWidth={width}
            strokeLinecap="round"
          />
        ))}
      </>
    ),
  },
  curd: {
    done: t`clear oil, amber curds`,
    notYet: t`white still`,
    draw: (done) => (
      <>
        <path d="M20 60V150q0 8 8 8H212q8 0 8 -8V60" fill="none" stroke={INK} strokeWidth="2.6" />
        <rect x="22" y="82" width="196" height="74" fill={fill(done ? "fat" : "starch")} stroke={INK} />
        {[56, 92, 128, 164, 196].map((x, i) => (
          <circle
            key={x}
            cx={x}
            cy={146 - (i % 2) * 6 - (done ? 0 : 40)}
            r="12"
            fill={done ? AMBER : "var(--color-milk)"}
            stroke={INK}
          />
        ))}
      </>
    ),
  },
  strand: {
    done: t`glassy from end to end`,
    notYet: t`white in the middle`,
    draw: (done) => (
      <>
        {[60, 100, 140].map((y, i) => (
          <g key={y}>
            <path
              d={`M24 ${y}q48 ${i % 2 ? -24 : 24} 96 0t96 0`}
              fill="none"
              stroke={INK}
              strokeWidth="15"
              strokeLinecap="round"
            />
            <path
              d={`M24 ${y}q48 ${i % 2 ? -24 : 24} 96 0t96 0`}
              fill="none"
              stroke={done ? "var(--color-cooked)" : "var(--color-milk)"}
              strokeWidth="12"
              strokeLinecap="round"
            />
            {!done && (
              <path
                d={`M24 ${y}q48 ${i % 2 ? -24 : 24} 96 0t96 0`}
                fill="none"
                stroke={INK2}
                strokeWidth="1.4"
                strokeDasharray="4 5"
              />
            )}
          </g>
        ))}
      </>
    ),
  },
};
