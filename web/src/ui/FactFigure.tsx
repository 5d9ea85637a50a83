/** A number that can be pressed to read its because, down to the inputs. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Popover } from "radix-ui";
import { type ReactNode, useRef, useState } from "react";
import type { Fact, FactKey, Facts } from "../api/client";
import { trimmed } from "../words/numbers";
import { said } from "../words/said";
import { useSpoken } from "./becauseMarks";
import { clearSpot, type OccupiedArea, type Spot } from "./clearSpot";
import { useFormatters } from "./formatters";
import { LinkButton } from "./LinkButton";
import { Slip } from "./PopoverPanel";

interface Props {
  facts: Facts;
  name: FactKey;
  children: ReactNode;
  className?: string;
}

/** Renders its children as a button that opens the because of `name`; plain when there is no such fact. */
export function FactFigure({ facts, name, children, className = "" }: Props) {
  const fact = facts[name];
  const [trail, setTrail] = useState<FactKey[]>([]);
  const [spot, setSpot] = useState<Spot | null>(null);
  const pressed = useRef<HTMLButtonElement>(null);
  useSpoken(spot && (trail.at(-1) ?? name));
  if (!fact) return <span className={className}>{children}</span>;
  const shown = facts[trail.at(-1) ?? name] ?? fact;
  return (
    <Popover.Root
      open={spot !== null}
      onOpenChange={(open) => {
        setSpot(open && pressed.current ? spotBeside(pressed.current, name) : null);
        if (!open) setTrail([]);
      }}
    >
      <Popover.Trigger
        ref={pressed}
        data-fact={name}
        className={`cursor-help text-left underline-offset-4 hover:underline decoration-dotted ${className}`}
      >
        {children}
        <span className="sr-only">
          <Trans>, {fact.label}: why this number</Trans>
        </span>
      </Popover.Trigger>
      <Slip label={t`Why ${fact.label}`} spot={spot}>
        <BecauseOf fact={shown} facts={facts} onFollow={(key) => setTrail([...trail, key])} />
        <div className="mt-3 flex justify-between">
          {trail.length > 0 ? (
            <button type="button" className="pick" onClick={() => setTrail(trail.slice(0, -1))}>
              <Trans>back</Trans>
            </button>
          ) : (
            <span />
          )}
          <Popover.Close className="pick">
            <Trans>close</Trans>
          </Popover.Close>
        </div>
      </Slip>
    </Popover.Root>
  );
}

const SLIP = { wide: 400, high: 416 }; // as large as it gets, and scrolled beyond
const LEAST_DRAWING = 120; // px across: what is smaller is a sign, not a drawing

/** Clear of the drawings on the page, before all of those that show what is spoken of, and of the line that was pressed. */
function spotBeside(pressed: Element, key: FactKey): Spot {
  const box = pressed.getBoundingClientRect();
  const drawings = [...document.querySelectorAll('main svg[role="img"], main svg[role="group"]')].flatMap(
    (drawing): OccupiedArea[] => {
      const at = drawing.getBoundingClientRect();
      if (at.width < LEAST_DRAWING || at.height < LEAST_DRAWING) return [];
      return [
        {
          box: at,
          weight: drawing.querySelector(`[data-of~="${key as string}"]`) || drawing.contains(pressed) ? 5 : 1,
        },
      ];
    },
  );
  const line = pressed.closest(".hairline")?.getBoundingClientRect();
  const kept = line ? [...drawings, { box: line, weight: 5 }] : drawings;
  return clearSpot(
    box,
    kept,
    { wide: window.innerWidth, high: window.innerHeight },
    {
      ...SLIP,
      wide: Math.min(SLIP.wide, window.innerWidth - 24),
    },
  );
}

function BecauseOf({ fact, facts, onFollow }: { fact: Fact; facts: Facts; onFollow: (key: FactKey) => void }) {
  const { quantity } = useFormatters();
  const { because } = fact;
  return (
    <div aria-live="polite">
      <p className="text-ink2">{fact.label}</p>
      <p className="text-2xl font-bold">
        {quantity(fact)}
        {fact.low != null && fact.high != null && (
          <span className="ml-3 text-base font-normal text-ink2">
            <Trans>
              {quantity({ ...fact, value: fact.low })} to {quantity({ ...fact, value: fact.high })}
            </Trans>
          </span>
        )}
      </p>
      <p className="mt-1">{because.says}.</p>
      {because.inputs.length > 0 && (
        <ul className="mt-2">
          {because.inputs.map((input) => {
            const from = facts[input.ref as FactKey]; // a leaf is no fact, and is not found
            const value = from
              ? quantity(from)
              : `${typeof input.value === "number" ? trimmed(input.value, 2) : input.value} ${said(input.unit)}`;
            return (
              <li key={`${input.ref}${input.label}`} className="hairline flex justify-between gap-4 py-1">
                {from ? (
                  <LinkButton className="text-left" onClick={() => onFollow(input.ref as FactKey)}>
                    {input.label}
                  </LinkButton>
                ) : (
                  <span>{input.label}</span>
                )}
                <b className="shrink-0 text-right">{value}</b>
              </li>
            );
          })}
        </ul>
      )}
      <p className="mt-2 text-sm text-ink2">
        <Trans>From: {because.source}</Trans>
      </p>
    </div>
  );
}
