/** The foot of a station: the one most useful sentence, and the cautions of the work, short and never in the way. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Popover } from "radix-ui";
import type { WorkResult } from "../api/client";
import { Slip } from "./PopoverPanel";

const HEADS = { look: t`Look`, before: t`Before`, good: t`Next` } as const;

export function Foot({ worked, station }: { worked: WorkResult; station: string }) {
  const advice = worked.advice.find((item) => item.station === station);
  return (
    <footer className="mt-6 flex flex-wrap items-baseline gap-x-6 gap-y-1 border-t border-hair bg-paper py-3 sm:sticky sm:bottom-(--strip,0px) print:static">
      {advice && (
        <p className="min-w-0 flex-1 basis-80" role="status">
          <b className="mr-4 text-look">{HEADS[advice.kind]}</b>
          {advice.says}
        </p>
      )}
      <Popover.Root>
        <Popover.Trigger className="text-look underline underline-offset-4 min-h-8">
          <Trans>Take care: {worked.cautions.map((caution) => caution.title.toLowerCase()).join(", ")}</Trans>
        </Popover.Trigger>
        <Slip label={t`Take care`} side="top" wide>
          <dl>
            {worked.cautions.map((caution) => (
              <div key={caution.id} className="hairline py-2">
                <dt className="font-bold text-look">{caution.title}</dt>
                <dd>{caution.says}</dd>
              </div>
            ))}
          </dl>
          <div className="mt-3 text-right">
            <Popover.Close className="pick">
              <Trans>close</Trans>
            </Popover.Close>
          </div>
        </Slip>
      </Popover.Root>
    </footer>
  );
}
