/** A new occasion, and the way to its page. Pressed twice, it is made once. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, ask, type Occasion } from "../api/client";
import { newId } from "../ui/newId";
import { newDish } from "./newDish";

export function useNewOccasion() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const made = useMutation({
    mutationFn: ({ occasion, uid }: { occasion: Occasion; uid: string }) =>
      ask(api.POST("/api/occasions", { body: { occasion, uid } })),
    onSuccess: (open) => {
      void client.invalidateQueries({ queryKey: ["occasions"] });
      navigate(`/occasions/${open.id}`);
    },
  });
  return {
    error: made.error,
    pending: made.isPending,
    make: (title: string, at: string, sheets: number[] = [], people: number | null = null) => {
      if (!made.isPending) made.mutate({ occasion: occasionOf(title, at, sheets, people), uid: newId() });
    },
  };
}

/** An occasion with one serving and these sheets, nothing else said. */
export const occasionOf = (title: string, at: string, sheets: number[], people: number | null): Occasion => ({
  format: "kemble-occasion",
  version: 1,
  title,
  servings: [{ at, name: "", people }],
  dishes: sheets.map(newDish),
  helpers: [],
  pins: [],
  sure: "likely",
  quiet: true,
  note: "",
});
