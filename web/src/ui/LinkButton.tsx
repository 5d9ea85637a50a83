/** What can be pressed and reads as words: a button, and a link, of one look. */

import type { ComponentProps } from "react";
import { Link } from "react-router";

const LOOK = "text-bean underline underline-offset-4";

export const LinkButton = ({ className = "", ...props }: ComponentProps<"button">) => (
  <button type="button" className={`${LOOK} ${className}`.trim()} {...props} />
);

export const TextLink = ({ className = "", ...props }: ComponentProps<typeof Link>) => (
  <Link className={`${LOOK} ${className}`.trim()} {...props} />
);
