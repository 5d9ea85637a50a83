/** Blind tastings: begin one, and what the others said. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, ask } from "../api/client";
import { limit } from "../api/limits";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { NumberField } from "../ui/NumberField";
import { newId } from "../ui/newId";
import { Picks } from "../ui/ToggleChoice";

const KINDS = [
  ["triangle", t`told apart? three cups, two alike`],
  ["paired", t`liked better? two cups`],
] as const;

export default function BlindPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const query = useQuery({ queryKey: ["splits"], queryFn: () => ask(api.GET("/api/splits")) });
  const [a, setA] = useState("");
  const [b, setB] = useState("");
  const [kind, setKind] = useState<"triangle" | "paired">("triangle");
  const [tasters, setTasters] = useState(6);
  const begin = useMutation({
    mutationFn: (uid: string) => {
      const split = { a: a.trim(), b: b.trim(), kind, tasters, seed: Date.now() % 2_000_000 };
      return ask(api.POST("/api/splits", { body: { uid, title: "", split } }));
    },
    onSuccess: (made) => {
      void client.invalidateQueries({ queryKey: ["splits"] });
      navigate(`/log/blind/${made.id}`);
    },
  });
  useEffect(() => {
    document.title = t`Tasted blind · Kemble`;
  }, []);
  if (!query.data) return <Waiting error={query.error} />;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>Tasted blind</Trans>
        </h1>
      }
    >
      <div className="mt-5 grid gap-x-12 gap-y-8 pb-10 lg:grid-cols-2">
        <section aria-label={t`Begin one`}>
          <p className="text-lg">
            <Trans>
              Halve a batch, change one thing in one half, and let nobody know which is which. The codes and who gets
              what are drawn; the answers are weighed against chance.
            </Trans>
          </p>
          <form
            className="mt-4 grid gap-4"
            onSubmit={(event) => {
              event.preventDefault();
              begin.mutate(newId());
            }}
          >
            {(
              [
                [t`One half is`, a, setA],
                [t`the other half is`, b, setB],
              ] as const
            ).map(([label, value, set]) => (
              <label key={label}>
                <span className="block text-ink2">{label}</span>
                <input
                  className="write h-12 w-full max-w-96"
                  required
                  maxLength={60}
                  value={value}
                  onChange={(event) => set(event.target.value)}
                />
              </label>
            ))}
            <Picks label={t`What is asked`} value={kind} options={KINDS} onPick={setKind} />
            <NumberField
              label={t`Tasters`}
              value={tasters}
              within={limit("BlindTastingDesign.tasters")}
              decimals={0}
              onChange={setTasters}
            />
            <button
              type="submit"
              className="pick min-h-16 w-fit px-8 text-lg"
              data-on="true"
              disabled={begin.isPending || !a.trim() || !b.trim()}
            >
              <Trans>Lay the table</Trans>
            </button>
            <ErrorNotice error={begin.error} />
          </form>
        </section>
        <section aria-label={t`Those before`}>
          {query.data.length === 0 && (
            <p className="text-ink2">
              <Trans>None yet.</Trans>
            </p>
          )}
          <ul>
            {query.data.map((item) => (
              <li key={item.id} className="hairline py-2">
                <Link to={`/log/blind/${item.id}`} className="text-ink">
                  <b>{item.title}</b>
                </Link>
                <span className="block text-ink2">{item.says}</span>
              </li>
            ))}
          </ul>
        </section>
      </div>
    </Frame>
  );
}
