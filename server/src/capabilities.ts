import type { Pool } from 'pg'
import { FileGuard } from './access/fileGuard.ts'
import { Guard } from './access/guard.ts'
import { Accounts } from './accounts/accounts.ts'
import { CardSheets } from './accounts/cardSheets.ts'
import { Doors } from './accounts/doors.ts'
import { KnownBrowsers } from './accounts/knownBrowsers.ts'
import { NameCards } from './accounts/nameCards.ts'
import { OneTimeCodes } from './accounts/oneTimeCodes.ts'
import { ParentDoor } from './accounts/parentDoor.ts'
import { Passwords } from './accounts/passwords.ts'
import { PictureSecrets } from './accounts/pictureSecrets.ts'
import { Sessions } from './accounts/sessions.ts'
import { SignInLimits } from './accounts/signInLimits.ts'
import { Book } from './book/book.ts'
import { PrintPiece } from './book/printPiece.ts'
import { Comments } from './comments/comments.ts'
import { PrivateWords } from './comments/privateWords.ts'
import { Folders } from './folders/folders.ts'
import { KeptFolders } from './folders/keptFolders.ts'
import { Mail } from './mail/mail.ts'
import { Media } from './media/media.ts'
import { Pages } from './media/pages.ts'
import { TalkFilms } from './media/talkFilms.ts'
import { Notices } from './notices/notices.ts'
import { ClassPieces } from './pieces/classPieces.ts'
import { Makers } from './pieces/makers.ts'
import { Parts } from './pieces/parts.ts'
import { PieceChanges } from './pieces/pieceChanges.ts'
import { listPieceLines } from './pieces/pieceLines.ts'
import { Pieces } from './pieces/pieces.ts'
import type { Platform } from './platform/platform.ts'
import { Portfolio } from './portfolio/portfolio.ts'
import { MarkUps } from './review/markUps.ts'
import { Review } from './review/review.ts'
import { SecondLooks } from './review/secondLooks.ts'
import { TakeFiles } from './review/takeFiles.ts'
import { SentenceStock } from './review/sentenceStock.ts'
import { ClassLists } from './school/classLists.ts'
import { TakenLists } from './school/takenLists.ts'
import { RollOver } from './school/rollOver.ts'
import { School } from './school/school.ts'
import { Staff } from './staff/staff.ts'
import { Guardians } from './sharing/guardians.ts'
import { Invitations } from './sharing/invitations.ts'
import { Sharing } from './sharing/sharing.ts'
import { StarterSheets } from './tasks/starterSheets.ts'
import { Tasks } from './tasks/tasks.ts'
import { Units } from './tasks/units.ts'

/** What Nibquill can do, put together once. */
export function openCapabilities(platform: Platform, pool: Pool) {
  const guard = new Guard(platform)
  const mail = new Mail(platform)
  const school = new School(platform)
  const limits = new SignInLimits(pool)
  const sessions = new Sessions(platform)
  const nameCards = new NameCards(platform, sessions)
  const pictureSecrets = new PictureSecrets(platform)
  const doors = new Doors(platform, school, sessions, pictureSecrets)
  const oneTimeCodes = new OneTimeCodes(platform)
  const passwords = new Passwords(platform, limits, sessions, oneTimeCodes, mail)
  const pieceChanges = new PieceChanges(platform)
  const notices = new Notices(platform)
  const media: Media = new Media(platform, [
    (manager, mediaId) => pieceChanges.tellPrepared(manager, mediaId),
    (manager, mediaId) => notices.tellPrepared(manager, mediaId),
    (manager, mediaId) => tasks.tellPrepared(manager, mediaId),
  ])
  const tasks = new Tasks(platform, school, new StarterSheets(media))
  const pieces = new Pieces(platform, guard, school, pieceChanges)
  const sharing = new Sharing(platform, guard)
  const invitations = new Invitations(platform, mail)
  return {
    guard,
    mail,
    school,
    accounts: new Accounts(platform, { limits, sessions, nameCards, doors, passwords }),
    sessions,
    knownBrowsers: new KnownBrowsers(platform.secrets),
    nameCards,
    cardSheets: new CardSheets(platform, nameCards),
    pictureSecrets,
    doors,
    oneTimeCodes,
    passwords,
    parentDoor: new ParentDoor(platform, limits, sessions, mail),
    pieces,
    sharing,
    invitations,
    guardians: new Guardians(platform, mail, sessions, invitations),
    staffList: new Staff(platform, passwords, oneTimeCodes, mail, sessions),
    classLists: new ClassLists(platform, school),
    takenLists: new TakenLists(platform, school),
    rollOver: new RollOver(platform, school),
    classPieces: new ClassPieces(platform, pieces),
    parts: new Parts(platform, pieceChanges, media),
    makers: new Makers(platform, pieceChanges),
    keptFolders: new KeptFolders(platform, guard),
    folders: new Folders(platform, (manager, tail) => listPieceLines(manager, 'approved', tail)),
    tasks,
    units: new Units(platform),
    fileGuard: new FileGuard(platform, guard),
    media,
    pages: new Pages(platform, media),
    talkFilms: new TalkFilms(platform, media),
    review: new Review(platform, guard, pieces),
    secondLooks: new SecondLooks(platform),
    markUps: new MarkUps(platform, media),
    sentenceStock: new SentenceStock(platform),
    takeFiles: new TakeFiles(platform, pieces),
    comments: new Comments(platform, guard),
    privateWords: new PrivateWords(platform),
    notices,
    portfolio: new Portfolio(platform, school),
    book: new Book(platform, sharing),
    printPiece: new PrintPiece(platform, pieces),
  }
}
export type Capabilities = ReturnType<typeof openCapabilities>
