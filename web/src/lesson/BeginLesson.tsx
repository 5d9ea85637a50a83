/** Begins the first cake: a sheet of its own, to be played with. */

import { Trans } from "@lingui/react/macro";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, ask } from "../api/client";
import { ErrorNotice } from "../ui/ErrorNotice";
import { newId } from "../ui/newId";
import { setLesson } from "./lesson";

export function BeginLesson({ className = "" }: { className?: string }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const begin = useMutation({
    mutationFn: (uid: string) =>
      ask(api.POST("/api/sheets", { body: { way: "set-cake", blank: false, sheet: null, uid } })),
    onSuccess: (sheet) => {
      client.invalidateQueries({ queryKey: ["sheets"] });
      setLesson({ sheet: sheet.id, step: 0 });
      navigate(`/sheets/${sheet.id}/mix`);
    },
  });
  return (
    <>
      <button
        type="button"
        className={`pick ${className}`}
        disabled={begin.isPending}
        onClick={() => begin.mutate(newId())}
      >
        <Trans>Learn it with a first cake: three minutes</Trans>
      </button>
      <ErrorNotice error={begin.error} />
    </>
  );
}
