/** The bench, opened from the step at which pieces are shared out: each that is taken down is told to the making. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, ask, type StepResult } from "../api/client";
import { BenchDesk } from "../bench/BenchDesk";
import type { Making } from "../runs/useFlow";
import { ErrorNotice } from "../ui/ErrorNotice";
import { useFormatters } from "../ui/formatters";
import { newId } from "../ui/newId";

const SHARED: Record<string, { each: string; enough: string; what: string }> = {
  "shape.base_g": { each: "shape.base_g", enough: "shape.base_enough_for", what: t`dough` },
  "shape.filling_g": { each: "shape.filling_g", enough: "shape.filling_enough_for", what: t`filling` },
};

interface Props {
  making: Making;
  step: StepResult;
  onWeigh: (grams: number) => void;
}

export function BenchHere({ making, step, onWeigh }: Props) {
  const { weightUnit } = useFormatters();
  const client = useQueryClient();
  const [at, setAt] = useState<number | null>(null);
  const shared = SHARED[step.target?.key ?? ""];
  const number = (key: string) => Number(making.facts[key]?.value ?? 0);
  const pieces = Math.round(number("shape.pieces"));
  const total = shared ? number(shared.each) * (number(shared.enough) || pieces) : 0;
  const begin = useMutation({
    mutationFn: (uid: string) => {
      const setup = {
        what: shared?.what ?? "",
        total_g: +total.toFixed(1),
        pieces,
        unit: weightUnit(),
        tolerance_pct: 5,
        drill: false,
      };
      return ask(api.POST("/api/benches", { body: { sheet: making.sheet as number, setup, uid } }));
    },
    onSuccess: (made) => {
      client.setQueryData(["bench", made.id], made);
      setAt(made.id);
    },
  });
  if (!shared || !making.sheet || pieces < 2 || total <= 1) return null;
  return (
    <Dialog.Root open={at !== null} onOpenChange={(open) => !open && setAt(null)}>
      <button type="button" className="pick mt-3 min-h-16 px-6" onClick={() => begin.mutate(newId())}>
        <Trans>Weigh them all out on the bench</Trans>
      </button>
      <ErrorNotice error={begin.error} />
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-2 z-50 overflow-auto rounded-md border border-ink bg-paper p-5 sm:inset-6"
        >
          <div className="flex flex-wrap items-baseline justify-between gap-4">
            <Dialog.Title className="text-2xl">{step.title}</Dialog.Title>
            <Dialog.Close className="pick min-h-16 px-8">
              <Trans>Back to the step</Trans>
            </Dialog.Close>
          </div>
          {at !== null && <BenchDesk id={at} device={making.scale} onAnother={() => setAt(null)} onPiece={onWeigh} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
