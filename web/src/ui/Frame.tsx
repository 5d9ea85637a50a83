/** The frame of a page: the name, a title, the ways out. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { ReactNode } from "react";
import { Link, NavLink, useNavigate } from "react-router";
import { Refused } from "../api/client";
import { ROLES, useRole } from "../api/roles";
import { ActionMenu } from "./ActionMenu";
import { AwayLine } from "./AwayLine";
import { HelpSlip } from "./HelpPopover";
import { TextLink } from "./LinkButton";
import { capital } from "./words";

export function Frame({ title, aside, children }: { title: ReactNode; aside?: ReactNode; children: ReactNode }) {
  const { places } = ROLES[useRole()];
  return (
    <div className="mx-auto flex min-h-dvh max-w-[1280px] flex-col px-4 sm:px-10">
      <header className="print:hidden flex flex-wrap items-baseline gap-x-4 gap-y-1 pt-3 sm:pt-5">
        <Link to="/" className="font-title text-lg text-bean no-underline max-sm:sr-only">
          Kemble
        </Link>
        <div className="min-w-0 flex-1 basis-40 sm:basis-64">{title}</div>
        <PlacesMenu places={places} />
        {aside && <div className="max-sm:order-1 max-sm:basis-full">{aside}</div>}
        <nav aria-label={t`Places`} className="hidden flex-wrap gap-x-3.5 sm:flex">
          {places.map(([to, words]) => (
            <NavLink
              key={to}
              to={to}
              end={to === "/"}
              className={({ isActive }) =>
                `inline-block py-1 no-underline hover:underline underline-offset-4 ${isActive ? "font-bold text-ink" : "text-ink2"}`
              }
            >
              {words}
            </NavLink>
          ))}
        </nav>
        <HelpSlip />
      </header>
      <AwayLine />
      <main className="flex flex-1 flex-col">{children}</main>
    </div>
  );
}

/** On a phone, where the places would fill three lines: one press away. */
function PlacesMenu({ places }: { places: readonly (readonly [string, string])[] }) {
  const go = useNavigate();
  return (
    <ActionMenu
      label={t`menu of places`}
      className="font-bold sm:hidden"
      choices={places.map(([id, words]) => ({ id, words }))}
      onPick={go}
    >
      <Trans>menu</Trans>
    </ActionMenu>
  );
}

/** What stands in place of a page that is still being fetched, or cannot be. */
export function Waiting({ error }: { error?: Error | null }) {
  if (!error)
    return (
      <main className="p-10">
        <h1 className="font-sans text-base text-ink2">
          <span role="status">
            <Trans>One moment</Trans>
          </span>
        </h1>
      </main>
    );
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>Not just now</Trans>
        </h1>
      }
    >
      <p className="mt-8 max-w-prose text-lg" role="alert">
        {error instanceof Refused && error.status === 0
          ? t`The kitchen cannot be reached, and this has not been opened here before. It is tried again by itself.`
          : t`This cannot be shown just now. ${capital(error.message)}.`}
      </p>
      <p className="mt-4">
        <TextLink to="/">
          <Trans>Back to the start</Trans>
        </TextLink>
      </p>
    </Frame>
  );
}
