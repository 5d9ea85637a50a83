/** What a plate is called where nobody is to know what lies on it: three figures, the same for a batch on every device; of
 * nine hundred batches after each other no two are alike. */
export const codeOf = (batch: number) => 100 + ((batch * 397 + 211) % 900);
