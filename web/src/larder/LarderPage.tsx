/** The larder: what each ingredient is made of, drawn; the cook's own figures, and ingredients of their own. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { GROUPS } from "../api/generated";
import { kitchenQuery, larderQuery } from "../api/queries";
import { Frame, Waiting } from "../ui/Frame";
import { JustDropped } from "../ui/JustTrashed";
import { meant } from "../ui/matchesQuery";
import { Find } from "../ui/SearchField";
import { CompositionBar } from "./CompositionBar";
import { Editor, type Own, own } from "./Editor";
import { StandsIn } from "./StandsIn";

const FIRST = "sweet-rice-flour"; // what most of it is made of
const blank: Own = {
  id: "",
  name: "",
  aliases: [],
  group: "flour",
  per_100_g: { water: 12, starch: 80, sugar: 0, fat: 1, protein: 6, fibre: 1, salt: 0, other: 0 },
  density: { spooned: 0.6 },
  g_per_piece: null,
  packs: {},
  allergens: [],
  perishable: false,
  tags: [],
  source: "cook",
  look_alike: "",
  caution: "",
};

export default function LarderPage() {
  const larder = useQuery(larderQuery);
  const kitchen = useQuery(kitchenQuery);
  const [wanted, setWanted] = useState("");
  const [open, setOpen] = useState(FIRST);
  useEffect(() => {
    document.title = t`Larder · Kemble`;
  }, []);
  if (!larder.data || !kitchen.data) return <Waiting error={larder.error ?? kitchen.error} />;
  const result = larder.data.filter((item) =>
    meant(wanted, [item.name, item.group, ...item.aliases, ...item.allergens]),
  );
  const chosen = larder.data.find((item) => item.id === open);
  return (
    <Frame
      title={
        <h1 className="text-2xl sm:text-[28px]">
          <Trans>Larder</Trans>
        </h1>
      }
      aside={<Find value={wanted} onChange={setWanted} />}
    >
      <div className="mt-5 grid gap-x-12 gap-y-6 pb-10 lg:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
        <section aria-label={t`Ingredients`} className="order-2 lg:order-1">
          <p className="flex flex-wrap items-baseline justify-between gap-3 text-ink2">
            <Trans>
              {result.length} of {larder.data.length} ingredients
              <button type="button" className="pick" onClick={() => setOpen("")}>
                One of your own
              </button>
            </Trans>
          </p>
          <JustDropped kinds={["ingredient"]} />
          {GROUPS.filter(([group]) => result.some((item) => item.group === group)).map(([group, words]) => (
            <div key={group} className="mt-4">
              <h2 className="text-lg">{words}</h2>
              <ul>
                {result
                  .filter((item) => item.group === group)
                  .map((item) => (
                    <li key={item.id}>
                      <button
                        type="button"
                        aria-expanded={open === item.id}
                        className={`hairline grid w-full grid-cols-[minmax(0,1fr)_9rem_5rem] items-center gap-3 py-1 text-left hover:bg-sheet ${open === item.id ? "bg-sheet font-bold" : ""}`}
                        onClick={() => setOpen(item.id)}
                      >
                        <span>
                          {item.name}
                          {item.own && (
                            <span className="ml-2 text-sm font-normal text-green">
                              <Trans>yours</Trans>
                            </span>
                          )}
                        </span>
                        <CompositionBar item={item} />
                        <span className="text-right text-sm font-normal text-ink2">
                          <Trans>{Object.values(item.density)[0]} g/ml</Trans>
                        </span>
                      </button>
                    </li>
                  ))}
              </ul>
            </div>
          ))}
        </section>
        <section aria-label={t`One ingredient`} className="order-1 lg:order-2">
          <div className="lg:sticky lg:top-4">
            <Editor
              key={open}
              start={chosen ? own(chosen) : blank}
              card={chosen}
              kitchen={kitchen.data.kitchen}
              onDone={(id) => setOpen(id ?? FIRST)}
            >
              {chosen && <StandsIn item={chosen} larder={larder.data} onOpen={setOpen} />}
            </Editor>
          </div>
        </section>
      </div>
    </Frame>
  );
}
