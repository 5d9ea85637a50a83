/** First use: a name, the height above the sea, how amounts are measured; then straight to a first sheet. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import type { KitchenSettings } from "../api/client";
import { limit } from "../api/limits";
import { kitchenQuery } from "../api/queries";
import { BeginLesson } from "../lesson/BeginLesson";
import { useKitchenSave } from "../sheet/useKitchenSave";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Waiting } from "../ui/Frame";
import { LinkButton } from "../ui/LinkButton";
import { NumberField } from "../ui/NumberField";
import { Gallery } from "./Gallery";
import { OneCake } from "./OneCake";

export default function Welcome() {
  const kitchen = useQuery(kitchenQuery);
  useEffect(() => {
    document.title = t`Welcome · Kemble`;
  }, []);
  if (!kitchen.data) return <Waiting error={kitchen.error} />;
  return <Start settings={kitchen.data.kitchen} setUp={kitchen.data.set_up} />;
}

function Start({ settings, setUp }: { settings: KitchenSettings; setUp: boolean }) {
  const navigate = useNavigate();
  const [kitchen, setKitchen] = useState({
    ...settings,
    timezone: Intl.DateTimeFormat().resolvedOptions().timeZone || settings.timezone,
  });
  const { save, pending, error } = useKitchenSave();
  return (
    <main className="mx-auto max-w-[1000px] px-4 py-10 sm:px-10">
      <h1 className="font-title text-lg text-bean">Kemble</h1>
      {!setUp ? (
        <form
          className="mt-6"
          onSubmit={(event) => {
            event.preventDefault();
            save(settings, kitchen);
          }}
        >
          <p className="max-w-prose text-xl">
            <Trans>
              Say what you have or need, and Kemble works out the bowl, the piece, the heat, the knife and the clock,
              each from the one before. Then it stands on the counter while you cook, and learns from how it came out.
            </Trans>
          </p>
          <div className="mt-4 overflow-x-auto">
            <OneCake />
          </div>
          <h2 className="mt-8 text-4xl">
            <Trans>Your kitchen first</Trans>
          </h2>
          <p className="mt-3 max-w-prose text-lg text-ink2">
            <Trans>
              Water boils cooler higher up, and cups differ. Three answers, and every time and measure is your own. All
              of it can be changed later.
            </Trans>
          </p>
          <div className="mt-6 grid max-w-xl grid-cols-[auto_1fr] items-center gap-x-6 gap-y-3 text-lg">
            <label htmlFor="kitchen-name">
              <Trans>Its name</Trans>
            </label>
            <input
              id="kitchen-name"
              className="write"
              required
              maxLength={80}
              value={kitchen.name}
              onChange={(event) => setKitchen({ ...kitchen, name: event.target.value })}
            />
            <span className="whitespace-nowrap">
              <Trans>Height above the sea</Trans>
            </span>
            <NumberField
              label={t`Height above the sea`}
              hideLabel
              value={kitchen.altitude_m}
              unit="m"
              decimals={0}
              within={limit("Kitchen.altitude_m")}
              step={10}
              onChange={(altitude_m) => setKitchen({ ...kitchen, altitude_m })}
            />
            <label htmlFor="kitchen-cups">
              <Trans>Cups and spoons</Trans>
            </label>
            <select
              id="kitchen-cups"
              className="write"
              value={kitchen.measures}
              onChange={(event) =>
                setKitchen({ ...kitchen, measures: event.target.value as KitchenSettings["measures"] })
              }
            >
              <option value="metric">
                <Trans>metric: a cup is 250 ml, a spoon 15</Trans>
              </option>
              <option value="us">
                <Trans>US: a cup is 237 ml, a spoon 14.8</Trans>
              </option>
              <option value="metric_20">
                <Trans>metric with a large spoon: a cup is 250 ml, a spoon 20</Trans>
              </option>
            </select>
          </div>
          <ErrorNotice error={error} />
          <button type="submit" className="pick mt-8 min-h-12 px-8 text-lg" data-on="true" disabled={pending}>
            <Trans>On to the first sheet</Trans>
          </button>
        </form>
      ) : (
        <div className="mt-6">
          <h2 className="text-4xl">
            <Trans>What will it be?</Trans>
          </h2>
          <p className="mt-3 mb-8 max-w-prose text-lg text-ink2">
            <Trans>Take a way. Its own starting sheet is laid out, ready to change.</Trans>
          </p>
          <Gallery />
          <div className="mt-8">
            <BeginLesson />
          </div>
          <LinkButton className="mt-8" onClick={() => navigate("/")}>
            <Trans>To the counter, nothing for now</Trans>
          </LinkButton>
        </div>
      )}
    </main>
  );
}
