/** The kitchen: what stands there, drawn on its shelves. A thing that is pressed shows its measures, to be put right. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { type CSSProperties, useEffect, useRef } from "react";
import { Link, useParams } from "react-router";
import type { KitchenSettings } from "../api/client";
import { kitchenQuery } from "../api/queries";
import { useRole } from "../api/roles";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { TextLink } from "../ui/LinkButton";
import { SHELVES, type Thing, thingOf } from "./things";
import { useSettings } from "./useSettings";

export default function KitchenPage() {
  const kitchen = useQuery(kitchenQuery);
  useEffect(() => {
    document.title = t`Kitchen · Kemble`;
  }, []);
  if (!kitchen.data) return <Waiting error={kitchen.error} />;
  return <Settings start={kitchen.data.kitchen} />;
}

function Settings({ start }: { start: KitchenSettings }) {
  const { kitchen, set, dirty, pending, waiting, error } = useSettings(start);
  const thing = thingOf(useParams().thing);
  const heading = useHeading(thing);
  const { Panel } = thing;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <input
            aria-label={t`Name of the kitchen`}
            className="w-full border-b border-transparent bg-transparent font-title text-2xl hover:border-ink2"
            maxLength={80}
            value={kitchen.name}
            onChange={(event) => set({ name: event.target.value })}
          />
        </h1>
      }
      aside={
        <span role="status" className="text-ink2">
          {waiting ? t`kept here, not saved yet` : dirty || pending ? t`saving` : error ? t`not saved` : t`saved`}
        </span>
      }
    >
      <ErrorNotice error={error} />
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-6 pb-10 lg:grid-cols-[minmax(0,1.55fr)_minmax(0,1fr)]">
        <nav aria-label={t`What stands in the kitchen`} className="print:hidden">
          {SHELVES.map(({ highPx, things }) => (
            <ul key={highPx + (things[0]?.id ?? "")} className="mb-2 flex flex-wrap">
              {things.map((eachThing) => (
                <OnShelf
                  key={eachThing.id}
                  thing={eachThing}
                  highPx={highPx}
                  kitchen={kitchen}
                  open={eachThing === thing}
                />
              ))}
            </ul>
          ))}
        </nav>
        <section aria-label={thing.title}>
          <h2 ref={heading} tabIndex={-1} className="text-xl outline-none">
            {thing.title}
          </h2>
          <Panel kitchen={kitchen} set={set} />
          <Elsewhere />
        </section>
      </div>
    </Frame>
  );
}

interface OnShelfProps {
  thing: Thing;
  highPx: number;
  kitchen: KitchenSettings;
  open: boolean;
}

/** A thing on its shelf: pressed, its measures are shown. The shelf goes on under whatever stands beside it. */
function OnShelf({ thing, highPx, kitchen, open }: OnShelfProps) {
  const { Draw } = thing;
  const formatters = useFormatters();
  return (
    <li className="flex max-w-full min-w-40 flex-[1_0_auto]">
      <Link
        to={thing.id === "place" ? "/kitchen" : `/kitchen/${thing.id}`}
        aria-current={open ? "true" : undefined}
        className="group flex w-full min-w-0 flex-col no-underline"
      >
        <span
          className="flex items-end gap-3 border-b-[3px] border-ink px-3 pt-2 group-hover:bg-sheet sm:min-h-(--high)"
          style={{ "--high": `${highPx}px` } as CSSProperties}
        >
          <Draw kitchen={kitchen} />
        </span>
        <span
          className={`block w-0 min-w-full border-b-[3px] px-3 pt-1 pb-1 ${open ? "border-bean" : "border-transparent group-hover:border-hair"}`}
        >
          <b className={open ? "text-bean" : "text-ink"}>{thing.title}</b>
          <span className="block text-ink2">{thing.says(kitchen, formatters)}</span>
        </span>
      </Link>
    </li>
  );
}

/** Once another thing is pressed, its measures are where the eye and the keys are. */
function useHeading(thing: Thing) {
  const heading = useRef<HTMLHeadingElement>(null);
  const shown = useRef(thing);
  useEffect(() => {
    if (shown.current === thing) return;
    shown.current = thing;
    heading.current?.focus();
  }, [thing]);
  return heading;
}

function Elsewhere() {
  const role = useRole();
  return (
    <ul className="mt-8 grid gap-2">
      <li>
        <TextLink to="/household">
          <Trans>Household: who comes in, on which devices; how this one calls and looks</Trans>
        </TextLink>
      </li>
      {role === "owner" && (
        <li>
          <TextLink to="/kitchen/archive">
            <Trans>The whole kitchen in one file, out and in</Trans>
          </TextLink>
        </li>
      )}
      <li>
        <a href="/licences.txt" className="text-ink2">
          <Trans>What Kemble is built of, and under which licences</Trans>
        </a>
      </li>
    </ul>
  );
}
