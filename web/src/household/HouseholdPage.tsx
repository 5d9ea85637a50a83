/** The household: who is in and as what, how one more is asked in, and how one comes in oneself. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { AlarmChannelSettings } from "../alarm/AlarmChannelSettings";
import { kitchenQuery } from "../api/queries";
import { useRole } from "../api/roles";
import { DayOrNight } from "../ui/DayOrNight";
import { Frame } from "../ui/Frame";
import { Members } from "./Members";
import { Password } from "./Password";

export default function HouseholdPage() {
  const role = useRole();
  const kitchen = useQuery(kitchenQuery);
  useEffect(() => {
    document.title = t`Household · Kemble`;
  }, []);
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>
            Household
            {kitchen.data && <Trans> of {kitchen.data.kitchen.name}</Trans>}
          </Trans>
        </h1>
      }
    >
      <div className="mt-5 grid gap-x-14 gap-y-8 pb-10 lg:grid-cols-2">
        {role === "owner" && <Members />}
        <section aria-label={t`You`} className="max-w-[36rem]">
          <Password />
          {role !== "taster" && <AlarmChannelSettings />}
          <DayOrNight />
        </section>
      </div>
    </Frame>
  );
}
