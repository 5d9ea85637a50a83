/** Brings back one thing that was thrown away. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { api, ask } from "../api/client";
import { ErrorNotice } from "./ErrorNotice";
import { LinkButton } from "./LinkButton";

const SHOWN_BY = ["sheets", "sheet", "occasions", "runs", "run", "log", "kitchen", "larder", "dropped"];

interface Props {
  kind: string;
  id: number;
  onBack?: () => void;
  children: ReactNode;
}

export function BringBack({ kind, id, onBack, children }: Props) {
  const client = useQueryClient();
  const back = useMutation({
    mutationFn: () => ask(api.POST("/api/dropped/{kind}/{number}", { params: { path: { kind, number: id } } })),
    onSuccess: () => {
      for (const key of SHOWN_BY) void client.invalidateQueries({ queryKey: [key] });
      onBack?.();
    },
  });
  return (
    <>
      <LinkButton disabled={back.isPending} onClick={() => back.mutate()}>
        {children}
      </LinkButton>
      <ErrorNotice error={back.error} />
    </>
  );
}
