import { i18n } from '@lingui/core';

/**
 * The language of the texts. English stands in the code; every other one is a file of `languages/`. It is chosen before the
 * rest of the program is loaded, so that texts may also stand outside of components; another choice loads the page anew.
 */
const FILES = import.meta.glob<{ messages: Record<string, string> }>([
  '../../languages/*.po',
  '!../../languages/en.po',
]);
const KEY = 'pyrometron.language';

/** The languages there are, English first. */
export const LANGUAGES: readonly string[] = [
  ...new Set(['en', ...Object.keys(FILES).map((file) => /(\w[\w-]*)\.po$/.exec(file)![1]!)]),
];

/** The language that is chosen on this device, else the first of the browser's that there is, else English. */
export function language(): string {
  const wanted = [remembered(), ...navigator.languages.flatMap((l) => [l, l.split('-')[0]!])];
  return wanted.find((l) => l !== null && LANGUAGES.includes(l)) ?? 'en';
}

/** Chooses a language for this device. */
export function chooseLanguage(language: string): void {
  try {
    localStorage.setItem(KEY, language);
  } catch {
    // A browser that keeps nothing goes on in its own language.
  }
  location.reload();
}

/**
 * Makes a language the one that is spoken; English where its file cannot be had. Numbers within texts are written as the
 * browser's locale writes them, where that knows the same plurals as the language.
 */
export async function speak(language: string, locales: readonly string[]): Promise<void> {
  const messages = await FILES[`../../languages/${language}.po`]?.().then(
    (file) => file.messages,
    () => null,
  );
  const spoken = messages ? language : 'en';
  i18n.load(spoken, messages ?? {});
  i18n.activate(spoken, locales.find((locale) => countsAlike(locale, spoken)) ?? spoken);
}

/** Whether two locales have the same form of a word for the same number. */
function countsAlike(one: string, other: string): boolean {
  const [a, b] = [new Intl.PluralRules(one), new Intl.PluralRules(other)];
  return Array.from({ length: 201 }, (_, n) => n).every((n) => a.select(n) === b.select(n));
}

function remembered(): string | null {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}
