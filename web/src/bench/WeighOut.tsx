/** The weigh-out bench: begin one for the dough or the filling, or go on with the one that is open. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, ask, type BenchSetup, Refused, sentence, type WayCard } from "../api/client";
import { limit } from "../api/limits";
import type { Editing } from "../sheet/useSheet";
import { AmountField } from "../ui/AmountField";
import { useFormatters } from "../ui/formatters";
import { LinkButton } from "../ui/LinkButton";
import { newId } from "../ui/newId";
import { Row } from "../ui/Row";
import { dayOf } from "../ui/words";
import { fixed } from "../words/numbers";
import { BenchDesk } from "./BenchDesk";
import { EyeDays } from "./EyeDays";

interface Props {
  editing: Editing;
  way: WayCard;
}

export function WeighOut({ editing, way }: Props) {
  const client = useQueryClient();
  const { facts } = editing.worked;
  const sheet = editing.id;
  const known = useQuery({
    queryKey: ["benches", sheet],
    queryFn: () => ask(api.GET("/api/benches", { params: { query: { sheet } } })),
  });
  const scale = useQuery({ queryKey: ["scale"], queryFn: () => ask(api.GET("/api/scale")) });
  const [at, setAt] = useState<number | "begin" | null>(null);
  const begin = useMutation({
    mutationFn: (body: { setup: BenchSetup; uid: string }) =>
      ask(api.POST("/api/benches", { body: { sheet, ...body } })),
    onSuccess: (made) => {
      client.setQueryData(["bench", made.id], made);
      void client.invalidateQueries({ queryKey: ["benches"] });
      setAt(made.id);
    },
  });
  // The one that is open is gone on with; it stays in sight when it is closed, until another is wanted.
  const open = known.data?.find((item) => !item.state.closed && item.state.left_pieces > 0)?.id;
  useEffect(() => {
    if (at === null && open !== undefined) setAt(open);
  }, [at, open]);
  if (!known.data && !known.error)
    return (
      <p className="mt-6 text-ink2">
        <Trans>One moment</Trans>
      </p>
    );
  if (typeof at === "number")
    return <BenchDesk key={at} id={at} device={scale.data?.device} onAnother={() => setAt("begin")} />;

  const value = (key: string) => (facts[key] ? Number(facts[key]?.value) : null);
  const pieces = value("shape.pieces") ?? 10;
  const dough = value("shape.base_enough_for");
  const paste = value("shape.paste_g") ?? value("shape.filling_g");
  const offers = [
    { what: way.words.dough ?? t`dough`, total_g: (dough ?? 0) * (value("shape.base_g") ?? 0), pieces },
    ...(paste ? [{ what: way.words.filling ?? t`filling`, total_g: paste * pieces, pieces }] : []),
  ].filter((offer) => offer.total_g > 1);
  return (
    <div className="mt-3 grid gap-x-12 gap-y-6 lg:grid-cols-2">
      <Begin offers={offers} onBegin={(setup) => begin.mutate({ setup, uid: newId() })} refused={begin.error} />
      <section>
        <EyeDays />
        {Boolean(known.data?.length) && (
          <>
            <h3 className="mt-5 text-xl">
              <Trans>Weighed out before</Trans>
            </h3>
            <ul className="mt-1">
              {known.data?.map((item) => (
                <li key={item.id} className="hairline flex items-baseline justify-between gap-3 py-1">
                  <LinkButton onClick={() => setAt(item.id)}>
                    <Trans>
                      {item.setup.drill ? t`drill: ` : ""}
                      {item.setup.what}, {item.state.weighed.length} of {item.setup.pieces}
                    </Trans>
                  </LinkButton>
                  <span className="text-ink2">
                    {dayOf(item.began, Intl.DateTimeFormat().resolvedOptions().timeZone)}
                    {item.state.cv_pct != null && t`, spread ${fixed(item.state.cv_pct, 1)} %`}
                  </span>
                </li>
              ))}
            </ul>
          </>
        )}
      </section>
    </div>
  );
}

interface BeginProps {
  offers: { what: string; total_g: number; pieces: number }[];
  onBegin: (setup: BenchSetup) => void;
  refused: Error | null;
}

function Begin({ offers, onBegin, refused }: BeginProps) {
  const { weightUnit, weightWords } = useFormatters();
  const [chosen, setChosen] = useState(0);
  const [typed, setTyped] = useState<{ total_g?: number; pieces?: number }>({});
  const [tolerance, setTolerance] = useState(5);
  const [drill, setDrill] = useState(false);
  const offer = offers[chosen] ?? { what: t`dough`, total_g: 0, pieces: 10 };
  const total = typed.total_g ?? +offer.total_g.toFixed(0);
  const pieces = typed.pieces ?? offer.pieces;
  return (
    <section aria-label={t`Begin to weigh out`}>
      <h3 className="text-xl">
        <Trans>Weigh out</Trans>
      </h3>
      <p className="mt-1 text-ink2">
        <Trans>
          Weigh the whole mass first: the loss in the pan is never quite as worked out. Each piece is then aimed at what
          is left.
        </Trans>
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        {offers.map((offer, i) => (
          <button
            key={offer.what}
            type="button"
            className="pick"
            data-on={i === chosen}
            onClick={() => {
              setChosen(i);
              setTyped({});
            }}
          >
            {offer.what}
          </button>
        ))}
      </div>
      <div className="mt-3 max-w-md">
        {(
          [
            [
              "All of it weighs",
              total,
              "g",
              limit("BenchSetup.total_g"),
              (total_g: number) => setTyped({ ...typed, total_g }),
            ],
            [
              "Pieces",
              pieces,
              "",
              limit("BenchSetup.pieces"),
              (n: number) => setTyped({ ...typed, pieces: Math.round(n) }),
            ],
            ["Good enough within", tolerance, "%", limit("BenchSetup.tolerance_pct"), setTolerance],
          ] as const
        ).map(([label, value, unit, within, onChange]) => (
          <Row key={label} label={label}>
            <AmountField
              label={label}
              hideLabel
              {...{ value, unit, within, onChange }}
              decimals={unit === "%" ? 1 : 0}
            />
          </Row>
        ))}
        <label className="mt-2 flex min-h-10 items-center gap-2">
          <Trans>
            <input
              type="checkbox"
              className="size-5 accent-bean"
              checked={drill}
              onChange={(e) => setDrill(e.target.checked)}
            />
            as a drill for the eye: guess each before it is weighed
          </Trans>
        </label>
      </div>
      <p className="mt-2 text-lg">
        <Trans>
          That is <b>{weightWords(total / Math.max(1, pieces), 1)}</b> each.
        </Trans>
      </p>
      <button
        type="button"
        className="pick mt-3 !min-h-12 !px-8 text-lg"
        data-on="true"
        onClick={() =>
          onBegin({ what: offer.what, total_g: total, pieces, unit: weightUnit(), tolerance_pct: tolerance, drill })
        }
      >
        <Trans>Begin</Trans>
      </button>
      {refused && (
        <p role="alert" className="mt-2 text-bean">
          {refused instanceof Refused && refused.problems[0] ? sentence(refused.problems[0]) : t`That was not taken.`}
        </p>
      )}
    </section>
  );
}
