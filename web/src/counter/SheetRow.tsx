/** One sheet of the shelf: its name, its key numbers, and how to throw it away. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { AlertDialog } from "radix-ui";
import { Link } from "react-router";
import { api, ask, type SheetCard } from "../api/client";
import { type Formatters, useFormatters } from "../ui/formatters";
import { Section } from "../ui/Section";

export function SheetRow({ sheet }: { sheet: SheetCard }) {
  const formatters = useFormatters();
  const client = useQueryClient();
  const drop = useMutation({
    mutationFn: () => ask(api.DELETE("/api/sheets/{sheet_id}", { params: { path: { sheet_id: sheet.id } } })),
    onSuccess: () => {
      for (const key of ["sheets", "occasions", "dropped"]) client.invalidateQueries({ queryKey: [key] });
    },
  });
  return (
    <li className="hairline flex items-center gap-2">
      <Link
        to={`/sheets/${sheet.id}/mix`}
        className="flex min-w-0 flex-1 flex-wrap items-baseline justify-between gap-x-4 py-2 text-ink no-underline hover:bg-sheet"
      >
        <span className="inline-flex items-center gap-3 text-lg">
          <Section section={sheet.section} />
          {sheet.title}
        </span>
        <span className="text-ink2">
          {sheet.pending ? (
            <Trans>being calculated</Trans>
          ) : (
            sheet.numbers.map((number) => cardWords(formatters, number)).join(" · ")
          )}
        </span>
        {sheet.problem && (
          <span className="w-full text-sm text-bean">
            <Trans>cannot be worked: {sheet.problem}</Trans>
          </span>
        )}
      </Link>
      <AlertDialog.Root>
        <AlertDialog.Trigger
          className="min-h-9 min-w-8 text-ink2 hover:text-bean"
          aria-label={t`Throw away ${sheet.title}`}
        >
          ×
        </AlertDialog.Trigger>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
          <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[min(30rem,calc(100vw-24px))] -translate-1/2 rounded-md border border-ink bg-sheet p-6">
            <AlertDialog.Title className="text-2xl">
              <Trans>Throw away “{sheet.title}”?</Trans>
            </AlertDialog.Title>
            <AlertDialog.Description className="mt-2">
              <Trans>
                Its plans go with it. What was made from it stays in the log. For thirty days it can be brought back.
              </Trans>
            </AlertDialog.Description>
            <div className="mt-5 flex flex-wrap gap-3">
              <AlertDialog.Cancel className="pick" data-on="true">
                <Trans>Keep it</Trans>
              </AlertDialog.Cancel>
              <AlertDialog.Action className="pick" onClick={() => drop.mutate()}>
                <Trans>Throw it away</Trans>
              </AlertDialog.Action>
            </div>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </li>
  );
}

const CARD_WORDS: Partial<Record<string, string>> = {
  "mix.hydration_pct": t`water`,
  "shape.pieces": t`pieces`,
  "shape.depth_mm": t`deep`,
};

/** "126 % water", "31 mm deep", "34 min". */
const cardWords = (formatters: Formatters, number: SheetCard["numbers"][number]) =>
  [formatters.quantity(number), CARD_WORDS[number.key]].filter(Boolean).join(" ");
