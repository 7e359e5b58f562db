import { addWords } from "../i18n";
import words from "./en-work.json";

// What is said on every screen but the first: fetched with whichever of them comes first.
addWords(words);
