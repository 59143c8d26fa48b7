/** The access map, its draft, warnings and the leak check. */
export const accessMap = {
  'desk-access.leak-check': 'Leak check',
  'desk-access.leak-intro':
    'Asks your site for every page, file, list, feed and search, as a visitor and as everyone on the map, and looks for words that should be closed to them. Nothing is changed, and no free read is spent.',
  'desk-access.check-now': 'Check now',
  'desk-access.checking': 'Checking…',
  'desk-access.check-progress': '{position, number} of {total, number} answers looked at',
  'desk-access.check-failed': 'The check stopped. Start it again.',
  'desk-access.never-checked': 'Not checked yet',
  'desk-access.never-checked-hint':
    'Check once after you have closed something, and again before you go live.',
  'desk-access.no-leak': 'No leak found',
  'desk-access.leaks-found': '{count, plural, one {1 leak found} other {{count, number} leaks found}}',
  'desk-access.others-found':
    '{count, plural, one {1 answer isn’t as it should be} other {{count, number} answers aren’t as they should be}}',
  'desk-access.checked-on':
    '{date}: {addresses, number} addresses, each as {viewpoints, number} viewpoints; {total, number} answers.',
  'desk-access.check-unfinished': '{date}: stopped after {position, number} of {total, number} answers.',
  'desk-access.found-words': '“… {evidence} …”, which is closed to them',
  'desk-access.found-file': 'The file was sent to them, though it is closed',
  'desk-access.found-hidden': 'Shows the address of “{title}”, which is hidden from them',
  'desk-access.found-shut': 'Doesn’t show what is open to them (status {evidence})',
  'desk-access.found-failed': 'Couldn’t be read (status {evidence})',
  'desk-access.found-at': 'Address',
  'desk-access.found-as': 'Seen by',
  'desk-access.found-what': 'What was found',
  'desk-access.found-of': 'Belongs to',
  'desk-access.to-look-at': 'To look at',
  'desk-access.warnings':
    '{count, plural, one {1 thing to look at} other {{count, number} things to look at}}',
  'desk-access.edit-rule': 'Edit “{rule}”',
  'desk-access.edit-tier': 'Edit {tier}',
  'desk-access.open-more-to-it': 'Open more to it',
  'desk-access.warn-covers-nothing': 'The rule “{rule}” covers nothing that is published.',
  'desk-access.warn-never-reached':
    'The rule “{rule}” never decides: more specific rules do so for everything it covers ({by}).',
  'desk-access.warn-tier-opens-nothing':
    '{tier} is on sale, but opens nothing that members without a tier can’t read.',
  'desk-access.warn-nobody':
    '{count, plural, one {Only staff can open {some}.} other {Only staff can open these {count, number} items: {some}}}',
  'desk-access.warn-meet':
    '“{one}” and “{other}” both decide about {count, plural, one {{some}} other {{count, number} items: {some}}}. If either rule opens it to someone, they’re let in.',
  'desk-access.warn-system-page':
    'The rule “{rule}” covers {some}, a page that the site itself needs. It stays open to everyone.',
  'desk-access.warn-too-long': 'The rule “{rule}” makes holders of {tier} wait longer than the tier lasts.',
  'desk-access.without-category': '{kind} without a category',
  'desk-access.map-of': 'Who sees what: items down, viewpoints across',
  'desk-access.in-group': '{count, number}',
  'desk-access.paint': 'Paint',
  'desk-access.brush-why': 'Ask why',
  'desk-access.brush-open': 'Open',
  'desk-access.brush-closed': 'Close',
  'desk-access.brush-inherit': 'As inherited',
  'desk-access.paint-hint':
    'Arrow keys move, Enter asks why. O opens, C closes, I removes what is set here, Backspace clears the cell.',
  'desk-access.find-in-map': 'Find in the map',
  'desk-access.only-differences': 'Only what differs from its group',
  'desk-access.see-as-member': 'A column for one member',
  'desk-access.without-that-column': 'Without the column for {name}',
  'desk-access.export-csv': 'Export as CSV',
  'desk-access.seen-as': 'Seen by',
  'desk-access.loading-rows': 'Loading…',
  'desk-access.not-all-looked-at': 'Only the first {count, number} were compared.',
  'desk-access.painted': 'painted',
  'desk-access.set-here': 'set here',
  'desk-access.draft': 'Draft',
  'desk-access.draft-changes': '{count, plural, one {1 cell painted} other {{count, number} cells painted}}',
  'desk-access.draft-sums':
    '{items, plural, =0 {No item changes} one {1 item} other {{items, number} items}}, {members, plural, =0 {no member affected} one {1 member affected} other {{members, number} members affected}}',
  'desk-access.draft-would-lose':
    '{count, plural, one {1 member would lose something} other {{count, number} members would lose something}}',
  'desk-access.draft-would-gain':
    '{count, plural, one {1 member would gain something} other {{count, number} members would gain something}}',
  'desk-access.draft-not-worked-out':
    'The impact can’t be calculated. Reload the page; your draft is kept in this tab.',
  'desk-access.review': 'Review',
  'desk-access.apply-draft': 'Apply',
  'desk-access.drop-draft': 'Drop',
  'desk-access.draft-applied': 'The draft is applied.',
  'desk-access.draft-undone': 'The draft is undone.',
  'desk-access.draft-review': 'What the draft changes',
  'desk-access.rule-is-made': 'New rule “{rule}”',
  'desk-access.rule-is-changed': 'Rule “{rule}” changes',
  'desk-access.rule-is-deleted': 'Rule “{rule}” is archived',
  'desk-access.will-open-to': 'Opens to {to}.',
  'desk-access.before-that': 'Before: {to}.',
  'desk-access.covers-from-to': 'Covers {is}. Before: {was}.',
  'desk-access.who-gains': 'Who gains?',
  'desk-access.who-loses': 'Who loses?',
  'desk-access.and-more-members': 'These are the first {count, number}.',
  'desk-access.stays-open': '“{target}” stays open to {who}: {rules} opens it too.',
  'desk-access.stays-closed': '“{target}” stays closed to {who}: {rules} must be open as well.',
} as const;
