// @vitest-environment happy-dom
import { expect, test } from 'vitest'
import { cleanPasted } from '../../src/web/desk/event/pasted'

test('a list that an office program wrote as paragraphs is a list, without its bullets', () => {
  const office = `<html xmlns:o="urn:schemas-microsoft-com:office:office"><head><style>p.MsoListParagraph {margin:0}</style></head><body>
    <p class="MsoNormal">Bring:<o:p></o:p></p>
    <p class="MsoListParagraph" style="text-indent:-18pt;mso-list:l0 level1 lfo1"><!--[if !supportLists]--><span>·<span style="font:7pt Times">&nbsp;&nbsp; </span></span><!--[endif]-->oilskins<o:p></o:p></p>
    <p class="MsoListParagraph" style="text-indent:-18pt;mso-list:l0 level1 lfo1"><span>·<span>&nbsp;&nbsp; </span></span>closed <b>shoes</b></p>
    <p class="MsoNormal"><o:p>&nbsp;</o:p></p></body></html>`
  expect(cleanPasted(office).replace(/\n\s*/g, '')).toBe('<p>Bring:</p><ul><li>oilskins</li><li>closed <b>shoes</b></li></ul>')
})

test('numbers before paragraphs make a numbered list', () => {
  const office =
    '<p class="MsoListParagraph" style="mso-list:l1">1.&nbsp; Knots</p><p class="MsoListParagraph" style="mso-list:l1">2.&nbsp; Lines</p>'
  expect(cleanPasted(office)).toBe('<ol><li>Knots</li><li>Lines</li></ol>')
})

test('links stay, and what leads nowhere outside is text', () => {
  expect(
    cleanPasted(
      '<p><a href="https://pinewick.example/rota" style="color:blue" target="_self"><span style="font-size:11pt">rota</span></a>, <a name="_Toc1">above</a>, <a href="#x">here</a></p>',
    ),
  ).toBe('<p><a href="https://pinewick.example/rota">rota</a>, above, here</p>')
})

test('bold and italics that stand in a style are kept, and a wrapper that is bold in name only is none', () => {
  expect(
    cleanPasted(
      '<b style="font-weight:normal"><p><span style="font-weight:700">Bold</span> and <span style="font-style:italic">slanted</span></p></b>',
    ),
  ).toBe('<p><strong>Bold</strong> and <em>slanted</em></p>')
})

test('headings and rows of tables are paragraphs, and pictures and styles go', () => {
  expect(
    cleanPasted(
      '<h2 class="x">Menu</h2><table><tr><td>Soup</td><td>4</td></tr></table><img src="file:///x.png"><div id="y">End</div>',
    ),
  ).toContain('<p><strong>Menu</strong></p>')
  expect(cleanPasted('<div style="margin:0">One</div><div>Two</div>')).toBe('<p>One</p><p>Two</p>')
})
