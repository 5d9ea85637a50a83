/** Lengths on a ruler in inches: to the sixteenth, as it is read off. */

const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : a);

/** "1 1/4" for 31.8 mm. */
export function inches(mm: number): string {
  const sixteenths = Math.round((mm / 25.4) * 16);
  const [whole, rest] = [Math.floor(sixteenths / 16), sixteenths % 16];
  if (!rest) return `${whole}`;
  const by = gcd(rest, 16);
  return `${whole ? `${whole} ` : ""}${rest / by}/${16 / by}`;
}
