/** A choice on which cooks differ: each side, and what the one taken buys. */

import { ToggleGroup } from "radix-ui";
import type { WayCard } from "../api/client";

interface Props {
  way: WayCard;
  station: string;
  schools: Record<string, string>;
  onChoose: (choice: string, school: string) => void;
}

/** The school followed of a choice: its usual one where the sheet says none. */
const followed = (way: WayCard, schools: Record<string, string>, id: string) =>
  schools[id] ?? way.choices.find((choice) => choice.id === id)?.default;

/** What a table by choice and school ("dough scald") says of the schools followed. */
export const bySchool = (way: WayCard, sheet: { schools: Record<string, string> }, table: Record<string, number>) =>
  way.choices
    .map((choice) => table[`${choice.id} ${followed(way, sheet.schools, choice.id)}`])
    .find((value) => value != null);

export function Schools({ way, station, schools, onChoose }: Props) {
  return way.choices
    .filter((choice) => choice.station === station)
    .filter(({ under }) => !under || followed(way, schools, under.choice) === under.school)
    .map((choice) => {
      const taken = schools[choice.id] ?? choice.default;
      return (
        <div key={choice.id} className="mt-3">
          <p id={`choice-${choice.id}`} className="text-ink2">
            {choice.title}
          </p>
          <ToggleGroup.Root
            type="single"
            value={taken}
            onValueChange={(school) => school && onChoose(choice.id, school)}
            aria-labelledby={`choice-${choice.id}`}
            className="mt-1 flex flex-wrap gap-2"
          >
            {choice.schools.map((school) => (
              <ToggleGroup.Item key={school.id} value={school.id} className="pick">
                {school.label}
              </ToggleGroup.Item>
            ))}
          </ToggleGroup.Root>
          <p className="mt-1 text-sm text-ink2">{choice.schools.find((school) => school.id === taken)?.buys}.</p>
        </div>
      );
    });
}
