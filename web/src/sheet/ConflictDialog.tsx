/** What was changed here and elsewhere to different values: mine, theirs, or both. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery } from "@tanstack/react-query";
import { AlertDialog } from "radix-ui";
import { useNavigate } from "react-router";
import { larderQuery } from "../api/queries";
import { ErrorNotice } from "../ui/ErrorNotice";
import { capital } from "../ui/words";
import { trimmed } from "../words/numbers";
import type { Editing } from "./useSheet";

/** Two changed the same thing: both are shown, and either can be had, or both. Or the sheet was thrown away. */
export function ConflictDialog({ editing }: { editing: Editing }) {
  const navigate = useNavigate();
  const larder = useQuery(larderQuery);
  const name = (id: string) => larder.data?.find((item) => item.id === id)?.name ?? id;
  const failing = useMutation({ mutationFn: (what: () => Promise<unknown>) => what(), retry: false });
  const copy = () => failing.mutate(async () => navigate(`/sheets/${await editing.keepBoth()}/mix`));
  const { conflict, gone } = editing;
  return (
    <AlertDialog.Root open={conflict !== null || gone !== null}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[min(34rem,calc(100vw-24px))] -translate-1/2 rounded-md border border-ink bg-sheet p-6">
          <AlertDialog.Title className="text-2xl">
            {conflict ? t`Changed elsewhere, too` : t`This sheet was thrown away`}
          </AlertDialog.Title>
          <AlertDialog.Description className="mt-2">
            {conflict
              ? t`Another tab or device saved this sheet, and changed what you have changed. Nothing of yours is lost: Undo brings back whichever you do not take.`
              : t`${capital(gone?.says ?? t`It is not there any more`)}. What you changed since is kept here.`}
          </AlertDialog.Description>
          {conflict && (
            <table className="mt-3 w-full">
              <thead>
                <tr className="text-left text-sm text-ink2">
                  <th className="font-normal" />
                  <th className="font-normal">
                    <Trans>yours</Trans>
                  </th>
                  <th className="font-normal">
                    <Trans>the other</Trans>
                  </th>
                </tr>
              </thead>
              <tbody>
                {conflict.clashes.slice(0, 8).map((clash) => (
                  <tr key={clash.path.join()} className="hairline">
                    <th scope="row" className="py-1 text-left font-normal">
                      {placeWords(clash.path, name)}
                    </th>
                    <td className="font-bold">{valueWords(clash.mine)}</td>
                    <td className="font-bold">{valueWords(clash.theirs)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <ErrorNotice error={failing.error} />
          <div className="mt-5 flex flex-wrap gap-3">
            {conflict ? (
              <>
                <AlertDialog.Action className="pick" data-on="true" onClick={editing.keepMine}>
                  <Trans>Take mine</Trans>
                </AlertDialog.Action>
                <button type="button" className="pick" disabled={failing.isPending} onClick={copy}>
                  <Trans>Keep both</Trans>
                </button>
                <AlertDialog.Cancel className="pick" onClick={editing.takeTheirs}>
                  <Trans>Take the other</Trans>
                </AlertDialog.Cancel>
              </>
            ) : (
              <>
                <button
                  type="button"
                  className="pick"
                  data-on="true"
                  disabled={failing.isPending}
                  onClick={() => failing.mutate(editing.bringBack)}
                >
                  <Trans>Bring it back</Trans>
                </button>
                <button type="button" className="pick" disabled={failing.isPending} onClick={copy}>
                  <Trans>Keep a copy</Trans>
                </button>
                <AlertDialog.Cancel className="pick" onClick={() => navigate("/")}>
                  <Trans>Leave it</Trans>
                </AlertDialog.Cancel>
              </>
            )}
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

/** Where on a sheet, in words: "Black tea, strong: amount". */
function placeWords(path: string[], name: (id: string) => string) {
  const [first, role, , line, ...field] = path;
  if (first !== "parts") return path.join(", ").replaceAll("_", " ");
  if (!line) return role ?? first;
  const what = field.filter((word) => word !== "value").join(" ") || t`line`;
  return `${name(line)}: ${what}`;
}

function valueWords(value: unknown) {
  if (value === null || value === undefined) return t`taken out`;
  if (typeof value !== "object") return String(typeof value === "number" ? trimmed(value, 2) : value);
  const amount = (value as { amount?: { value: number; unit: string } }).amount;
  return amount ? `${trimmed(amount.value, 2)} ${amount.unit}` : t`changed`;
}
