/**
 * What was copied in an office program, as plain as a text here is: paragraphs, bold, italics, lists, links. Office programs write lists as
 * paragraphs with a bullet typed before them, wrap everything in styles, and mark with styles what is bold.
 */
export function cleanPasted(html: string): string {
  const body = new DOMParser().parseFromString(withoutConditions(html), 'text/html').body
  for (const gone of body.querySelectorAll('style, script, meta, link, title, xml, img')) gone.remove()
  // Elements of the program's own, such as o:p.
  for (const own of body.querySelectorAll('*')) if (own.tagName.includes(':')) own.remove()
  for (const heading of body.querySelectorAll('h1, h2, h3, h4, h5, h6')) replaced(heading, 'p', 'strong')
  for (const cell of body.querySelectorAll('td, th')) cell.append(' ')
  for (const row of body.querySelectorAll('tr')) replaced(row, 'p')
  listed(body)
  for (const styled of body.querySelectorAll<HTMLElement>('span, b, i')) byStyle(styled)
  for (const link of body.querySelectorAll('a'))
    if (!/^(https?|mailto|tel):/i.test(link.getAttribute('href') ?? '')) unwrapped(link)
  for (const element of body.querySelectorAll('*'))
    for (const { name } of [...element.attributes]) if (name !== 'href') element.removeAttribute(name)
  for (const wrapper of body.querySelectorAll('span, font')) unwrapped(wrapper)
  for (const block of body.querySelectorAll('div')) {
    if (block.querySelector('p, ul, ol, div')) unwrapped(block)
    else replaced(block, 'p')
  }
  for (const paragraph of body.querySelectorAll('p')) if (paragraph.textContent.trim() === '') paragraph.remove()
  return body.innerHTML.trim()
}

/** Without comments, in which office programs say what only they themselves are to show. */
function withoutConditions(html: string): string {
  return html.replace(/<!--[\s\S]*?-->/g, '').replace(/<!\[(if|endif)[^\]]*\]>/gi, '')
}

/** The bullet, dash or number that stands before a paragraph of a list. */
const bullet = /^[\s\u00a0]*([·•▪◦§o–-]|\(?\d{1,2}[.)]|[a-z][.)])[\s\u00a0]+/

function listed(body: HTMLElement): void {
  for (const paragraph of body.querySelectorAll<HTMLElement>('p')) {
    if (!/mso-list:/i.test(paragraph.getAttribute('style') ?? '') && !/ListParagraph/i.test(paragraph.className)) continue
    const isNumbered = /^[\s\u00a0]*\(?\d/.test(paragraph.textContent)
    const before = bullet.exec(paragraph.textContent)
    if (!before) continue
    cut(paragraph, before[0].length)
    const above = paragraph.previousElementSibling
    const list = above?.localName === (isNumbered ? 'ol' : 'ul') ? above : document.createElement(isNumbered ? 'ol' : 'ul')
    const item = document.createElement('li')
    item.append(...paragraph.childNodes)
    if (list !== above) paragraph.before(list)
    list.append(item)
    paragraph.remove()
  }
}

/** Without so many letters at its beginning, in however many elements they stand. */
function cut(element: Node, letters: number): void {
  const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT)
  let left = letters
  for (let text = walker.nextNode() as Text | null; text && left > 0; text = walker.nextNode() as Text | null) {
    const here = Math.min(left, text.data.length)
    text.data = text.data.slice(here)
    left -= here
  }
}

/** Bold and italics that stand in a style are some, and those that a style takes back are none. */
function byStyle(element: HTMLElement): void {
  const { fontWeight, fontStyle } = element.style
  const isBold = fontWeight === 'bold' || Number(fontWeight) >= 600
  if (element.localName === 'b' && fontWeight !== '' && !isBold) return unwrapped(element)
  if (element.localName === 'span' && isBold) wrapped(element, 'strong')
  if (element.localName === 'span' && fontStyle === 'italic') wrapped(element, 'em')
}

function wrapped(element: Element, tag: string): void {
  const wrapper = document.createElement(tag)
  wrapper.append(...element.childNodes)
  element.append(wrapper)
}

function unwrapped(element: Element): void {
  element.replaceWith(...element.childNodes)
}

function replaced(element: Element, tag: string, inner?: string): void {
  const made = document.createElement(tag)
  made.append(...element.childNodes)
  if (inner) wrapped(made, inner)
  element.replaceWith(made)
}
