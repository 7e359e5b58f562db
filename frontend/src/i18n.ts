import i18next from "i18next";
import { initReactI18next } from "react-i18next";
import en from "./locales/en.json";

void i18next.use(initReactI18next).init({
  lng: "en",
  fallbackLng: "en",
  resources: { en: { translation: en } },
  interpolation: { escapeValue: false },
});

/** Add the words of one screen: they are fetched with it, not with the first page. */
export function addWords(words: Record<string, unknown>): void {
  i18next.addResourceBundle("en", "translation", words, true, true);
}

export default i18next;
