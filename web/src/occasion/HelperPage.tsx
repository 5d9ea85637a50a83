/** What one person does on the day: on a phone, or printed. */

import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { kitchenQuery, occasionQuery } from "../api/queries";
import { cooks, useRole } from "../api/roles";
import { Frame, Waiting } from "../ui/Frame";
import { LinkButton, TextLink } from "../ui/LinkButton";
import { DayOnPaper } from "./DayOnPaper";

export default function HelperPage() {
  const { occasionId, who = "" } = useParams();
  const role = useRole();
  const occasion = useQuery(occasionQuery(Number(occasionId)));
  const kitchen = useQuery(kitchenQuery);
  if (!occasion.data || !kitchen.data) return <Waiting error={occasion.error ?? kitchen.error} />;
  const { day, dishes, occasion: of } = occasion.data;
  return (
    <Frame title={<h1 className="text-2xl">{who}</h1>}>
      <p className="mt-3 flex gap-6 print:hidden">
        {cooks(role) && (
          <TextLink to={`/occasions/${occasionId}`}>
            <Trans>The whole day</Trans>
          </TextLink>
        )}
        <LinkButton onClick={() => window.print()}>
          <Trans>Print this</Trans>
        </LinkButton>
      </p>
      {day.plan ? (
        <DayOnPaper
          plan={day.plan}
          titles={dishes.map((dish) => dish.title)}
          title={of.title}
          zone={kitchen.data.kitchen.timezone}
          who={who}
        />
      ) : (
        <p className="mt-6">
          <Trans>There is no plan yet.</Trans>
        </p>
      )}
    </Frame>
  );
}
