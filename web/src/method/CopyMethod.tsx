/** The method of another sheet, taken over to this one. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { waysQuery } from "../api/queries";
import type { Editing } from "../sheet/useSheet";
import { ActionMenu } from "../ui/ActionMenu";
import { ErrorNotice } from "../ui/ErrorNotice";

export function CopyMethod({ editing }: { editing: Editing }) {
  const sheets = useQuery({ queryKey: ["sheets", "for-method"], queryFn: () => ask(api.GET("/api/sheets")) });
  const ways = useQuery(waysQuery);
  const others = (sheets.data?.sheets ?? []).filter((other) => other.id !== editing.id);
  const copy = useMutation({
    mutationFn: (id: number) => ask(api.GET("/api/sheets/{sheet_id}", { params: { path: { sheet_id: id } } })),
    onSuccess: ({ sheet }) => editing.edit({ ...editing.sheet, method: sheet.method }),
  });
  return (
    <>
      <ActionMenu
        label={t`take the method of another sheet`}
        disabled={copy.isPending}
        choices={others.map((other) => ({
          id: String(other.id),
          words: other.title,
          under: ways.data?.find((way) => way.id === other.way)?.name ?? "",
        }))}
        onPick={(id) => copy.mutate(Number(id))}
      >
        <Trans>take the method of another sheet</Trans>
      </ActionMenu>
      <ErrorNotice error={copy.error} />
    </>
  );
}
