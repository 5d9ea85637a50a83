/** A part that two sheets share. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Part } from "../../api/client";
import { sheetsQuery } from "../../api/queries";
import type { Editing } from "../../sheet/useSheet";
import { ActionMenu } from "../../ui/ActionMenu";
import { ErrorNotice } from "../../ui/ErrorNotice";
import { LinkButton } from "../../ui/LinkButton";
import { newId } from "../../ui/newId";
import { Row } from "../../ui/Row";

/** Made once for two sheets: choose the other, or give it back. Both sheets are saved together. */
export function Shared({ editing, part }: { editing: Editing; part: Part }) {
  const client = useQueryClient();
  const sheets = useQuery(sheetsQuery(1, "", 50));
  const share = useMutation({
    mutationFn: ({ other, back, uid }: { other: number; back: boolean; uid: string }) => {
      const request = {
        params: { path: { sheet_id: editing.id } },
        body: { role: part.id, with_sheet: other, uid },
      };
      return ask(
        back ? api.POST("/api/sheets/{sheet_id}/unshare", request) : api.POST("/api/sheets/{sheet_id}/share", request),
      );
    },
    onSuccess: () => {
      editing.look();
      client.invalidateQueries({ queryKey: ["sheets"] });
    },
  });
  if (part.made_on)
    return (
      <p className="py-1">
        <Trans>{part.made_on} makes it: change its amount there.</Trans>
      </p>
    );
  const others = sheets.data?.sheets.filter((sheet) => sheet.id !== editing.id) ?? [];
  return (
    <>
      {part.made_for.map((item) => {
        const other = others.find((sheet) => sheet.title === item.sheet);
        return (
          <Row key={item.sheet} label={t`${(item.share * 100).toFixed(0)} % for ${item.sheet}`}>
            {other && (
              <LinkButton onClick={() => share.mutate({ other: other.id, back: true, uid: newId() })}>
                <Trans>each makes its own again</Trans>
              </LinkButton>
            )}
          </Row>
        );
      })}
      <Row label={t`Make it for another sheet too`}>
        <ActionMenu
          label={t`Make it for another sheet too: which`}
          disabled={editing.saving !== "saved" || share.isPending}
          choices={others.map((item) => ({ id: String(item.id), words: item.title }))}
          onPick={(id) => share.mutate({ other: Number(id), back: false, uid: newId() })}
        >
          <Trans>which</Trans>
        </ActionMenu>
      </Row>
      <ErrorNotice error={share.error} />
    </>
  );
}
