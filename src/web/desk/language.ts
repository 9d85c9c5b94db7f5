/** Languages that the desk speaks, by their own names: a folder of messages each. */
export const languages = { en: 'English', de: 'Deutsch' } as const

type Language = keyof typeof languages

/** The language of the desk while this page is open. Another one comes with the page's next load. */
export const language = wanted()

/** What the member has chosen (the server says it in a cookie), else what the browser asks for. */
function wanted(): Language {
  return chosen(document.cookie) ?? navigator.languages.map(baseOf).find(isSpoken) ?? 'en'
}

/** Whether the language that is wanted is still the one of this page: signing in and the account can change it. */
export function isAsWanted(): boolean {
  return wanted() === language
}

/** The language that the server's cookie names, if it names one that is spoken. */
export function chosen(cookies: string): Language | undefined {
  const named = /(?:^|; )valtro-language=[^;]*?uic(?:=|%3D)([a-z]+)/i.exec(cookies)?.[1] ?? ''
  return isSpoken(named) ? named : undefined
}

function isSpoken(name: string): name is Language {
  return name in languages
}

function baseOf(locale: string): string {
  return locale.split('-')[0] ?? ''
}
