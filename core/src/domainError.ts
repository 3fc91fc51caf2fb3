/**
 * Every refusal Nibquill can give, with the sentence a person can act on, in ICU's message syntax.
 * A code is public once shipped: clients and translations branch on it, never on the sentence.
 */
export const DOMAIN_ERRORS = {
  'accounts/signed-out': 'Please sign in again. What you made is safe.',
  'accounts/card-unknown': 'We do not know that card. Look at each letter again.',
  'accounts/password-wrong': 'That e-mail address and password do not go together.',
  'accounts/too-many-tries': 'That was a lot of tries. Wait a little, then try again.',
  'accounts/invitation-over':
    'This invitation no longer opens anything. Ask the school for a new one.',
  'accounts/password-link-over':
    'This link no longer opens anything. Ask the school for a new one.',
  'accounts/no-cards': 'There is nobody in this class to make a card for.',
  'accounts/cards-not-ready': 'These cards are not drawn yet.',
  'accounts/email-taken': 'Somebody here has that e-mail address already.',
  'accounts/door-shut': 'The class’s door is shut just now. Your own name card always works.',
  'accounts/door-elsewhere':
    'The pegs only work in the school’s own network. Your own name card always works.',
  'accounts/too-many-tablets':
    'This class has as many tablets as its teacher allows. The teacher can take one away or allow more.',
  'accounts/no-tablet':
    'This tablet does not show the pegs any more. Hold the door card to the camera.',
  'accounts/no-secret-yet': 'Your teacher has to give you your pictures first.',
  'accounts/secret-wrong': 'Those are not your three pictures.',
  'accounts/code-needed': 'Type the code that your authenticator shows.',
  'accounts/code-wrong': 'That code is not right, or it was used before. Wait for the next one.',
  'accounts/codes-already-on': 'One-time codes are switched on already, or have to be begun anew.',
  'accounts/mail-code-wrong': 'That code is not right, or too old. Ask for a new one.',
  'accounts/already-set-up': 'This school has been set up already. Please sign in.',
  'accounts/origin-refused':
    'This request did not come from Nibquill itself, so nothing was changed.',
  'request/invalid': 'Something in this request is not as it should be.',
  'request/too-large': 'That is more than Nibquill takes at once.',
  'request/not-found': 'There is nothing here for you to see.',
  'school/year-in-use': 'A term with work in it cannot go, and a year with classes stays.',
  'school/years-overlap': 'Two school years cannot run at the same time.',
  'school/stale': 'Someone else changed this first. Here it is as it stands now.',
  'school/list-unreadable':
    'This is not a class list we can read. Plain lists, CSV and OneRoster work.',
  'school/class-overfull':
    'This list puts more pupils into one class than a class can hold. Nothing was taken over.',
  'school/list-lived':
    'Somebody this list added has been at their desk or has a family here. Take pupils out one by one.',
  'school/list-used': 'This list has been taken over already.',
  'school/no-lead': 'Somebody has to lead the school.',
  'school/pegs-full': 'There are not enough different pegs for so many pupils in one class.',
  'school/roll-over-refused': 'The year cannot be turned like this.',
  'school/roll-over-final': 'There is work in the new year already, so this cannot be undone.',
  'piece/not-found': 'There is nothing here for you to see.',
  'piece/stale': 'Someone else changed this first. Here it is as it stands now.',
  'piece/move-refused': 'That cannot be done with this piece as it stands now.',
  'piece/empty': 'There is nothing in this piece yet. Add a photo first.',
  'piece/full': 'This piece is full. Thirty parts is the most it holds.',
  'piece/not-open': 'This piece is with the teacher. Take it out of the tray to change it.',
  'piece/closed': 'Your teacher has closed this piece. It stays as it is.',
  'piece/part-changed': 'Somebody else wrote here meanwhile.',
  'piece/drawing-full': 'There is no more room in this drawing.',
  'piece/part-gone': 'That part is not in this piece any more.',
  'piece/not-together': 'That is for what several made together and a teacher approved.',
  'piece/not-a-classmate': 'Only pupils of your own class can make it with you.',
  'piece/decided-earlier': 'That was decided a while ago. Start another go instead.',
  'piece/in-folder': 'This piece is in its folder. What is in a folder is not thrown away.',
  'piece/marked-already': 'Another teacher wrote on this meanwhile. Here it is as it stands now.',
  'comment/not-found': 'There is nothing here for you to see.',
  'comment/decided-already': 'Another teacher looked at this first. Here it is as it stands now.',
  'comment/too-many': 'There is a lot under this piece already. Talk about it at school.',
  'comment/too-many-waiting':
    'A lot of what you said waits for the teacher. Say more when they have read it.',
  'comment/not-for-you':
    'You can only say that to your own teacher, or to a pupil who makes this piece.',
  'folder/not-found': 'That folder is not there for you.',
  'folder/put-away': 'That folder has been put away. Choose another one.',
  'folder/stale': 'Someone else changed this folder first. Here it is as it stands now.',
  'folder/shared':
    'This folder is shared with a class that is not yours. Its teacher, or whoever leads the school, can change who sees it.',
  'folder/fixed': 'This task has its own folder.',
  'task/stale': 'Someone else changed this task first. Here it is as it stands now.',
  'task/closed': 'This task is closed.',
  'task/not-found': 'That task is not there for you.',
  'media/not-found': 'There is nothing here for you to see.',
  'media/empty': 'This file is empty. Nothing was kept of it.',
  'media/not-opened':
    'This is nothing we can open. Photos and drawings work (JPEG, PNG, WebP, GIF or HEIC), recordings (WebM, Ogg or M4A), films (MP4, MOV or WebM) and papers (PDF).',
  'media/ink-unreadable':
    'This drawing cannot be opened: it is damaged, or was made by a later Nibquill.',
  'media/not-for-pieces': 'A file of this kind has no place there.',
  'media/unreadable': 'This picture is damaged and cannot be opened. Take the photo again.',
  'media/too-large': 'This file is too big. A film may have 400 MB, anything else 60 MB.',
  'media/film-too-long': 'This film is longer than two minutes. Film a shorter one.',
  'media/too-many-pixels':
    'This picture is too large to open. The most is 120 megapixels, or 36 for one that is interlaced, progressive, WebP, GIF or HEIC.',
  'media/differs': 'What arrived is not what was sent. It will be sent again.',
  'media/id-taken': 'Another file has this place already.',
  'media/file-unreadable':
    'This file cannot be opened. If it asks for a password, save it without one and send it again.',
  'media/no-such-page': 'This paper has fewer pages than that.',
  'media/not-taken': 'Files of this kind cannot be kept here.',
  'media/arrived-already': 'That file is at school already.',
  'media/too-many-uploads':
    'A lot is on its way already. This follows when some of it has arrived.',
  'media/no-room': 'The school has no room left. Your work stays on this tablet.',
  'tidy/corners-cross': 'These four corners do not go round a page. Drag them apart.',
  'portfolio/not-approved': 'Only work that is in a folder can be picked.',
  'portfolio/no-term': 'There is no term yet to keep this in.',
  'book/nothing-to-print': 'There is nothing in this term yet, so there is no book to make.',
  'book/not-ready': 'This book is not ready yet.',
  'book/not-for-home':
    'Something in this book may not be shown at home any more. Make the book again.',
  'live/too-many':
    'Nibquill is open in a lot of places already. This page still works; it does not renew itself.',
  'service/unavailable':
    'Nibquill cannot reach its records just now. Your work is safe; try again in a moment.',
  'service/unexpected': 'Something went wrong on our side. Nothing you made is lost; try again.',
  'sharing/no-letters': 'There is nobody to write to: nobody is invited who has not come yet.',
  'sharing/no-address':
    'This parent has other children here and no e-mail address. Nobody can be shown their link, and nothing can be sent.',
  'sharing/link-for-school':
    'This page is in a book for school. Sign in as a member of staff to open it.',
  'sharing/link-over': 'This link has ended. Ask the school for a new book or a new link.',
} as const

export type DomainErrorCode = keyof typeof DOMAIN_ERRORS

/** A rule that refused: `code` names the rule, `details` carries what the person needs to go on. */
export class DomainError extends Error {
  readonly code: DomainErrorCode
  readonly details: Record<string, unknown>
  constructor(code: DomainErrorCode, details: Record<string, unknown> = {}) {
    super(DOMAIN_ERRORS[code])
    this.name = 'DomainError'
    this.code = code
    this.details = details
  }
}
