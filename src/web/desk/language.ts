/** Languages that the desk speaks: a folder of messages each. */
const spoken = ['en', 'de']

/**
 * The language of the desk while this page is open: what the member has chosen (the server says it in a cookie),
 * before signing in what the browser asks for. Another one comes with the page's next load.
 */
export const language = chosen(document.cookie) ?? navigator.languages.map(baseOf).find((one) => spoken.includes(one)) ?? 'en'

/** Whether the language that the member wants is still the one of this page: signing in and the account can change it. */
export function isSpoken(): boolean {
  return (chosen(document.cookie) ?? language) === language
}

/** The language that the server's cookie names, if it names one that is spoken. */
export function chosen(cookies: string): string | undefined {
  const named = /(?:^|; )valtro-language=[^;]*?uic(?:=|%3D)([a-z]+)/i.exec(cookies)?.[1]
  return spoken.find((one) => one === named)
}

function baseOf(locale: string): string {
  return locale.split('-')[0] ?? 'en'
}
