/** What could stand in for an ingredient: each drawn under it, so that what differs is seen, with what it takes. */

import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import type { IngredientCard } from "../api/client";
import { exchangesQuery } from "../api/queries";
import { LinkButton } from "../ui/LinkButton";
import { CompositionBar } from "./CompositionBar";

interface Props {
  item: IngredientCard;
  larder: readonly IngredientCard[];
  onOpen: (id: string) => void;
}

export function StandsIn({ item, larder, onOpen }: Props) {
  const query = useQuery(exchangesQuery(item.id));
  if (!query.data?.length) return null;
  return (
    <section aria-labelledby="stands-in" className="mt-4">
      <h3 id="stands-in" className="text-lg">
        <Trans>What could stand in for it</Trans>
      </h3>
      <ul>
        {query.data.map((eachItem) => {
          const other = larder.find((card) => card.id === eachItem.to);
          return (
            <li key={eachItem.to} className="hairline py-2">
              <div className="grid grid-cols-[minmax(0,1fr)_9rem] items-center gap-3">
                {other ? (
                  <LinkButton className="text-left" onClick={() => onOpen(other.id)}>
                    {other.name}
                  </LinkButton>
                ) : (
                  <b>{eachItem.label}</b>
                )}
                {other && <CompositionBar item={other} />}
              </div>
              <p className="text-sm text-ink2">{eachItem.says}</p>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
