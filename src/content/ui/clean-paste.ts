/**
 * What is pasted, as plain structure. Word processors write lists as lines with a bullet typed in front, headings one
 * level higher than a page here has them, and comments of their own; browsers bring pictures that are not ours.
 */
export function cleanPaste(html: string, { hasSections }: { hasSections: boolean }): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  const comments = document.createNodeIterator(body, NodeFilter.SHOW_COMMENT);
  for (let one = comments.nextNode(); one; one = comments.nextNode()) one.parentNode?.removeChild(one);
  // A closed part that is pasted where there are no sections would be open there.
  if (!hasSections) for (const section of body.querySelectorAll('[data-gate]')) section.remove();
  for (const junk of body.querySelectorAll(
    'style, script, meta, link, title, xml, img:not([data-picture] img)',
  ))
    junk.remove();
  for (const line of body.querySelectorAll<HTMLElement>('[style*="mso-list"]')) listItemOf(line);
  for (const top of body.querySelectorAll('h1')) rename(top, 'h2');
  for (const low of body.querySelectorAll('h5, h6')) rename(low, 'h4');
  // Spaces that hold a layout together, and lines with nothing in them.
  for (const empty of body.querySelectorAll('p'))
    if (empty.textContent.replace(/\u00a0/g, ' ').trim() === '' && !empty.querySelector('[data-picture]'))
      empty.remove();
  return body.innerHTML.replace(/<\/?o:p>/g, '').replace(/&nbsp;/g, ' ');
}

function rename(element: Element, name: string): void {
  const renamed = document.createElement(name);
  renamed.append(...element.childNodes);
  element.replaceWith(renamed);
}

/** A line that only looks like the entry of a list, as one; together with the entry before it. */
function listItemOf(line: HTMLElement): void {
  const mark = line.querySelector('[style*="mso-list:Ignore"], [style*="mso-list: Ignore"]');
  const text = (mark?.textContent ?? line.textContent).trim();
  mark?.remove();
  const kind = /^[\dA-Za-z]{1,3}[.)]/.test(text) ? 'ol' : 'ul';
  const item = document.createElement('li');
  const inside = document.createElement('p');
  inside.append(...line.childNodes);
  item.append(inside);
  const before = line.previousElementSibling;
  const list = before?.matches(`${kind}[data-list]`) ? before : document.createElement(kind);
  list.setAttribute('data-list', '');
  list.append(item);
  if (list === before) line.remove();
  else line.replaceWith(list);
}
