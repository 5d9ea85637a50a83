/** The page begins: its look, its language, and then everything that says a word. */

import "./ui/look.css";
import { setNonce } from "get-nonce";
import { createRoot } from "react-dom/client";
import { loadAnewAfterUpdates } from "./newVersion";
import { wearTheme } from "./ui/theme";
import { speak } from "./words/language";

wearTheme();
loadAnewAfterUpdates();

// Dialogs add a style sheet of their own while they are open; the policy lets it in by this page's nonce.
const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;
if (nonce) setNonce(nonce);

// Nothing above may say a word: what does is read only once the language is known.
void speak(document.documentElement.lang)
  .then(() => import("./House"))
  .then(({ Kemble }) => createRoot(document.getElementById("root") as HTMLElement).render(<Kemble />));
