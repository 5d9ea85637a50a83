/** The sheet as a file: our own, recipe data, Markdown, plain text. */

import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { api, ask } from "../api/client";
import { Slip } from "../ui/Slip";
import { capital } from "../ui/words";

export function FilesSlip({ id }: { id: number }) {
  const formats = useQuery({
    queryKey: ["formats"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => ask(api.GET("/api/formats")),
  });
  return (
    <Popover.Root>
      <Popover.Trigger className="text-bean underline underline-offset-4">Take it along</Popover.Trigger>
      <Slip label="Take it along">
        <ul>
          {formats.data?.map((one) => (
            <li key={one.id} className="hairline">
              <a
                href={`/api/sheets/${id}/as/${one.id}`}
                download
                className="inline-flex min-h-11 items-center text-bean underline underline-offset-4"
              >
                {capital(one.label)}
              </a>
            </li>
          ))}
        </ul>
      </Slip>
    </Popover.Root>
  );
}
