/** A new id. Not `crypto.randomUUID`: that is missing on a tablet that reaches the kitchen over plain HTTP. */
export const newId = () =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0")).join("");
